import type { Affine } from '../geometry/affine';
import { toParameters, type ErrorParameters } from '../geometry/error-parameters';
import { effectPerUnit, isOffset, onStep, type ActsOn, type MachineSetting } from './machine-setting';

/** How the sheet comes to the cut with a changed value: left loaded, the same sheet loaded again, or another sheet. */
export type TrialLoading = 'same-load' | 'reload' | 'another-sheet';

/** How far a which-way test moves the cut: seen without doubt, and within a wedge's reach. */
const OFFSET_MOVE_MM = 0.5;
const RATIO_MOVE = 0.003;
/** The move must exceed this many standard uncertainties for a direction, and the change that many for a strength. */
const DIRECTION_FACTOR = 6;
const GAIN_FACTOR = 20;

const PART: Readonly<Record<ActsOn, keyof ErrorParameters>> = {
  offset_across: 'offsetAcrossMm',
  offset_along: 'offsetAlongMm',
  scale_across: 'scaleAcross',
  scale_along: 'scaleAlong',
  feed_length: 'scaleAlong',
  squareness: 'squareness',
  rotation: 'rotationRad',
};

/** Half a unit square's lever in mm that turns a ratio or angle into a move, for comparing with the uncertainty of a reading. */
const LEVER_MM = 100;

/** Settings of unknown direction that one test can tell: both offsets together, else one other at a time. */
export function testable(settings: readonly MachineSetting[]): readonly MachineSetting[] {
  const unknown = settings.filter((s) => s.sense === null);
  const offsets = (['offset_across', 'offset_along'] as const).flatMap((actsOn) => {
    const first = unknown.find((s) => s.actsOn === actsOn);
    return first ? [first] : [];
  });
  return offsets.length > 0 ? offsets : unknown.slice(0, 1);
}

/**
 * The value to set for the test: about half a mm of move, on the display's step and inside its range.
 * @param times larger where each cut is a load of its own, whose noise comes on top.
 * @param lastChange the change of the test before, 0 without one: the next goes back, so that two runs end where they began.
 */
export function trialValue(setting: MachineSetting, times = 1, lastChange = 0): number {
  const wanted = (times * (isOffset(setting) ? OFFSET_MOVE_MM : RATIO_MOVE)) / effectPerUnit({ ...setting, gain: 1 });
  const steps = Math.max(1, Math.round(wanted / setting.step)) * setting.step;
  const [up, down] = [onStep(setting, setting.value + steps), onStep(setting, setting.value - steps)];
  const canGoUp = up > setting.value;
  const canGoDown = down < setting.value;
  return (lastChange > 0 && canGoDown) || !canGoUp ? down : up;
}

export interface Learned {
  readonly sense: 1 | -1 | null;
  /** Real effect over nominal effect; null when the change was too small to tell it. */
  readonly gain: number | null;
  /** How far the cut moved in the setting's own sense: mm, a ratio or rad. */
  readonly moved: number;
}

/**
 * Direction and strength of a setting from two cuts in one load, the value changed between. `moved` maps the first cut to
 * the second, machine frame. Direction when the move exceeds six standard uncertainties of it; strength when the change
 * exceeds twenty (u_gain = sqrt(2) u / change). Both cuts of one load where that can be; else u holds the noise of a load too,
 * and the change is made larger: otherwise that noise decides the sign.
 * @param u standard uncertainty of one cut's value of this part: mm, or a ratio or angle.
 */
export function learnSetting(
  setting: MachineSetting,
  change: number,
  moved: Affine<'machine', 'machine'>,
  u: number,
): Learned {
  const parts = toParameters(moved);
  if (!parts.ok) return { sense: null, gain: null, moved: 0 };
  const move = parts.value[PART[setting.actsOn]];
  const uMove = Math.SQRT2 * u;
  if (change === 0 || Math.abs(move) < DIRECTION_FACTOR * uMove) return { sense: null, gain: null, moved: move };
  const nominal = Math.abs(change) * effectPerUnit({ ...setting, gain: 1 });
  const isCompensating = setting.unit === 'nominal_measured';
  const sense = Math.sign(move) === Math.sign(change) ? 1 : -1;
  return { sense, gain: nominal >= GAIN_FACTOR * u && !isCompensating ? Math.abs(move) / nominal : null, moved: move };
}

/** Index of each part's own variance in a 6 x 6 load covariance (order of `design`). */
const VARIANCE_AT: Readonly<Record<ActsOn, number>> = {
  offset_across: 0,
  offset_along: 7,
  scale_across: 14,
  scale_along: 35,
  feed_length: 35,
  rotation: 28,
  squareness: 21,
};

/** Standard deviation that one load's mark reading adds to a part: mm, or a ratio or angle. */
export const loadSdOf = (actsOn: ActsOn, loadCovariance: ArrayLike<number>): number =>
  Math.sqrt(loadCovariance[VARIANCE_AT[actsOn]]!);

/** Standard uncertainty of a part as told by readings of uncertainty `readingMm` at `spots` spots spread over the sheet. */
export function partUncertainty(actsOn: ActsOn, readingMm: number, spots: number): number {
  const ofMean = readingMm / Math.sqrt(Math.max(1, spots));
  return actsOn.startsWith('offset') ? ofMean : ofMean / LEVER_MM;
}
