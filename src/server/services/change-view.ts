import 'server-only';
import { settingUnitWord } from '@/core/setting/machine-setting';
import type { FeedDirection } from '@/core/geometry/load';
import type { SettingChange } from '@/core/setting/plan-settings';
import { formatFixed } from '@/core/units/length';
import { decimalsOf } from '@/core/setting/machine-setting';
import { moveWords, settingValueWords } from './words';

/** A planned change as the Settings page shows it. */
export function changeView(plan: SettingChange, feed: FeedDirection) {
  return {
    plan,
    unit: settingUnitWord(plan.setting.unit),
    before: settingValueWords(plan.setting, plan.before),
    after: settingValueWords(plan.setting, plan.after),
    toType: formatFixed(plan.toType, decimalsOf(plan.setting.step), plan.setting.combine === 'adds'),
    moveWords: moveWords(plan, feed),
  };
}
