import 'server-only';
import { StoredSettings } from '@/contracts/stored';
import { actsOnFeed, feedCompensation, feedSetting } from '@/core/drift/feed-compensation';
import type { RollDrift } from '@/core/drift/roll-drift';
import { decimalsOf, settingUnitWord } from '@/core/setting/machine-setting';
import { formatFixed, formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import type { Session } from '@/db/client';
import { findSettings, ownersOf } from '@/db/queries/settings';
import type { RollRecord } from './roll-read';
import { settingValueWords } from './words';

export interface FeedSettingView {
  readonly id: string;
  readonly name: string;
  readonly before: string;
  readonly after: string;
  readonly afterValue: number;
  /** What the display wants, where it is not the value itself. */
  readonly toType: string | null;
  /** What it stands at now, where that is not what it stood at when the strip was cut. */
  readonly now: string | null;
  readonly left: string;
}

export interface KeyView {
  readonly growth: string;
  /** Whether the interval of the feed holds 0: nothing to be keyed in. */
  readonly isNone: boolean;
  readonly settings: readonly FeedSettingView[];
  readonly ofUnknownSense: readonly string[];
  readonly ways: readonly { readonly way: string; readonly type: string }[];
}

/** What to key in for a roll's feed: the machine's own setting, and the ways that other machines ask for it. */
export async function keyView(
  session: Session,
  { setupRow, roll }: RollRecord,
  { along }: RollDrift,
  system: UnitSystem,
): Promise<KeyView> {
  const { value, low, high } = along.perMetreMm;
  const settings = (await findSettings(session, ownersOf(setupRow), { x: 0, y: 0 })).filter(actsOnFeed);
  const snapshot = StoredSettings.parse(roll.settingsSnapshot);
  const told = feedCompensation(value, roll.spacingMm);
  const signed = (n: number, decimals: number): string => formatFixed(n, decimals, true);
  return {
    growth: `${formatFixed(Math.abs(value), 3)} mm a metre ${value < 0 ? 'short' : 'long'}`,
    isNone: low <= 0 && high >= 0,
    settings: settings
      .filter((s) => s.sense !== null)
      .map((setting) => {
        const then = { ...setting, value: snapshot[setting.id] ?? setting.value };
        const found = feedSetting(then, value);
        const typed = formatFixed(found.toType, decimalsOf(setting.step), true);
        return {
          id: setting.id,
          afterValue: found.after,
          name: setting.displayName,
          before: settingValueWords(setting, found.before),
          after: settingValueWords(setting, found.after),
          toType: setting.combine === 'adds' ? `${typed} ${settingUnitWord(setting.unit)}` : null,
          now: setting.value === then.value ? null : settingValueWords(setting, setting.value),
          left: `${formatFixed(Math.abs(found.leftMmPerMetre), 3)} mm a metre`,
        };
      }),
    ofUnknownSense: settings.filter((s) => s.sense === null).map((s) => s.displayName),
    ways: [
      { way: 'percent', type: `${signed(told.percent, 3)} %` },
      { way: 'per mille', type: `${signed(told.perMille, 2)} \u2030` },
      {
        way: 'a pair: the length it should be, and the length it is',
        type: `${formatSize(told.nominalMm, system)} and ${formatLength(told.measuredMm, system)}`,
      },
      { way: `mm for each ${formatSize(roll.spacingMm, system)}`, type: `${signed(told.mmPerStated, 3)} mm` },
    ],
  };
}
