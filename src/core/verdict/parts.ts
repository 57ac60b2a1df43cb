import { toParameters, type ErrorParameters } from '../geometry/error-parameters';
import type { ErrorMapFit } from '../fit/fit-error-map';
import { affineOf, PARAMETER_COUNT } from '../fit/design';

export const PARTS = [
  'offsetAcrossMm',
  'offsetAlongMm',
  'rotationRad',
  'scaleAcross',
  'scaleAlong',
  'squareness',
] as const;
export type Part = (typeof PARTS)[number];

export interface PartJudgement {
  readonly part: Part;
  readonly value: number;
  readonly standardError: number;
  /** What this part alone does at the work area's worst corner, mm. */
  readonly effectMm: number;
  /** Half-width of the 95 % interval of that effect, mm. */
  readonly effectIntervalMm: number;
  readonly isToBeCorrected: boolean;
}

/** First-order weights of each part in the six affine parameters [tx, ty, Axx-1, Axy, Ayx, Ayy-1]. */
const WEIGHTS: Readonly<Record<Part, readonly number[]>> = {
  offsetAcrossMm: [1, 0, 0, 0, 0, 0],
  offsetAlongMm: [0, 1, 0, 0, 0, 0],
  rotationRad: [0, 0, 0, 0, 1, 0],
  scaleAcross: [0, 0, 1, 0, 0, 0],
  scaleAlong: [0, 0, 0, 0, 0, 1],
  squareness: [0, 0, 0, 1, 1, 0],
};

/** Lever that turns a part into mm at the worst corner of a width x length area about the pivot. */
export function leverOf(part: Part, widthMm: number, lengthMm: number): number {
  switch (part) {
    case 'offsetAcrossMm':
    case 'offsetAlongMm':
      return 1;
    case 'rotationRad':
      return Math.hypot(widthMm, lengthMm) / 2;
    case 'scaleAcross':
      return widthMm / 2;
    case 'scaleAlong':
    case 'squareness':
      return lengthMm / 2;
  }
}

function varianceOf(part: Part, covariance: ArrayLike<number>): number {
  const w = WEIGHTS[part];
  let sum = 0;
  for (let i = 0; i < PARAMETER_COUNT; i++) {
    for (let j = 0; j < PARAMETER_COUNT; j++) sum += w[i]! * covariance[i * PARAMETER_COUNT + j]! * w[j]!;
  }
  return Math.max(0, sum);
}

/** A map told part by part, each with its standard uncertainty; null where it is mirrored or singular. */
export function partsOf(
  beta: readonly number[],
  covariance: ArrayLike<number>,
): Readonly<Record<Part, { readonly value: number; readonly standardUncertainty: number }>> | null {
  const told = toParameters(affineOf(beta));
  if (!told.ok) return null;
  const parts = PARTS.map((part) => [
    part,
    { value: told.value[part], standardUncertainty: Math.sqrt(varianceOf(part, covariance)) },
  ]);
  return Object.fromEntries(parts) as ReturnType<typeof partsOf>;
}

/** Normal 97.5 % point: two-sided 95 % interval with known uncertainties. */
const TWO_SIDED_95 = 1.959964;

/** Surely there, or likely there and worth a fifth of the tolerance. */
const isWorthCorrecting = (standardErrors: number, shareOfTolerance: number): boolean =>
  standardErrors > 2 || (standardErrors > 1 && shareOfTolerance > 1 / 5);

/**
 * Each part of the error with what it is worth at the worst corner, and whether to act: when the estimate exceeds two
 * standard errors (load noise included), or one of them and its effect a fifth of the tolerance. One that is within its own
 * standard error is left: correcting it would add as much as it takes away. Throws on a mirrored map, which
 * readings within a wedge's reach cannot give.
 */
export function judgeParts(
  fit: ErrorMapFit,
  area: { widthMm: number; lengthMm: number },
  toleranceMm: number,
): readonly PartJudgement[] {
  const told = toParameters(fit.map);
  if (!told.ok) throw new Error(`the fitted map is ${told.error.kind}`);
  const parameters: ErrorParameters = told.value;
  return PARTS.map((part) => {
    const value = parameters[part];
    const standardError = Math.sqrt(varianceOf(part, fit.covariance));
    const lever = leverOf(part, area.widthMm, area.lengthMm);
    const effectMm = Math.abs(value) * lever;
    const isKnown = standardError > 0;
    return {
      part,
      value,
      standardError,
      effectMm,
      effectIntervalMm: TWO_SIDED_95 * standardError * lever,
      isToBeCorrected: isKnown && isWorthCorrecting(Math.abs(value) / standardError, effectMm / toleranceMm),
    };
  });
}
