/**
 * The demo shop: a workshop of a river-and-trail trust that makes river-level gauge strips and trail waymarker discs.
 * Every name, place and figure is made up. Each setup is simulated; its true error stands only here and in simulated_setup.
 */
import { NO_ERROR, type ErrorParameters } from '@/core/geometry/error-parameters';
import type { Family } from '@/core/shop/words';
import type { EventKind } from '@/core/trust/event-kinds';

export const PEOPLE = [
  { key: 'marit', name: 'Marit', unitSystem: 'mm' },
  { key: 'odo', name: 'Odo', unitSystem: 'in-fraction' },
  { key: 'pell', name: 'Pell', unitSystem: 'in-decimal' },
] as const;

export const MATERIALS = [
  { key: 'strip', name: 'Gauge strip film', finish: 'matt white' },
  { key: 'disc', name: 'Waymarker vinyl', finish: 'gloss white' },
  { key: 'laminated', name: 'Laminated strip film', finish: 'matt, laminated' },
] as const;

interface DemoSetting {
  readonly displayName: string;
  readonly actsOn: 'offset_across' | 'offset_along' | 'scale_across' | 'scale_along';
  readonly unit: 'mm' | 'tenth_mm' | 'percent' | 'per_mille';
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
  readonly program: { readonly name: string; readonly importScale: '96' | '72' | 'asks' } | null;
  readonly cutter: string;
  readonly fileFormat: 'hpgl' | 'svg' | 'none';
  readonly axes: readonly ['+x' | '-x' | '+y' | '-y', '+x' | '-x' | '+y' | '-y'];
  readonly feeds: 'away' | 'towards';
  readonly material: (typeof MATERIALS)[number]['key'];
  readonly toleranceMm: number;
  readonly settings: readonly DemoSetting[];
  readonly truth: { readonly error: ErrorParameters; readonly markSdMm: number; readonly printScale?: number };
  /** What the demo's past holds: days before today of a confirmed calibration, then events. */
  readonly past: {
    readonly confirmedDaysAgo?: number;
    readonly failedDaysAgo?: number;
    readonly events?: readonly { kind: EventKind; daysAgo: number; note: string }[];
  };
}

