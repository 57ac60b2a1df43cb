import type { Affine, Point } from '../geometry/affine';

export const ACTS_ON = ['offset_across', 'offset_along', 'scale_across', 'scale_along'] as const;
export type ActsOn = (typeof ACTS_ON)[number];
export const SETTING_UNITS = ['mm', 'tenth_mm', 'inch', 'percent', 'per_mille', 'step'] as const;
export type SettingUnit = (typeof SETTING_UNITS)[number];

/** One control of a cutter as it really is. Values are in the display's own unit. */
export interface MachineSetting {
  readonly id: string;
  readonly displayName: string;
  readonly actsOn: ActsOn;
  readonly unit: SettingUnit;
  /** Size of one machine step in mm (offset) or as a ratio (scale); for unit `step` only. */
  readonly unitSize: number | null;
  readonly step: number;
  readonly minValue: number;
  readonly maxValue: number;
  /** +1: plus moves the cut to machine +x / +y or makes it larger; -1 the other way; null: not known yet. */
  readonly sense: 1 | -1 | null;
  /** Real effect over nominal effect; 1 until measured. */
  readonly gain: number;
  /** What the display asks for. */
  readonly entry: 'new_value' | 'change';
  /** Whether what is typed replaces the old value or is added to it. */
  readonly combine: 'replaces' | 'adds';
  /** Fixed point of a scale setting, machine frame about the block's centre. */
  readonly pivot: Point<'machine'>;
  readonly value: number;
}

const MM_PER_UNIT: Readonly<Record<Exclude<SettingUnit, 'step'>, number>> = {
  mm: 1,
  tenth_mm: 0.1,
  inch: 25.4,
  percent: 0.01,
  per_mille: 0.001,
};

export const isOffset = (setting: MachineSetting): boolean => setting.actsOn.startsWith('offset');

/** Nominal effect of one unit: mm for an offset, a ratio for a scale. */
export function effectPerUnit(setting: MachineSetting): number {
  const nominal = setting.unit === 'step' ? (setting.unitSize ?? 0) : MM_PER_UNIT[setting.unit];
  return nominal * setting.gain;
}

/**
 * D(v): where the cutter puts a nominal point for one setting's value, D(q) = c + A_D (q - c) + o in the machine frame.
 * A setting of unknown direction is taken as plus: callers ask first.
 */
export function settingMap(setting: MachineSetting, value: number): Affine<'machine', 'machine'> {
  const effect = (setting.sense ?? 1) * effectPerUnit(setting) * value;
  const { x, y } = setting.pivot;
  switch (setting.actsOn) {
    case 'offset_across':
      return { xx: 1, xy: 0, yx: 0, yy: 1, tx: effect, ty: 0 };
    case 'offset_along':
      return { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: effect };
    case 'scale_across':
      return { xx: 1 + effect, xy: 0, yx: 0, yy: 1, tx: -effect * x, ty: 0 };
    case 'scale_along':
      return { xx: 1, xy: 0, yx: 0, yy: 1 + effect, tx: 0, ty: -effect * y };
  }
}

/** Decimals that the display shows, from its step. */
export function decimalsOf(step: number): number {
  for (let decimals = 0; decimals < 6; decimals++) {
    if (Math.abs(Math.round(step * 10 ** decimals) - step * 10 ** decimals) < 1e-9) return decimals;
  }
  return 6;
}

/** Nearest value the display can show, inside its range. */
export function onStep(setting: Pick<MachineSetting, 'step' | 'minValue' | 'maxValue'>, value: number): number {
  const decimals = decimalsOf(setting.step);
  const lowest = Math.ceil(setting.minValue / setting.step - 1e-9);
  const highest = Math.floor(setting.maxValue / setting.step + 1e-9);
  const steps = Math.min(highest, Math.max(lowest, Math.round(value / setting.step)));
  return Number((steps * setting.step).toFixed(decimals));
}

const UNIT_WORDS: Readonly<Record<SettingUnit, string>> = {
  mm: 'mm',
  tenth_mm: '\u00d7 0.1 mm',
  inch: 'in',
  percent: '%',
  per_mille: '\u2030',
  step: 'steps',
};

export const settingUnitWord = (unit: SettingUnit): string => UNIT_WORDS[unit];
