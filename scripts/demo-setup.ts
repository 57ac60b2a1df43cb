/** What is told of one setup of the demo shop, and short ways to tell it. */
import type { ErrorParameters } from '@/core/geometry/error-parameters';
import type { MachineSetting } from '@/core/setting/machine-setting';
import type { ProgramAnswers } from '@/core/shop/decide-route';
import type { Family, MarkUse } from '@/core/shop/words';
import type { EventKind } from '@/core/trust/event-kinds';

export interface DemoSetting {
  readonly displayName: string;
  readonly kind: MachineSetting['kind'];
  readonly actsOn: MachineSetting['actsOn'];
  readonly unit: MachineSetting['unit'];
  readonly unitSize?: number;
  readonly step: number;
  readonly range: readonly [number, number];
  readonly sense: 1 | -1 | null;
  readonly trueSense: 1 | -1;
  readonly entry: 'new_value' | 'change';
  readonly combine: 'replaces' | 'adds';
  readonly pivot: 'centre' | 'first_mark';
  readonly value: number;
}

export interface DemoSetup {
  readonly name: string;
  readonly note: string;
  readonly printer: string;
  readonly mode: string;
  readonly family: Family;
  readonly page: 'A4' | 'Letter';
  readonly dotPitchMm: number;
  readonly program:
    | (Partial<ProgramAnswers> & {
        readonly name: string;
        readonly importScale: '96' | '72' | 'asks';
        readonly spotInkName?: string;
      })
    | null;
  readonly cutter: string;
  readonly fileFormat: 'hpgl' | 'svg' | 'none';
  readonly axes: readonly ['+x' | '-x' | '+y' | '-y', '+x' | '-x' | '+y' | '-y'];
  readonly feeds: 'away' | 'towards';
  readonly material: 'strip' | 'disc' | 'laminated';
  readonly toleranceMm: number;
  readonly settings: readonly DemoSetting[];
  readonly truth: {
    readonly error: ErrorParameters;
    readonly markSdMm: number;
    readonly printScale?: number;
    readonly markUse?: MarkUse;
    readonly traceGrowthMm?: number;
    /** How the back's print lies against the front's. */
    readonly backPrint?: { readonly xMm: number; readonly yMm: number; readonly rotationRad: number };
    /** How far from the page's middle its program puts the block. */
    readonly placement?: { readonly xMm: number; readonly yMm: number };
  };
  /** What the demo's past holds: days before today of a confirmed calibration, then events. */
  readonly past: {
    readonly confirmedDaysAgo?: number;
    /** Calibrations before that one, oldest first. */
    readonly earlierDaysAgo?: readonly number[];
    readonly failedDaysAgo?: number;
    readonly events?: readonly { kind: EventKind; daysAgo: number; note: string }[];
  };
}

export const offset = (displayName: string, over: Partial<DemoSetting>): DemoSetting => ({
  displayName,
  kind: 'typed',
  actsOn: 'offset_across',
  unit: 'mm',
  step: 0.1,
  range: [-20, 20],
  sense: 1,
  trueSense: over.sense === -1 ? -1 : 1,
  entry: 'new_value',
  combine: 'replaces',
  pivot: 'centre',
  value: 0,
  ...over,
});

/** A routine in the machine: a line is chosen, and the value stays hidden. */
export const WIZARD_LINE: Partial<DemoSetting> = {
  kind: 'wizard',
  unit: 'step',
  unitSize: 0.1,
  step: 1,
  range: [-10, 10],
  sense: null,
  entry: 'change',
  combine: 'adds',
};
