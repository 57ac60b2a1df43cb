import 'server-only';
import { actsOnFeed, feedCompensation, feedSetting } from '@/core/drift/feed-compensation';
import type { RollDrift } from '@/core/drift/roll-drift';
import { decimalsOf, settingUnitWord } from '@/core/setting/machine-setting';
import { formatFixed, formatLength, type UnitSystem } from '@/core/units/length';
import type { Session } from '@/db/client';
import { findSettings, ownersOf } from '@/db/queries/settings';
import type { RollRecord } from './roll-read';
import { settingValueWords } from './words';

export interface FeedSettingView {
  readonly name: string;
  readonly before: string;
  readonly after: string;
  readonly toType: string;
  readonly unit: string;
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
  const told = feedCompensation(value, roll.spacingMm);
  const signed = (n: number, decimals: number): string => formatFixed(n, decimals, true);
  return {
    growth: `${formatFixed(Math.abs(value), 3)} mm a metre ${value < 0 ? 'short' : 'long'}`,
    isNone: low <= 0 && high >= 0,
    settings: settings
      .filter((s) => s.sense !== null)
      .map((setting) => {
        const found = feedSetting(setting, value);
        return {
          name: setting.displayName,
          before: settingValueWords(setting, found.before),
          after: settingValueWords(setting, found.after),
          toType: formatFixed(found.toType, decimalsOf(setting.step), setting.combine === 'adds'),
          unit: settingUnitWord(setting.unit),
          left: `${formatFixed(Math.abs(found.leftMmPerMetre), 3)} mm a metre`,
        };
      }),
    ofUnknownSense: settings.filter((s) => s.sense === null).map((s) => s.displayName),
    ways: [
      { way: 'percent', type: `${signed(told.percent, 3)} %` },
      { way: 'per mille', type: `${signed(told.perMille, 2)} \u2030` },
      {
        way: 'a pair: the length it should be, and the length it is',
        type: `${formatLength(told.nominalMm, system)} and ${formatLength(told.measuredMm, system)}`,
      },
      { way: `mm for each ${formatLength(roll.spacingMm, system)}`, type: `${signed(told.mmPerStated, 3)} mm` },
    ],
  };
}
