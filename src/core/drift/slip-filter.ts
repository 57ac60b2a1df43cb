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

/** The filter's states, one row a reading: of the values, then of every column of the design. */
interface Filtered {
  readonly means: Matrix;
  readonly variances: Float64Array;
  /** Readings less what was foretold of them, each over its own standard deviation: values and design. */
  readonly whitened: Matrix;
  readonly logDeterminant: number;
}

/**
 * Kalman's filter for a random walk from 0 at the origin, run on the values and on every column of the design at once, so
 * that coefficients of which nothing is known beforehand come out of least squares afterwards.
 * Source: de Jong, The diffuse Kalman filter, Annals of Statistics 19 (1991), from memory.
 */
function filtered({ atMm, valuesMm, weights, design }: StationSeries, slipRatio: number): Filtered {
  const n = valuesMm.length;
  const width = design.columns + 1;
  const means = matrix(n, width);
  const whitened = matrix(n, width);
  const variances = new Float64Array(n);
  const state = new Float64Array(width);
  let variance = 0;
  let logDeterminant = 0;
  let from = 0;
  for (let i = 0; i < n; i++) {
    variance += slipRatio * (atMm[i]! - from);
    from = atMm[i]!;
    const whole = variance + weights[i]!;
    const gain = variance / whole;
    const scale = 1 / Math.sqrt(whole);
    logDeterminant += Math.log(whole);
    for (let k = 0, at = i * width; k < width; k++, at++) {
      const read = k === 0 ? valuesMm[i]! : design.data[i * design.columns + k - 1]!;
      const innovation = read - state[k]!;
      whitened.data[at] = innovation * scale;
      state[k]! += gain * innovation;
      means.data[at] = state[k]!;
    }
    variance *= 1 - gain;
    variances[i] = variance;
  }
  return { means, variances, whitened, logDeterminant };
}

/** Logarithm of a covariance's determinant. */
function logDeterminantOf(covariance: Float64Array, n: number): number {
  const lower = choleskyFactor(covariance, n);
  let sum = 0;
  for (let k = 0; k < n; k++) sum += 2 * Math.log(lower[k * n + k]!);
  return sum;
}

function stateAt({ means, variances }: Pick<Filtered, 'means' | 'variances'>, i: number, atMm: number): SlipState {
  const { columns, data } = means;
  const ofDesign = data.slice(i * columns + 1, (i + 1) * columns);
  return { atMm, ofValues: data[i * columns]!, ofDesign, variance: variances[i]! };
}

function fitOf(series: StationSeries, slipRatio: number, run: Filtered): Result<SlipFit, LeastSquaresError> {
  const n = series.valuesMm.length;
  const columns = series.design.columns;
  const width = columns + 1;
  const { data } = run.whitened;
  const solved = leastSquares(
    matrix(n, columns, (row, column) => data[row * width + column + 1]!),
    Float64Array.from({ length: n }, (_, row) => data[row * width]!),
  );
  if (!solved.ok) return solved;
  const { parameters, inverseNormal, residualSumOfSquares } = solved.value;
  const degrees = n - columns;
  const noiseVariance = residualSumOfSquares / degrees;
  const logLikelihood =
    -(
      degrees * (Math.log(2 * Math.PI * noiseVariance) + 1) +
      run.logDeterminant -
      logDeterminantOf(inverseNormal, columns)
    ) / 2;
  return ok({
    ...{ slipRatio, coefficients: parameters, inverseNormal, degrees, noiseVariance, logLikelihood },
    end: stateAt(run, n - 1, series.atMm[n - 1]!),
  });
}

/**
 * Steady drift by generalised least squares where a slip walks at random between the stations, for a known ratio of slip to
 * noise. The likelihood is the restricted one, without the term of the design alone, so that it compares ratios of one
 * series, not designs.
 * @param slipRatio slip's variance a mm over the noise's variance, 0 and more.
 * @returns `too-few-rows` or `rank-deficient` where the stations do not tell the coefficients.
 */
export const fitSlip = (series: StationSeries, slipRatio: number): Result<SlipFit, LeastSquaresError> =>
  fitOf(series, slipRatio, filtered(series, slipRatio));

/**
 * The slip at every reading's place, told by all readings before and after it.
 * Source: Rauch, Tung and Striebel (1965), on the values and the design alike, from memory.
 */
export function smoothSlip(series: StationSeries, slipRatio: number): readonly SlipState[] {
  const run = filtered(series, slipRatio);
  const { means, variances } = run;
  const { columns, data } = means;
  const n = variances.length;
  for (let i = n - 2; i >= 0; i--) {
    const foretold = variances[i]! + slipRatio * (series.atMm[i + 1]! - series.atMm[i]!);
    if (foretold === 0) continue;
    const gain = variances[i]! / foretold;
    for (let k = 0, at = i * columns; k < columns; k++, at++) data[at]! += gain * (data[at + columns]! - data[at]!);
    variances[i]! += gain * gain * (variances[i + 1]! - foretold);
  }
  return Array.from({ length: n }, (_, i) => stateAt(run, i, series.atMm[i]!));
}
