import 'server-only';
import { then, type Affine } from '@/core/geometry/affine';
import type { MachineSetting } from '@/core/setting/machine-setting';
import { carriedTo, setBack, type SettingChange, type SettingValues } from '@/core/setting/plan-settings';
import { carryTo } from './fine-readings';
import type { CalibrationRecord, CutSet } from './record';
import { settingValueWords } from './words';

type MachineMap = Affine<'machine', 'machine'>;

/** What the settings were when the newest of the sets was cut, and what that means for a plan made now. */
export interface SettingsAtCut {
  readonly values: SettingValues;
  /** Settings that stand elsewhere now, each with the change that sets it back. */
  readonly moved: readonly SettingChange[];
  /** Those of them whose direction is not known: only setting them back tells where the cut falls. */
  readonly mustSetBack: readonly SettingChange[];
  /** Loads that were cut with other settings and cannot be compared. */
  readonly leftOutLoads: readonly number[];
}

/** Settings in force when the newest set was cut, against those of now. */
export function settingsAtCut(record: CalibrationRecord, sets: readonly CutSet[]): SettingsAtCut {
  const newest = sets.at(-1);
  const values = newest?.settings ?? {};
  const moved = setBack(record.settings, values);
  const leftOut = newest ? sets.filter((s) => carryTo(record, s, newest) === null) : [];
  return {
    values,
    moved,
    mustSetBack: moved.filter((c) => c.setting.sense === null),
    leftOutLoads: [...new Set(leftOut.map((s) => s.loadNo))],
  };
}

/** The error as the machine stands now, once what must be set back is: settings of known direction stay where they are. */
export function errorNow(settings: readonly MachineSetting[], cut0: MachineMap, { values }: SettingsAtCut): MachineMap {
  const carried = carriedTo(
    settings.filter((s) => s.sense !== null),
    values,
    {},
  );
  return carried ? then(cut0, carried) : cut0;
}

/** A setting that stands elsewhere now than when the sheet was cut, in words. */
export const movedWords = ({ setting, before, after }: SettingChange): string =>
  `${setting.displayName} was ${settingValueWords(setting, after)} when this sheet was cut and is ${settingValueWords(setting, before)} now.`;
