import { PARAMETER_COUNT } from './design';
import type { ErrorMapFit } from './fit-error-map';

/** Where the knife cuts, less where a pen in the same holder draws: sheet frame of the fit, mm. */
export interface KnifeFromPen {
  readonly acrossMm: number;
  readonly alongMm: number;
  /** Of each component. */
  readonly standardUncertaintyMm: number;
}

/**
 * How well the knife's place against the pen's is known when both were read in one load at five spots or more.
 * Common practice, no published source.
 */
export const KNIFE_FROM_PEN_SD_MM = 0.03;

/** tx and ty are the first two of the six parameters. */
const SHIFTS = 2;

/** What a pen cannot say of the knife. */
export const KNIFE_SHIFT_UNTOLD = 'the knife\u2019s own shift';

/** Rows and columns of the shift set anew, the rest as it was. */
function withShiftVariance(covariance: Float64Array, change: (i: number, j: number, value: number) => number) {
  return covariance.map((value, place) => {
    const i = Math.floor(place / PARAMETER_COUNT);
    const j = place % PARAMETER_COUNT;
    return i < SHIFTS || j < SHIFTS ? change(i, j, value) : value;
  });
}

/**
 * A pen's map as the knife's: scale, rotation and squareness are the machine's whatever it holds; the shift is the pen's.
 * Where knife against pen was measured, it is added with its uncertainty; otherwise the shift is left out of map and
 * covariance and named as not told, so that nothing about it is corrected or passed.
 */
export function asKnife(fit: ErrorMapFit, knife: KnifeFromPen | null): ErrorMapFit {
  const [tx = 0, ty = 0, ...linear] = fit.beta;
  if (!knife) {
    const none = (): number => 0;
    return {
      ...fit,
      map: { ...fit.map, tx: 0, ty: 0 },
      beta: [0, 0, ...linear],
      covariance: withShiftVariance(fit.covariance, none),
      readingCovariance: withShiftVariance(fit.readingCovariance, none),
      untold: [...fit.untold, KNIFE_SHIFT_UNTOLD],
    };
  }
  const shift = [tx + knife.acrossMm, ty + knife.alongMm] as const;
  const add = (i: number, j: number, value: number): number =>
    i === j ? value + knife.standardUncertaintyMm ** 2 : value;
  return {
    ...fit,
    map: { ...fit.map, tx: shift[0], ty: shift[1] },
    beta: [...shift, ...linear],
    covariance: withShiftVariance(fit.covariance, add),
  };
}
