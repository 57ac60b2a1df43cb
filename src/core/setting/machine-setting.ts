import type { Affine, Point } from '../geometry/affine';

export const ACTS_ON = [
  'offset_across',
  'offset_along',
  'scale_across',
  'scale_along',
  'squareness',
  'rotation',
  'feed_length',
] as const;
export type ActsOn = (typeof ACTS_ON)[number];
export const SETTING_UNITS = [
  'mm',
  'tenth_mm',
  'inch',
  'percent',
  'per_mille',
  'degree',
  'step',
  'nominal_measured',
] as const;
export type SettingUnit = (typeof SETTING_UNITS)[number];
/**
 * typed: keyed in at any time. wizard: a line of the machine's own test is picked, its value stays hidden.
 * after_test_print: can be keyed in only right after the machine's own test print.
 */
export const SETTING_KINDS = ['typed', 'wizard', 'after_test_print'] as const;
export type SettingKind = (typeof SETTING_KINDS)[number];
/** Whether the machine multiplies its offset by its scale too. */
export const SCALES_OFFSET = ['yes', 'no', 'unknown'] as const;
export type ScalesOffset = (typeof SCALES_OFFSET)[number];

/** One control of a cutter, or of its program, as it really is. Values are in the display's own unit. */
export interface MachineSetting {
  readonly id: string;
  readonly displayName: string;
  readonly kind: SettingKind;
  /** Kept by the program, so lost with it: on another computer or after a new install it is not there. */
  readonly isInProgram: boolean;
  readonly actsOn: ActsOn;
  readonly unit: SettingUnit;
  /**
   * Unit `step`: size of one machine step in mm (offset), as a ratio (scale) or in rad (rotation, squareness).
   * Unit `nominal_measured`: the nominal length in mm; the value is the measured one. Null for every other unit.
   */
  readonly unitSize: number | null;
  readonly step: number;
  readonly minValue: number;
  readonly maxValue: number;
  /** +1: plus moves the cut to machine +x / +y, makes it larger, turns it counter-clockwise, leans y to +x; -1 the other way; null: not known yet. */
  readonly sense: 1 | -1 | null;
  /** Real effect over nominal effect; 1 until measured. */
  readonly gain: number;
  /** What the display asks for. */
  readonly entry: 'new_value' | 'change';
  /** Whether what is typed replaces the old value or is added to it. */
  readonly combine: 'replaces' | 'adds';
  /** Fixed point of a scale, rotation or squareness setting, machine frame about the block's centre. */
  readonly pivot: Point<'machine'>;
  readonly scalesOffset: ScalesOffset;
  /** What to press and what not, for settings that a machine offers only at one moment. */
  readonly pressThis: string;
  readonly notThat: string;
  readonly value: number;
}

/** mm for an offset, a ratio for a scale, rad for a turn. */
const EFFECT_PER_UNIT: Readonly<Record<Exclude<SettingUnit, 'step' | 'nominal_measured'>, number>> = {
  mm: 1,
  tenth_mm: 0.1,
  inch: 25.4,
  percent: 0.01,
  per_mille: 0.001,
  degree: Math.PI / 180,
};

export const isOffset = (setting: Pick<MachineSetting, 'actsOn'>): boolean => setting.actsOn.startsWith('offset');

const LENGTH_UNITS: readonly SettingUnit[] = ['mm', 'tenth_mm', 'inch', 'step'];
const RATIO_UNITS: readonly SettingUnit[] = ['percent', 'per_mille', 'step', 'nominal_measured'];
const TURN_UNITS: readonly SettingUnit[] = ['degree', 'per_mille', 'percent', 'step'];

/** Units that make sense for what a setting acts on. */
export function unitsFor(actsOn: ActsOn): readonly SettingUnit[] {
  if (actsOn.startsWith('offset')) return LENGTH_UNITS;
  return actsOn === 'squareness' || actsOn === 'rotation' ? TURN_UNITS : RATIO_UNITS;
}

/** Effect of one unit: mm for an offset, a ratio for a scale, rad for rotation and squareness. */
export function effectPerUnit(setting: Pick<MachineSetting, 'unit' | 'unitSize' | 'gain'>): number {
  const { unit, unitSize, gain } = setting;
  if (unit === 'step') return (unitSize ?? 0) * gain;
  if (unit === 'nominal_measured') return gain / (unitSize ?? Infinity);
  return EFFECT_PER_UNIT[unit] * gain;
}

