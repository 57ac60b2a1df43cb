import { medianOf } from '../math/median';
import { fail, ok, type Result } from '../result';
import { cornersOf, type Affine, type Point } from '../geometry/affine';
import type { Observation } from '../reading/observation';
import { AXES } from '../target/wedge';
import { affineOf, MODELS, PARAMETER_COUNT, UNTOLD } from './design';
import { covarianceAt, largestSd } from './point-covariance';
import { misfits } from './robust';
import { weightedFit, type Backlash, type WeightedFit } from './weighted-fit';

/** A further effect all readings share: its standard uncertainty and how it moves each component everywhere. */
export interface SharedEffect {
  readonly standardUncertaintyMm: number;
  readonly across: number;
  readonly along: number;
}

export interface FitOptions {
  /** stated: uncertainties are known, covariance x max(1, reduced chi-square). relative: spread from the residuals, Student t. */
  readonly uncertainties?: 'stated' | 'relative';
  readonly sharedEffects?: readonly SharedEffect[];
  /** 6 x 6 noise of one load, added once over the number of loads; none means a settings check. */
  readonly loadCovariance?: ArrayLike<number>;
  /** Corners of the work area, for judging whether the spots carry a model; default 176 x 236 mm. */
  readonly corners?: readonly Point[];
  /** Readings the operator wants kept although they look odd. */
  readonly keepAll?: boolean;
}

export interface FittedReading {
  readonly observation: Observation;
  readonly used: boolean;
  readonly residualMm: number;
}

export type FittedModel = (typeof MODELS)[number];

export interface ErrorMapFit {
  readonly model: FittedModel;
  readonly map: Affine;
  readonly beta: readonly number[];
  /** 6 x 6 row-major, all effects in. */
  readonly covariance: Float64Array;
  /** The share of it that comes from the readings alone. */
  readonly readingCovariance: Float64Array;
  readonly residualDegrees: number;
  /** Degrees of freedom for quantiles: infinite when uncertainties are stated. */
  readonly quantileDegrees: number;
  readonly reducedChiSquare: number | null;
  readonly loads: number;
  readonly readings: readonly FittedReading[];
  /** Parts of the error these readings cannot tell. */
  readonly untold: readonly string[];
  readonly misfitIds: readonly string[];
  /** Told where figures were cut from either side. */
  readonly backlash: Backlash;
}

export type FitError =
  | { readonly kind: 'no-readings' }
  | { readonly kind: 'axis-missing'; readonly axis: Observation['axis'] }
  | { readonly kind: 'not-finite'; readonly id: string };

/** A corner known this many times worse than one reading is not known: the spots lie too much on one line. */
const LARGEST_EXTRAPOLATION = 8;

function firstProblem(observations: readonly Observation[]): FitError | null {
  if (observations.length === 0) return { kind: 'no-readings' };
  for (const o of observations) {
    const finite = [o.at.x, o.at.y, o.valueMm, o.standardUncertaintyMm].every((value) => Number.isFinite(value));
    if (!finite || o.standardUncertaintyMm <= 0) return { kind: 'not-finite', id: o.id };
  }
  for (const axis of AXES) if (!observations.some((o) => o.axis === axis)) return { kind: 'axis-missing', axis };
  return null;
}

/** The largest model whose parameters the observations carry to the corners. */
function largestModel(
  observations: readonly Observation[],
  corners: readonly Point[],
): { model: FittedModel; fit: WeightedFit } {
  const typical = medianOf(observations.map((o) => o.standardUncertaintyMm));
  for (const model of MODELS) {
    const fit = weightedFit(observations, model);
    if (!fit.ok) continue;
    const worst = Math.max(...corners.map((p) => largestSd(covarianceAt(fit.value.covariance, p))));
    if (worst <= LARGEST_EXTRAPOLATION * typical) return { model, fit: fit.value };
  }
  throw new Error('a shift needs one reading of each axis, which was checked');
}

function rejected(observations: readonly Observation[]): ReadonlySet<string> {
  const ids = AXES.flatMap((axis) => {
    const own = observations.filter((o) => o.axis === axis);
    return misfits(own).map((i) => own[i]!.id);
  });
  return new Set(ids);
}