const offset = (displayName: string, over: Partial<DemoSetting>): DemoSetting => ({
  displayName,
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

const FOUR_SETTINGS: readonly DemoSetting[] = [
  offset('SIDE ADJ', { value: 1.2, step: 0.05 }),
  offset('FEED ADJ', { actsOn: 'offset_along', sense: -1, value: 26.5, range: [0, 60], step: 0.05 }),
  offset('SIDE SCALE', { actsOn: 'scale_across', unit: 'percent', range: [-2, 2], step: 0.02, pivot: 'first_mark' }),
  offset('FEED SCALE', { actsOn: 'scale_along', unit: 'percent', range: [-2, 2], step: 0.02, pivot: 'first_mark' }),
];

export const SETUPS: readonly DemoSetup[] = [
  {
    name: 'Low Weir',
    note: 'Gauge strips on sheets, for the metre line',
    printer: 'Loft sheet printer',
    mode: 'rear tray, best',
    family: 'F3',
    page: 'A4',
    dotPitchMm: 25.4 / 1200,
    program: null,
    cutter: 'Mill bench cutter',
    fileFormat: 'hpgl',
    axes: ['+x', '+y'],
    feeds: 'away',
    material: 'strip',
    toleranceMm: 0.3,
    settings: FOUR_SETTINGS,
    truth: {
      error: {
        offsetAcrossMm: 0.42,
        offsetAlongMm: -0.31,
        rotationRad: 0.0008,
        scaleAcross: 0.0014,
        scaleAlong: -0.0011,
        squareness: 0.0004,
      },
      markSdMm: 0.03,
    },
    past: { confirmedDaysAgo: 6 },
  },
  {
    name: 'Towpath',
    note: 'Long strips off the roll',
    printer: 'Weir room roll printer',
    mode: 'film, 8 pass',
    family: 'F3',
    page: 'A4',
    dotPitchMm: 25.4 / 600,
    program: null,
    cutter: 'Boathouse roll cutter',
    fileFormat: 'hpgl',
    axes: ['+y', '+x'],
    feeds: 'towards',
    material: 'strip',
    toleranceMm: 0.3,
    settings: [
      offset('OFFSET Y', { value: 3.4, sense: -1 }),
      offset('OFFSET X', { actsOn: 'offset_along', value: -0.5 }),
      offset('LENGTH', { actsOn: 'scale_along', unit: 'per_mille', range: [-20, 20], step: 0.1 }),
    ],
    truth: {
      error: { ...NO_ERROR, offsetAcrossMm: -0.55, offsetAlongMm: 0.35, scaleAlong: 0.0018, rotationRad: -0.0003 },
      markSdMm: 0.05,
    },
    past: { confirmedDaysAgo: 24, events: [{ kind: 'new_blade', daysAgo: 2, note: '45 degree blade' }] },
  },
  {
    name: 'Osier',
    note: 'Waymarker discs; one setting of unknown direction',
    printer: 'Loft sheet printer',
    mode: 'front tray, photo',
    family: 'F1c',
    page: 'A4',
    dotPitchMm: 25.4 / 1200,
    program: { name: 'Withy layout program', importScale: '96' },
    cutter: 'Willow desk cutter',
    fileFormat: 'none',
    axes: ['+x', '+y'],
    feeds: 'away',
    material: 'disc',
    toleranceMm: 0.4,
    settings: [
      offset('LEFT-RIGHT', { step: 0.1, sense: null, trueSense: -1, entry: 'change', combine: 'adds', range: [-5, 5] }),
      offset('UP-DOWN', { actsOn: 'offset_along', step: 0.1, entry: 'change', combine: 'adds', range: [-5, 5] }),
    ],
    truth: { error: { ...NO_ERROR, offsetAcrossMm: 0.6, offsetAlongMm: 0.45, rotationRad: 0.001 }, markSdMm: 0.05 },
    past: {},
  },
  {
    name: 'Heronry',
    note: 'Laminated strips; the laminate stretches',
    printer: 'Weir room roll printer',
    mode: 'film, 12 pass',
    family: 'F4',
    page: 'Letter',
    dotPitchMm: 25.4 / 600,
    program: null,
    cutter: 'Heron shed cutter',
    fileFormat: 'svg',
    axes: ['+x', '+y'],
    feeds: 'towards',
    material: 'laminated',
    toleranceMm: 0.3,
    settings: [
      offset('SHIFT A', { unit: 'tenth_mm', step: 1, range: [-90, 90] }),
      offset('SHIFT B', { actsOn: 'offset_along', unit: 'tenth_mm', step: 1, range: [-90, 90] }),
    ],
    truth: {
      error: { ...NO_ERROR, offsetAcrossMm: 0.35, offsetAlongMm: -0.4, scaleAlong: 0.0052, squareness: 0.0012 },
      markSdMm: 0.06,
    },
    past: { failedDaysAgo: 3 },
  },
  {
    name: 'Sluice',
    note: 'Discs and small signs',
    printer: 'Lock office printer',
    mode: 'plain, standard',
    family: 'F1c',
    page: 'Letter',
    dotPitchMm: 25.4 / 600,
    program: { name: 'Paddle layout program', importScale: '72' },
    cutter: 'Lock office cutter',
    fileFormat: 'none',
    axes: ['+x', '+y'],
    feeds: 'away',
    material: 'disc',
    toleranceMm: 0.4,
    settings: [
      offset('X ADJ', { step: 0.1, range: [-9, 9] }),
      offset('Y ADJ', { actsOn: 'offset_along', step: 0.1, sense: -1, range: [-9, 9] }),
    ],
    truth: { error: { ...NO_ERROR, offsetAcrossMm: 0.3, offsetAlongMm: 0.5, rotationRad: 0.0006 }, markSdMm: 0.05 },
    past: { confirmedDaysAgo: 71, events: [{ kind: 'driver', daysAgo: 9, note: 'thicker paper in tray 2' }] },
  },
  {
    name: 'Ferry Steps',
    note: 'A volunteer\u2019s home cutter with nothing to set',
    printer: 'Ferry cottage printer',
    mode: 'normal',
    family: 'F1',
    page: 'A4',
    dotPitchMm: 25.4 / 600,
    program: { name: 'Home craft program', importScale: '96' },
    cutter: 'Ferry cottage cutter',
    fileFormat: 'none',
    axes: ['+x', '+y'],
    feeds: 'away',
    material: 'disc',
    toleranceMm: 0.5,
    settings: [],
    truth: { error: { ...NO_ERROR, offsetAcrossMm: 6.4, offsetAlongMm: -3.2, rotationRad: 0.0015 }, markSdMm: 0.08 },
    past: {},
  },
];
