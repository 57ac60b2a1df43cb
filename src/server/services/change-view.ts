import 'server-only';
import { namedLine, type Ladder, type OwnTest } from '@/core/reading/ladder';
import type { FeedDirection } from '@/core/geometry/load';
import type { SettingChange } from '@/core/setting/plan-settings';
import { formatFixed } from '@/core/units/length';
import { decimalsOf, settingUnitWord, type MachineSetting } from '@/core/setting/machine-setting';
import { ownTestOf } from './measure';
import { moveWords, settingValueWords } from './words';

interface Shown {
  readonly feeds: FeedDirection;
  /** The cutter's own test as it was described; null where it was not. */
  readonly ownTest: unknown;
}

/** The row that a wizard's line is picked from; null for any other setting, and where the row is not described. */
function rowFor({ kind, unit, actsOn }: MachineSetting, ownTest: OwnTest | null): Ladder | null {
  if (kind !== 'wizard' || unit !== 'step' || ownTest === null) return null;
  if (actsOn === 'offset_across') return ownTest.across;
  return actsOn === 'offset_along' ? ownTest.along : null;
}

/** A planned change as the Settings page shows it, by what is known of its cutter. */
export function changeView(plan: SettingChange, cutter: Shown) {
  const ownTest = ownTestOf(cutter);
  const row = rowFor(plan.setting, ownTest);
  const number = formatFixed(plan.toType, decimalsOf(plan.setting.step), plan.setting.combine === 'adds');
  return {
    row,
    testSheet: row && ownTest ? ownTest.sheet : null,
    plan,
    unit: settingUnitWord(plan.setting.unit),
    before: settingValueWords(plan.setting, plan.before),
    after: settingValueWords(plan.setting, plan.after),
    toType: row ? namedLine(row, row.middle + plan.toType) : number,
    moveWords: moveWords(plan, cutter.feeds),
  };
}