/** Adds what one effect that several readings share does to the parameters: the fit of what it does to each reading. */
function addShared(total: Float64Array, used: readonly Observation[], model: FittedModel): void {
  const keys = new Set<string>();
  for (const { shared } of used) if (shared) keys.add(shared.key);
  for (const key of keys) {
    const moved = used.map((o) => ({ ...o, valueMm: o.shared?.key === key ? o.shared.mm : 0 }));
    const effect = weightedFit(moved, model);
    if (!effect.ok) continue;
    const { beta } = effect.value;
    for (let i = 0; i < PARAMETER_COUNT; i++)
      for (let j = 0; j < PARAMETER_COUNT; j++) total[i * PARAMETER_COUNT + j]! += beta[i]! * beta[j]!;
  }
}

/** Reading covariance scaled by the residuals, plus shared effects and load noise. */
function fullCovariance(reading: Float64Array, loads: number, options: FitOptions): Float64Array {
  const total = Float64Array.from(reading);
  for (const effect of options.sharedEffects ?? []) {
    const g = [effect.across, effect.along];
    for (let i = 0; i < 2; i++) {
      for (let j = 0; j < 2; j++) total[i * PARAMETER_COUNT + j]! += effect.standardUncertaintyMm ** 2 * g[i]! * g[j]!;
    }
  }
  const load = options.loadCovariance;
  if (load) for (let i = 0; i < total.length; i++) total[i]! += load[i]! / loads;
  return total;
}

/**
 * The constant error map of a setup from its readings: weighted least squares of the largest model that the spots
 * support (affine, similarity, shift), readings that do not belong set aside by least trimmed squares for each axis.
 * Cov = (X^T W X)^-1 x max(1, chi^2/nu) [or residual variance] + shared effects (of all readings, and of those that name one)
 * + Sigma_load / loads.
 * @param observations finite, at least one of each axis.
 * @returns the fit with what it cannot tell, or the reason there is none.
 */
export function fitErrorMap(
  observations: readonly Observation[],
  options: FitOptions = {},
): Result<ErrorMapFit, FitError> {
  const problem = firstProblem(observations);
  if (problem) return fail(problem);
  const { uncertainties = 'stated', corners = cornersOf(176, 236) } = options;
  const misfitIds = rejected(observations);
  const used = options.keepAll ? observations : observations.filter((o) => !misfitIds.has(o.id));
  const isUsed = new Set(used);
  const { model, fit } = largestModel(used, corners);
  const reduced = fit.degreesOfFreedom > 0 ? fit.chiSquare / fit.degreesOfFreedom : null;
  const isRelative = uncertainties === 'relative' && reduced !== null;
  const factor = isRelative ? reduced : Math.max(1, reduced ?? 1);
  const readingCovariance = fit.covariance.map((value) => value * factor);
  addShared(readingCovariance, used, model);
  const loads = new Set(used.map((o) => o.loadKey)).size;
  const map = affineOf(fit.beta);
  return ok({
    model,
    map,
    beta: [...fit.beta],
    covariance: fullCovariance(readingCovariance, loads, options),
    readingCovariance,
    residualDegrees: fit.degreesOfFreedom,
    quantileDegrees: isRelative ? fit.degreesOfFreedom : Infinity,
    reducedChiSquare: reduced,
    loads,
    readings: observations.map((o) => ({
      observation: o,
      used: isUsed.has(o),
      residualMm: residualOf(o, map, fit.backlash),
    })),
    untold: UNTOLD[model],
    misfitIds: [...misfitIds],
    backlash: fit.backlash,
  });
}

function residualOf(o: Observation, map: Affine, backlash: Backlash): number {
  const value = o.valueMm - (o.approach ?? 0) * (backlash[o.axis]?.halfMm ?? 0);
  if (o.axis === 'across') return value - (map.tx + (map.xx - 1) * o.at.x + map.xy * o.at.y);
  return value - (map.ty + map.yx * o.at.x + (map.yy - 1) * o.at.y);
}
