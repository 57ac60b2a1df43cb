import 'server-only';
import { displacement } from '@/core/geometry/affine';
import { directionWord, type FeedDirection } from '@/core/geometry/load';
import { formatFixed } from '@/core/units/length';
import { decimalsOf, isOffset, settingMap, settingUnitWord, type MachineSetting } from '@/core/setting/machine-setting';
import type { SettingChange } from '@/core/setting/plan-settings';

export function settingValueWords(setting: Pick<MachineSetting, 'step' | 'unit'>, value: number): string {
  return `${formatFixed(value, decimalsOf(setting.step))} ${settingUnitWord(setting.unit)}`;
}

/** Which way the cut moves when the setting goes from before to after, as one who stands at the machine says it. */
export function moveWords(change: SettingChange, feed: FeedDirection): string {
  const { setting, before, after } = change;
  if (setting.sense === null) return 'the cut goes back to where it was';
  if (!isOffset(setting)) {
    const isAcross = setting.actsOn === 'scale_across';
    const grows = (after - before) * setting.sense > 0;
    return `the cut gets ${grows ? 'larger' : 'smaller'} ${isAcross ? 'across' : 'along the feed'}`;
  }
  const origin = { x: 0, y: 0 };
  const from = displacement(settingMap(setting, before), origin);
  const to = displacement(settingMap(setting, after), origin);
  const move = { x: to.x - from.x, y: to.y - from.y };
  return `the cut moves ${formatFixed(Math.hypot(move.x, move.y), 2)} mm ${directionWord(move, feed)}`;
}

export function changeWords(change: SettingChange, feed: FeedDirection): string {
  const { setting, before, after } = change;
  return `Set ${setting.displayName} from ${settingValueWords(setting, before)} to ${settingValueWords(setting, after)}: ${moveWords(change, feed)}.`;
}
