import { onStep, settingMap, typedFor, type MachineSetting } from '../setting/machine-setting';

const MM_PER_METRE = 1000;

/** What a cutter's feed is off, asked for in each of the ways that machines have. */
export interface FeedCompensation {
  /** So much more (or less) the cutter must travel. */
  readonly percent: number;
  readonly perMille: number;
  /** Of the stated length: what it must travel more, mm. */
  readonly mmPerStated: number;
  /** A pair: the length it was told, and the length that it made of it, mm. */
  readonly nominalMm: number;
  readonly measuredMm: number;
}

/**
 * Feed compensation for a cut that grows against the print: the cutter's way is divided by what it was too long.
 * @param perMetreMm growth of the cut against the print, mm a metre. @param statedMm length for which the machine asks.
 */
export function feedCompensation(perMetreMm: number, statedMm: number): FeedCompensation {
  const share = 1 / (1 + perMetreMm / MM_PER_METRE) - 1;
  return {
    percent: 100 * share,
    perMille: 1000 * share,
    mmPerStated: statedMm * share,
    nominalMm: statedMm,
    measuredMm: statedMm * (1 + perMetreMm / MM_PER_METRE),
  };
}

/** Settings that change how long a cut comes out along the roll. */
export const actsOnFeed = ({ actsOn }: Pick<MachineSetting, 'actsOn'>): boolean =>
  actsOn === 'feed_length' || actsOn === 'scale_along';

export interface FeedSetting {
  readonly before: number;
  readonly after: number;
  /** What the display wants typed. */
  readonly toType: number;
  /** What the setting's steps and range leave of the growth, mm a metre. */
  readonly leftMmPerMetre: number;
}

/** Effect of a value on length, as a factor. */
const lengthFactor = (setting: MachineSetting, value: number): number => settingMap(setting, value).yy;

/** A value's effect is nearly a straight line: a few steps of the secant settle it. */
const SECANT_STEPS = 4;

/**
 * The value of a machine's own setting that takes a growth out, on the steps that it has.
 * @param setting one that acts on the length along the roll, its direction known.
 */
export function feedSetting(setting: MachineSetting, perMetreMm: number): FeedSetting {
  const now = lengthFactor(setting, setting.value);
  const wanted = now / (1 + perMetreMm / MM_PER_METRE);
  let value = setting.value;
  for (let i = 0; i < SECANT_STEPS; i++) {
    const slope = (lengthFactor(setting, value + setting.step) - lengthFactor(setting, value)) / setting.step;
    value += (wanted - lengthFactor(setting, value)) / slope;
  }
  const after = onStep(setting, value);
  const left = (lengthFactor(setting, after) / wanted - 1) * MM_PER_METRE;
  return { before: setting.value, after, toType: typedFor(setting, after), leftMmPerMetre: left };
}
