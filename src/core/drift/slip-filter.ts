import { leastSquares, matrix, type LeastSquaresError, type Matrix } from '../math/qr';
import { choleskyFactor } from '../math/symmetric';
import { ok, type Result } from '../result';

/**
 * What was read along a roll, the nearest to its origin first. Several readings may stand at one place (left and right of a
 * station); where a station is missing there is just a longer way to the next.
 */
export interface StationSeries {
  /** Way from the origin, mm, never less than the one before. */
  readonly atMm: Float64Array;
  readonly valuesMm: Float64Array;
  /** Variance of each reading, in units of the noise's own. */
  readonly weights: Float64Array;
  /** One row a reading: what each coefficient of the steady drift adds to it. */
  readonly design: Matrix;
}

/** Steady drift and slip of a series for one ratio of slip to noise. */
export interface SlipFit {
  /** Slip's variance a mm over the noise's variance, per mm. */
  readonly slipRatio: number;
  readonly coefficients: Float64Array;
  /** Their covariance in units of the noise's variance, row-major. */
  readonly inverseNormal: Float64Array;
  /** Readings less coefficients. */
  readonly degrees: number;
  /** The noise's variance as the readings tell it (restricted maximum likelihood), mm^2. */
  readonly noiseVariance: number;
  /** Restricted log-likelihood at that variance. */
  readonly logLikelihood: number;
  /** The slip when the last reading is taken in, for telling what follows. */
  readonly end: SlipState;
}

/**
 * What is known of the slip at one place, the coefficients left open: its mean is `ofValues` less `ofDesign` times the
 * coefficients, its variance given them `variance` (in units of the noise's).
 */
export interface SlipState {
  readonly atMm: number;
  readonly ofValues: number;
  readonly ofDesign: Float64Array;
  readonly variance: number;
}

/** Readings that fit exactly (all of them 0, say) are not taken for exact, mm^2: 1e-6 mm is finer than anything measured. */
const LEAST_NOISE_VARIANCE = 1e-12;

/** What the filter leaves: readings less what was foretold of them, each over its own standard deviation, and its last state. */
interface Filtered {
  readonly values: Float64Array;
  readonly design: Matrix;
  readonly logDeterminant: number;
  readonly end: SlipState;
}

/** States after each reading, one row each: of the values, then of every column of the design. */
interface States {
  readonly means: Matrix;
  readonly variances: Float64Array;
}

/**
 * Kalman's filter for a random walk from 0 at the origin, run on the values and on every column of the design at once, so
 * that coefficients of which nothing is known beforehand come out of least squares afterwards.
 * Source: de Jong, The diffuse Kalman filter, Annals of Statistics 19 (1991), from memory.
 * @param kept takes the states on the way, where they are wanted.
 */
function filtered({ atMm, valuesMm, weights, design }: StationSeries, slipRatio: number, kept?: States): Filtered {
  const n = valuesMm.length;
  const { columns, data } = design;
  const values = new Float64Array(n);
  const whitened = new Float64Array(n * columns);
  const ofDesign = new Float64Array(columns);
  let [ofValues, variance, logDeterminant, from] = [0, 0, 0, 0];
  for (let i = 0, at = 0; i < n; i++) {
    variance += slipRatio * (atMm[i]! - from);
    from = atMm[i]!;
    const whole = variance + weights[i]!;
    const gain = variance / whole;
    const scale = 1 / Math.sqrt(whole);
    logDeterminant += Math.log(whole);
    const innovation = valuesMm[i]! - ofValues;
    values[i] = innovation * scale;
    ofValues += gain * innovation;
    for (let k = 0; k < columns; k++, at++) {
      const left = data[at]! - ofDesign[k]!;
      whitened[at] = left * scale;
      ofDesign[k]! += gain * left;
    }
    variance *= 1 - gain;
    if (!kept) continue;
    kept.variances[i] = variance;
    kept.means.data.set([ofValues, ...ofDesign], i * (columns + 1));
  }
  const end = { atMm: from, ofValues, ofDesign, variance };
  return { values, design: { rows: n, columns, data: whitened }, logDeterminant, end };
}

/** Logarithm of a covariance's determinant. */
function logDeterminantOf(covariance: Float64Array, n: number): number {
  const lower = choleskyFactor(covariance, n);
  let sum = 0;
  for (let k = 0; k < n; k++) sum += 2 * Math.log(lower[k * n + k]!);
  return sum;
}

/**
 * Steady drift by generalised least squares where a slip walks at random between the stations, for a known ratio of slip to
 * noise. The likelihood is the restricted one, without the term of the design alone, so that it compares ratios of one
 * series, not designs.
 * @param slipRatio slip's variance a mm over the noise's variance, 0 and more.
 * @returns `too-few-rows` or `rank-deficient` where the stations do not tell the coefficients.
 */
export function fitSlip(series: StationSeries, slipRatio: number): Result<SlipFit, LeastSquaresError> {
  const { values, design, logDeterminant, end } = filtered(series, slipRatio);
  const solved = leastSquares(design, values);
  if (!solved.ok) return solved;
  const { parameters: coefficients, inverseNormal, residualSumOfSquares } = solved.value;
  const degrees = design.rows - design.columns;
  const noiseVariance = Math.max(LEAST_NOISE_VARIANCE, residualSumOfSquares / degrees);
  const logs = logDeterminant - logDeterminantOf(inverseNormal, design.columns);
  const logLikelihood = -(degrees * (Math.log(2 * Math.PI * noiseVariance) + 1) + logs) / 2;
  return ok({ slipRatio, coefficients, inverseNormal, degrees, noiseVariance, logLikelihood, end });
}

/**
 * The slip at every reading's place, told by all readings before and after it.
 * Source: Rauch, Tung and Striebel (1965), on the values and the design alike, from memory.
 */
export function smoothSlip(series: StationSeries, slipRatio: number): readonly SlipState[] {
  const n = series.valuesMm.length;
  const columns = series.design.columns + 1;
  const means = matrix(n, columns);
  const variances = new Float64Array(n);
  filtered(series, slipRatio, { means, variances });
  const { data } = means;
  for (let i = n - 2; i >= 0; i--) {
    const foretold = variances[i]! + slipRatio * (series.atMm[i + 1]! - series.atMm[i]!);
    if (foretold === 0) continue;
    const gain = variances[i]! / foretold;
    for (let k = 0, at = i * columns; k < columns; k++, at++) data[at]! += gain * (data[at + columns]! - data[at]!);
    variances[i]! += gain * gain * (variances[i + 1]! - foretold);
  }
  return Array.from({ length: n }, (_, i) => ({
    atMm: series.atMm[i]!,
    ofValues: data[i * columns]!,
    ofDesign: data.slice(i * columns + 1, (i + 1) * columns),
    variance: variances[i]!,
  }));
}
