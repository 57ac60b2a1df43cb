import type { Point } from '../geometry/affine';
import { markObservations } from '../fit/load-noise';
import { weightedFit } from '../fit/weighted-fit';
import { leastSquares, matrix } from '../math/qr';
import { chiSquareQuantile } from '../math/quantile';
import { loadModelOf } from './marks';
import type { MarkUse } from './words';

/** What a machine may make of its marks, the least first; "piecewise" does the same as affine to marks moved evenly. */
export const TELLABLE_USES = ['shift', 'shift_rotation', 'similarity', 'two_scales', 'affine'] as const;
export type TellableUse = (typeof TELLABLE_USES)[number];

/** How far our own marks are moved at the corners, each way: seen without doubt, and within a wedge's reach at the spots. */
const OWN_MOVE_MM = 0.45;
/** rotation, two scales and squareness among the six parameters: a shift says nothing, the block may stand elsewhere. */
const TOLD_BY = [2, 3, 4, 5] as const;
const FITS_BELOW = chiSquareQuantile(0.99, TOLD_BY.length);
/** A use is ruled out when the sheet is a thousand times less likely under it than under the best: 2 ln 1000 in chi-square. */
const RULED_OUT_LEAD = 2 * Math.log(1000);

/** Marks set further in from the edge by the program: each towards the middle, by so much across and along. */
export function insetMoves(marks: readonly Point[], acrossMm: number, alongMm: number): readonly Point[] {
  return marks.map((p) => ({ x: -Math.sign(p.x) * acrossMm, y: -Math.sign(p.y) * alongMm }));
}

/**
 * Our own marks moved so that every use answers otherwise: wider apart across, and slanted. A machine that takes a turn from
 * them turns, one with a single scale grows a little both ways, one with two scales only across, an affine one also leans.
 */
export function slantedMoves(marks: readonly Point[]): readonly Point[] {
  return marks.map((p) => ({ x: Math.sign(p.x) * OWN_MOVE_MM + Math.sign(p.y) * OWN_MOVE_MM, y: 0 }));
}

/**
 * By how much a machine's cut goes out when its marks stand elsewhere than it was told: the least-squares fit of its own
 * model to the moves, as the six parameters of a map about the middle (order of `design`).
 * @returns null when so many marks cannot carry that model.
 */
export function responseTo(marks: readonly Point[], moves: readonly Point[], use: MarkUse): readonly number[] | null {
  const model = loadModelOf(use, marks.length);
  const observed = markObservations(marks, 1, (axis, i) => (axis === 'across' ? moves[i]!.x : moves[i]!.y));
  const fit = weightedFit(observed, model);
  return fit.ok ? [...fit.value.beta] : null;
}

export interface UseFit {
  readonly use: TellableUse;
  /** Misfit of this use: chi-square with 4 degrees of freedom. */
  readonly chiSquare: number;
}

export type MarkUseFinding =
  /** These and no others agree with the sheet; they take the same scales from the marks, and may not be parted in turn or squareness. */
  | { readonly kind: 'told'; readonly uses: readonly TellableUse[]; readonly fits: readonly UseFit[] }
  /** Uses that take different scales agree both: the readings are too rough. */
  | { readonly kind: 'too-rough'; readonly uses: readonly TellableUse[]; readonly fits: readonly UseFit[] }
  /** No use explains it: another file was cut, or the marks were moved otherwise. */
  | { readonly kind: 'unexplained'; readonly fits: readonly UseFit[] };

export interface MarkUseTest {
  readonly marks: readonly Point[];
  readonly moves: readonly Point[];
  /** Six parameters: the sheet with moved marks minus an ordinary one, same frame. */
  readonly difference: ArrayLike<number>;
  /** 6 x 6 row-major: of both sheets together, load noise in. */
  readonly covariance: ArrayLike<number>;
}

/** r^T S^-1 r over the four told parameters. */
function misfit({ difference, covariance }: MarkUseTest, predicted: readonly number[]): number {
  const residual = TOLD_BY.map((k) => difference[k]! - predicted[k]!);
  const sub = matrix(4, 4, (i, j) => covariance[TOLD_BY[i]! * 6 + TOLD_BY[j]!]!);
  const solved = leastSquares(sub, residual);
  if (!solved.ok) return Infinity;
  return residual.reduce((sum, r, i) => sum + r * solved.value.parameters[i]!, 0);
}

/** What matters most of a use: whether lengths come from the marks, and each way by itself. */
const SCALES_USED: Readonly<Record<TellableUse, 0 | 1 | 2>> = {
  shift: 0,
  shift_rotation: 0,
  similarity: 1,
  two_scales: 2,
  affine: 2,
};

/** What a machine uses its marks for, from one sheet whose marks alone were moved and one ordinary sheet. */
export function tellMarkUse(test: MarkUseTest): MarkUseFinding {
  const tried = TELLABLE_USES.flatMap((use) => {
    const predicted = responseTo(test.marks, test.moves, use);
    return predicted ? [{ use, predicted, chiSquare: misfit(test, predicted) }] : [];
  });
  const fits = tried.map(({ use, chiSquare }) => ({ use, chiSquare }));
  const best = tried.reduce((a, b) => (b.chiSquare < a.chiSquare ? b : a));
  if (best.chiSquare > FITS_BELOW) return { kind: 'unexplained', fits };
  const left = tried.filter((t) => t.chiSquare - best.chiSquare <= RULED_OUT_LEAD);
  const uses = left.map((t) => t.use);
  const isOne = new Set(uses.map((use) => SCALES_USED[use])).size === 1;
  return { kind: isOne ? 'told' : 'too-rough', uses, fits };
}

/**
 * Which of several uses that were not parted is written down. A turn is taken to be used, as all but the plainest machines do;
 * squareness is not claimed where it could not be seen.
 */
export function keptUse(uses: readonly TellableUse[]): TellableUse | undefined {
  return uses.includes('shift_rotation') ? 'shift_rotation' : uses[0];
}
