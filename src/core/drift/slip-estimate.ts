import { chiSquareQuantile } from '../math/quantile';
import type { LeastSquaresError } from '../math/qr';
import { ok, type Result } from '../result';
import { fitSlip, type SlipFit, type StationSeries } from './slip-filter';

/** The likeliest slip, and how large it may be. */
export interface SlipEstimate {
  readonly fit: SlipFit;
  /** Slip's standard deviation over one metre of roll, mm; 0 where the readings show none. */
  readonly slipMm: number;
  /** It is smaller than this with 95 % confidence, mm over one metre: what is said instead of "none". */
  readonly slipUpperMm: number;
}

/** Shares of the strip's slip in a reading's variance that are looked at, decades. */
const LEAST_DECADE = -4;
const MOST_DECADE = 4;
const STEPS_A_DECADE = 30;
const FIRST_STEP = LEAST_DECADE * STEPS_A_DECADE;
const LAST_STEP = MOST_DECADE * STEPS_A_DECADE;
const COARSE = 6;
/** So far below the highest likelihood nothing matters any more. */
const DEEP = 12;
const SECTIONS = 32;
const CONFIDENCE = 0.95;
/** One side of a likelihood ratio: half of the chi-square at twice the other side. */
const MOST_BELOW = chiSquareQuantile(2 * CONFIDENCE - 1, 1) / 2;
const MM_PER_METRE = 1000;
const HALVINGS = 50;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Restricted log-likelihood of a fit's ratio at a noise variance that is not its own best. */
const likelihoodAt = ({ logLikelihood, degrees, noiseVariance }: SlipFit, variance: number): number =>
  logLikelihood - (degrees * (Math.log(variance / noiseVariance) + noiseVariance / variance - 1)) / 2;

/** The best that a slip of so much a mm can be with any noise. */
const profileOf = (fits: readonly SlipFit[], slipVariance: number): number =>
  fits.reduce(
    (best, fit) => (fit.slipRatio > 0 ? Math.max(best, likelihoodAt(fit, slipVariance / fit.slipRatio)) : best),
    -Infinity,
  );

/** Largest slip variance a mm whose likelihood is not too far below the best. */
function upperVariance(fits: readonly SlipFit[], best: SlipFit): number {
  const isPossible = (variance: number): boolean => best.logLikelihood - profileOf(fits, variance) < MOST_BELOW;
  const first = fits.find(({ slipRatio }) => slipRatio > 0);
  let low = Math.max(best.slipRatio * best.noiseVariance, (first?.slipRatio ?? 0) * best.noiseVariance);
  if (low === 0) return 0;
  let high = 2 * low;
  while (isPossible(high)) [low, high] = [high, 2 * high];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = Math.sqrt(low * high);
    if (isPossible(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** The likeliest ratio between two others, by golden sections of its logarithm: each one asks a single new ratio. */
function refined(series: StationSeries, from: number, to: number): SlipFit | null {
  const at = (logRatio: number): SlipFit | null => {
    const fit = fitSlip(series, Math.exp(logRatio));
    return fit.ok ? fit.value : null;
  };
  const heightOf = (fit: SlipFit | null): number => fit?.logLikelihood ?? -Infinity;
  let [a, b] = [Math.log(from), Math.log(to)];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [low, high] = [at(c), at(d)];
  for (let i = 0; i < SECTIONS; i++)
    if (heightOf(low) > heightOf(high)) {
      [b, d, high] = [d, c, low];
      c = b - GOLDEN * (b - a);
      low = at(c);
    } else {
      [a, c, low] = [c, d, high];
      d = a + GOLDEN * (b - a);
      high = at(d);
    }
  return heightOf(low) > heightOf(high) ? low : high;
}

/** Fits at steps of the ratio that were asked for, each once. */
type FitAt = (step: number) => Result<SlipFit, LeastSquaresError>;

/**
 * Steps that matter: every sixth of all, and all next to those whose likelihood comes near the highest. What lies deeper
 * neither is the summit nor bounds anything.
 */
function stepsThatMatter(fitAt: FitAt): Result<readonly number[], LeastSquaresError> {
  const coarse: { readonly step: number; readonly height: number }[] = [];
  for (let step = FIRST_STEP; step <= LAST_STEP; step += COARSE) {
    const fit = fitAt(step);
    if (!fit.ok) return fit;
    coarse.push({ step, height: fit.value.logLikelihood });
  }
  const most = coarse.reduce((highest, { height }) => Math.max(highest, height), -Infinity);
  const steps = new Set(coarse.map(({ step }) => step));
  for (const { step, height } of coarse)
    if (height > most - DEEP)
      for (let near = Math.max(FIRST_STEP, step - COARSE); near <= Math.min(LAST_STEP, step + COARSE); near++)
        steps.add(near);
  return ok([...steps].sort((x, y) => x - y));
}

/**
 * Restricted maximum likelihood of slip and noise, and the slip's upper bound by profile likelihood.
 * Source: Patterson and Thompson (1971) for the restricted likelihood; Wilks' theorem for the bound. From memory.
 */
export function estimateSlip(series: StationSeries): Result<SlipEstimate, LeastSquaresError> {
  const stripMm = series.atMm.at(-1) ?? 0;
  const none = fitSlip(series, 0);
  if (!none.ok) return none;
  const known = new Map<number, ReturnType<FitAt>>();
  const fitAt: FitAt = (step) => {
    const fit = known.get(step) ?? fitSlip(series, 10 ** (step / STEPS_A_DECADE) / stripMm);
    known.set(step, fit);
    return fit;
  };
  const steps = stepsThatMatter(fitAt);
  if (!steps.ok) return steps;
  const fits: SlipFit[] = [none.value];
  for (const step of steps.value) {
    const fit = fitAt(step);
    if (!fit.ok) return fit;
    fits.push(fit.value);
  }
  const top = fits.reduce((best, fit, i) => (fit.logLikelihood > fits[best]!.logLikelihood ? i : best), 0);
  const isInside = top > 1 && top < fits.length - 1;
  const better = isInside ? refined(series, fits[top - 1]!.slipRatio, fits[top + 1]!.slipRatio) : null;
  const fit = better ?? fits[top]!;
  const overMetre = (variance: number): number => Math.sqrt(variance * MM_PER_METRE);
  return ok({
    fit,
    slipMm: overMetre(fit.slipRatio * fit.noiseVariance),
    slipUpperMm: overMetre(upperVariance(fits, fit)),
  });
}
