import 'server-only';
import type { FeedDirection } from '@/core/geometry/load';
import { formatFixed } from '@/core/units/length';
import { decimalsOf, settingUnitWord, type MachineSetting } from '@/core/setting/machine-setting';
import type { SettingChange } from '@/core/setting/plan-settings';
import { settingMove } from '@/core/setting/setting-move';

export function settingValueWords(setting: Pick<MachineSetting, 'step' | 'unit'>, value: number): string {
  return `${formatFixed(value, decimalsOf(setting.step))} ${settingUnitWord(setting.unit)}`;
}

const TOWARDS = {
  right: 'to the right',
  left: 'to the left',
  'leading-edge': 'towards the leading edge',
  'trailing-edge': 'away from the leading edge',
} as const;

/** Which way the cut moves when the setting goes from before to after, as one who stands at the machine says it. */
export function moveWords(change: SettingChange, feed: FeedDirection): string {
  const { setting, before, after } = change;
  if (setting.sense === null) return 'the cut goes back to where it was';
  const move = settingMove(setting, before, after, feed);
  switch (move.kind) {
    case 'shift':
      return `the cut moves ${formatFixed(move.mm, 2)} mm ${TOWARDS[move.towards]}`;
    case 'size':
      return `the cut gets ${move.isLarger ? 'larger' : 'smaller'} ${move.axis === 'across' ? 'across' : 'along the feed'}`;
    case 'turn':
      return `the cut turns ${move.isCounterClockwise ? 'counter-clockwise' : 'clockwise'}, seen from above`;
    case 'lean':
      return `the leading edge of the cut leans ${TOWARDS[move.towards]}`;
  }
}

export function changeWords(change: SettingChange, feed: FeedDirection): string {
  const { setting, before, after, toType } = change;
  // A wizard shows no value: what is picked is kept as steps from the middle of its row.
  if (setting.kind === 'wizard') {
    const steps = formatFixed(toType, decimalsOf(setting.step), true);
    return `Pick the line at ${steps} in ${setting.displayName}: ${moveWords(change, feed)}.`;
  }
  return `Set ${setting.displayName} from ${settingValueWords(setting, before)} to ${settingValueWords(setting, after)}: ${moveWords(change, feed)}.`;
}
