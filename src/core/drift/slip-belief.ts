import { studentProbability } from '../math/quantile';
import type { LeastSquaresError } from '../math/qr';
import { ok, type Result } from '../result';
import { fitSlip, smoothSlip, type SlipFit, type SlipState, type StationSeries } from './slip-filter';

/**
 * How much the slip adds up to over the strip that was read, as variance over one reading's: a thousandth to a thousand is
 * held for possible beforehand, every decade for 1.8 times as likely as the one below it. Chosen among eight weights by
 * simulation (20, 40, 80 stations, ten slips, 600 rolls each): the least cover of 95 % intervals was 91.7 % with this one
 * and 86.7 % with even weights. Where there is no slip to be seen it covers more than it says.
 */
export const LEAST_SLIP_SHARE = 1e-3;
const STEPS_A_DECADE = 6;
const DECADES = 6;
export const MOST_SLIP_SHARE = LEAST_SLIP_SHARE * 10 ** DECADES;
/** Beforehand a share counts as this power of it. */
export const SHARE_POWER = 0.25;

/** One ratio of slip to noise, its fit, and how likely it is after the readings. */
export interface Belief {
  readonly fit: SlipFit;
  readonly weight: number;
}

export interface SlipBelief {
  readonly beliefs: readonly Belief[];
  /** How far the stations reach, mm. */
  readonly stripMm: number;
}

/**
 * What stations tell of steady drift and slip together. Plugging in the likeliest slip would claim too much where twenty
 * stations hardly tell it: every ratio of a grid counts by its restricted likelihood instead.
 * @param series of at least two stations more than coefficients.
 */
export function believeSlip(series: StationSeries): Result<SlipBelief, LeastSquaresError> {
  const stripMm = series.atMm.at(-1) ?? 0;
  const fits: SlipFit[] = [];
  for (let step = 0; step <= DECADES * STEPS_A_DECADE; step++) {
    const share = LEAST_SLIP_SHARE * 10 ** (step / STEPS_A_DECADE);
    const fit = fitSlip(series, share / stripMm);
    if (!fit.ok) return fit;
    fits.push(fit.value);
  }
  const most = Math.max(...fits.map(({ logLikelihood }) => logLikelihood));
  const likelihoods = fits.map(
    ({ logLikelihood, slipRatio }) => Math.exp(logLikelihood - most) * (slipRatio * stripMm) ** SHARE_POWER,
  );
  const sum = likelihoods.reduce((total, l) => total + l, 0);
  return ok({ stripMm, beliefs: fits.map((fit, i) => ({ fit, weight: likelihoods[i]! / sum })) });
}

/** Something that is foretold: each belief's own answer, a Student t about a mean. */
export interface Foretold {
  readonly parts: readonly {
    readonly weight: number;
    readonly meanMm: number;
    readonly sdMm: number;
    readonly degrees: number;
  }[];
}

/** Variance of a combination of the coefficients, in units of the noise's. */
function varianceOf(inverseNormal: Float64Array, of: ArrayLike<number>): number {
  const n = of.length;
  let sum = 0;
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) sum += of[i]! * inverseNormal[i * n + j]! * of[j]!;
  return sum;
}

/** One belief's own answer at a place no nearer than where the slip is known. */
function partFrom(
  { fit, weight }: Belief,
  state: SlipState,
  atMm: number,
  row: ArrayLike<number>,
): Foretold['parts'][number] {
  const left = Float64Array.from(row, (x, k) => x - state.ofDesign[k]!);
  const meanMm = left.reduce((sum, x, k) => sum + x * fit.coefficients[k]!, state.ofValues);
  const onTheWay = fit.slipRatio * Math.max(0, atMm - state.atMm);
  const variance = state.variance + onTheWay + varianceOf(fit.inverseNormal, left);
  return { weight, meanMm, sdMm: Math.sqrt(fit.noiseVariance * variance), degrees: fit.degrees };
}

/**
 * The error of a cut beyond the last station: steady drift and the slip so far, and what the slip may add on the way.
 * @param row what each coefficient adds to it there.
 */
export const foretellError = ({ beliefs }: SlipBelief, atMm: number, row: ArrayLike<number>): Foretold => ({
  parts: beliefs.map((belief) => partFrom(belief, belief.fit.end, atMm, row)),
});

/** Ratios that count for less than this are left out where every reading is gone through. */
const LEAST_WEIGHT = 0.005;

/**
 * The error of cuts where readings stand, told by all of them: steady drift and slip together.
 * @param indices of readings. @param rowOf what each coefficient adds at a reading.
 */
export function tellErrors(
  series: StationSeries,
  { beliefs }: SlipBelief,
  indices: readonly number[],
  rowOf: (index: number) => ArrayLike<number>,
): readonly Foretold[] {
  const likely = beliefs.filter(({ weight }) => weight > LEAST_WEIGHT);
  const sum = likely.reduce((total, { weight }) => total + weight, 0);
  const parts = likely.map(({ fit, weight }) => {
    const states = smoothSlip(series, fit.slipRatio);
    return indices.map((i) => partFrom({ fit, weight: weight / sum }, states[i]!, series.atMm[i]!, rowOf(i)));
  });
  return indices.map((_, k) => ({ parts: parts.map((own) => own[k]!) }));
}

/** A combination of the coefficients alone: what the steady drift comes to. */
export function tellSteady({ beliefs }: SlipBelief, row: ArrayLike<number>): Foretold {
  return {
    parts: beliefs.map(({ fit, weight }) => ({
      weight,
      meanMm: fit.coefficients.reduce((sum, c, k) => sum + c * row[k]!, 0),
      sdMm: Math.sqrt(fit.noiseVariance * varianceOf(fit.inverseNormal, row)),
      degrees: fit.degrees,
    })),
  };
}

/** How likely it is to be less than a value. */
export const foretoldProbability = ({ parts }: Foretold, mm: number): number =>
  parts.reduce((sum, p) => sum + p.weight * probabilityBelow(p, mm), 0);

function probabilityBelow({ meanMm, sdMm, degrees }: Foretold['parts'][number], mm: number): number {
  if (sdMm === 0) return mm < meanMm ? 0 : 1;
  return studentProbability((mm - meanMm) / sdMm, degrees);
}

export const foretoldMean = ({ parts }: Foretold): number => parts.reduce((sum, p) => sum + p.weight * p.meanMm, 0);

const HALVINGS = 60;

/** The value below which it lies with a probability, 0 < p < 1. */
export function foretoldQuantile(foretold: Foretold, probability: number): number {
  const reach = (sign: 1 | -1): number => {
    const start = foretoldMean(foretold);
    let step = Math.max(1e-9, ...foretold.parts.map(({ sdMm }) => sdMm));
    const isPast = (mm: number): boolean => foretoldProbability(foretold, mm) > probability === sign > 0;
    while (!isPast(start + sign * step)) step *= 2;
    return start + sign * step;
  };
  let [low, high] = [reach(-1), reach(1)];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (foretoldProbability(foretold, middle) > probability) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}