/** Effect of a value against none: mm, ratio or rad. A nominal/measured pair has none when both are equal. */
function effectOf(setting: MachineSetting, value: number): number {
  const sense = setting.sense ?? 1;
  if (setting.unit !== 'nominal_measured') return sense * effectPerUnit(setting) * value;
  const ratio = value / (setting.unitSize ?? value);
  return setting.gain * ((sense === 1 ? ratio : 1 / ratio) - 1);
}

/** Linear map about a pivot: p -> pivot + L (p - pivot). */
function about(
  { x, y }: Point<'machine'>,
  [xx, xy, yx, yy]: readonly [number, number, number, number],
): Affine<'machine', 'machine'> {
  return { xx, xy, yx, yy, tx: x - xx * x - xy * y, ty: y - yx * x - yy * y };
}

/**
 * D(v): where the cutter puts a nominal point for one setting's value, D(q) = c + A_D (q - c) + o in the machine frame.
 * A setting of unknown direction is taken as plus: callers ask first.
 */
export function settingMap(setting: MachineSetting, value: number): Affine<'machine', 'machine'> {
  const effect = effectOf(setting, value);
  switch (setting.actsOn) {
    case 'offset_across':
      return { xx: 1, xy: 0, yx: 0, yy: 1, tx: effect, ty: 0 };
    case 'offset_along':
      return { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: effect };
    case 'scale_across':
      return about(setting.pivot, [1 + effect, 0, 0, 1]);
    case 'scale_along':
    case 'feed_length':
      return about(setting.pivot, [1, 0, 0, 1 + effect]);
    case 'squareness':
      return about(setting.pivot, [1, Math.tan(effect), 0, 1]);
    case 'rotation': {
      const c = Math.cos(effect);
      const s = Math.sin(effect);
      return about(setting.pivot, [c, -s, s, c]);
    }
  }
}

/** Decimals that the display shows, from its step. */
export function decimalsOf(step: number): number {
  for (let decimals = 0; decimals < 6; decimals++) {
    if (Math.abs(Math.round(step * 10 ** decimals) - step * 10 ** decimals) < 1e-9) return decimals;
  }
  return 6;
}

/**
 * What its range and its steps are counted from: nought, but for a wizard the value that it has reached. Its range is that of its
 * lines, and every run begins in their middle again, whatever was picked before.
 */
const countedFrom = ({ kind, combine, value }: MachineSetting): number =>
  kind === 'wizard' && combine === 'adds' ? value : 0;

/** Lowest and highest value that one entry can reach. */
export function reachOf(setting: MachineSetting): { readonly lowest: number; readonly highest: number } {
  const from = countedFrom(setting);
  return { lowest: from + setting.minValue, highest: from + setting.maxValue };
}

/** Nearest value that one entry can reach, on the display's step. */
export function onStep(setting: MachineSetting, value: number): number {
  const from = countedFrom(setting);
  const lowest = Math.ceil(setting.minValue / setting.step - 1e-9);
  const highest = Math.floor(setting.maxValue / setting.step + 1e-9);
  const steps = Math.min(highest, Math.max(lowest, Math.round((value - from) / setting.step)));
  return Number((from + steps * setting.step).toFixed(from === 0 ? decimalsOf(setting.step) : 6));
}

/** Pairs entered one after another multiply; everything else that is added is summed. */
const multiplies = (setting: MachineSetting): boolean =>
  setting.unit === 'nominal_measured' && setting.combine === 'adds' && setting.value > 0;

/** What the display wants typed for a wanted value: the value itself, or where it adds, the change. */
export function typedFor(setting: MachineSetting, after: number): number {
  if (multiplies(setting)) return onStep(setting, ((setting.unitSize ?? 0) * after) / setting.value);
  return setting.combine === 'adds' ? Number((after - setting.value).toFixed(9)) : after;
}

/** The setting's value after something was typed: the opposite of `typedFor`. */
export function valueAfterTyping(setting: MachineSetting, typed: number): number {
  if (multiplies(setting)) return (setting.value * typed) / (setting.unitSize ?? 1);
  return setting.combine === 'adds' ? setting.value + typed : typed;
}

const UNIT_WORDS: Readonly<Record<SettingUnit, string>> = {
  mm: 'mm',
  tenth_mm: '\u00d7 0.1 mm',
  inch: 'in',
  percent: '%',
  per_mille: '\u2030',
  degree: '\u00b0',
  step: 'steps',
  nominal_measured: 'mm measured',
};

export const settingUnitWord = (unit: SettingUnit): string => UNIT_WORDS[unit];
