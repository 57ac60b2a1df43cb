import type { Box } from '../target/block';
import type { Point } from '../geometry/affine';
import { componentRow, PARAMETER_COUNT } from '../fit/design';
import { covarianceAt } from '../fit/point-covariance';
import { standardNormal, type Rng } from '../math/random';
import { choleskyFactor } from '../math/symmetric';
import { chanceBeyondCircle, chanceBeyondSquare, type PlaceError } from './plane-chance';

/** The next job's error, parted by where it comes from. Parameters and matrices in the order of `design`, mm and ratios. */
export interface JobError {
  readonly beta: readonly number[];
  /** 6 x 6: how well the constant part is known. */
  readonly constantCovariance: ArrayLike<number>;
  /** 6 x 6: what one load's mark reading leaves to chance. */
  readonly loadCovariance: ArrayLike<number>;
  /** SD of the material's growth between printing and cutting, length over length, the same in both directions. */
  readonly growthSd: number;
}

/** One copy: the box of its cut line about the middle of the marks, and whether its edge runs in all directions. */
export interface EdgePiece {
  readonly box: Box;
  readonly isRound: boolean;
}

const N = PARAMETER_COUNT;
/** Places of the two scales among the parameters: d(across)/dx and d(along)/dy. */
const SCALE_ACROSS = 2;
const SCALE_ALONG = 5;

/** 6 x 6 of a growth that stretches both directions together. */
export function growthCovariance(growthSd: number): Float64Array {
  const covariance = new Float64Array(N * N);
  for (const i of [SCALE_ACROSS, SCALE_ALONG])
    for (const j of [SCALE_ACROSS, SCALE_ALONG]) covariance[i * N + j] = growthSd ** 2;
  return covariance;
}

export function totalCovariance(error: JobError): Float64Array {
  const growth = growthCovariance(error.growthSd);
  return growth.map((g, i) => g + (error.constantCovariance[i] ?? 0) + (error.loadCovariance[i] ?? 0));
}

const dot = (row: readonly number[], beta: readonly number[]): number =>
  row.reduce((sum, r, i) => sum + r * (beta[i] ?? 0), 0);

/** Expected error at a place, and its covariance. */
export function errorAt(beta: readonly number[], covariance: ArrayLike<number>, p: Point): PlaceError {
  return {
    mean: { x: dot(componentRow('across', p.x, p.y), beta), y: dot(componentRow('along', p.x, p.y), beta) },
    covariance: covarianceAt(covariance, p),
  };
}

/**
 * Places where a piece's edge can show most: the ends of its box in each direction for a round piece, its corners for one
 * with straight sides. An affine error is largest at such a place of whatever lies between them.
 */
export function edgePlaces({ box, isRound }: EdgePiece): readonly Point[] {
  const { left, bottom, width, height } = box;
  const x = left + width / 2;
  const y = bottom + height / 2;
  return isRound
    ? [
        { x: left, y },
        { x: left + width, y },
        { x, y: bottom },
        { x, y: bottom + height },
      ]
    : [
        { x: left, y: bottom },
        { x: left + width, y: bottom },
        { x: left + width, y: bottom + height },
        { x: left, y: bottom + height },
      ];
}

/** Chance that the error shows past an edge so wide at the piece's worst place: the closed form. */
export function pieceChance(error: JobError, piece: EdgePiece, edgeMm: number): number {
  const covariance = totalCovariance(error);
  const beyond = piece.isRound ? chanceBeyondCircle : chanceBeyondSquare;
  return Math.max(...edgePlaces(piece).map((p) => beyond(errorAt(error.beta, covariance, p), edgeMm)));
}

export interface EdgeForecast {
  /** Edge that each simulated piece would have needed, ascending: all pieces of all jobs. */
  readonly pieceNeedsMm: Float64Array;
  /** Edge that each simulated job would have needed for all of its pieces, ascending. */
  readonly jobNeedsMm: Float64Array;
}

/** Pieces that are looked at in each draw: outermost ones always among them. */
const MOST_PIECES = 200;
export const EDGE_DRAWS = 4000;

/** Of many pieces, so many spread evenly, and those outermost in eight directions: a job's worst is among them. */
export function spreadPieces(pieces: readonly EdgePiece[]): readonly EdgePiece[] {
  if (pieces.length <= MOST_PIECES) return pieces;
  const outermost = Array.from({ length: 8 }, (_, k) => {
    const c = Math.cos((k * Math.PI) / 4);
    const s = Math.sin((k * Math.PI) / 4);
    const reach = (piece: EdgePiece): number => Math.max(...edgePlaces(piece).map((p) => c * p.x + s * p.y));
    return pieces.reduce((best, piece) => (reach(piece) > reach(best) ? piece : best));
  });
  const even = Array.from(
    { length: MOST_PIECES - 8 },
    (_, k) => pieces[Math.floor((k * pieces.length) / (MOST_PIECES - 8))]!,
  );
  return [...new Set([...outermost, ...even])];
}

/**
 * Simulates next jobs: the constant part drawn from its estimate, a fresh load and the material's growth added; every
 * piece's need is the largest error at its edge places, a job's is the largest of its pieces. Seeded.
 * @param pieces at least one.
 */
export function forecastEdge(error: JobError, pieces: readonly EdgePiece[], rng: Rng): EdgeForecast {
  const factor = choleskyFactor(totalCovariance(error), N);
  const looked = spreadPieces(pieces);
  const places = looked.map((piece) => ({ isRound: piece.isRound, points: edgePlaces(piece) }));
  const pieceNeedsMm = new Float64Array(EDGE_DRAWS * places.length);
  const jobNeedsMm = new Float64Array(EDGE_DRAWS);
  const z = new Float64Array(N);
  const b = new Float64Array(N);
  for (let draw = 0; draw < EDGE_DRAWS; draw++) {
    for (let i = 0; i < N; i++) z[i] = standardNormal(rng);
    for (let i = 0; i < N; i++) {
      let sum = error.beta[i]!;
      for (let j = 0; j <= i; j++) sum += factor[i * N + j]! * z[j]!;
      b[i] = sum;
    }
    for (const [k, { isRound, points }] of places.entries()) {
      let need = 0;
      for (const { x, y } of points) {
        const across = Math.abs(b[0]! + b[2]! * x + b[3]! * y);
        const along = Math.abs(b[1]! + b[4]! * x + b[5]! * y);
        need = Math.max(need, isRound ? Math.hypot(across, along) : Math.max(across, along));
      }
      pieceNeedsMm[draw * places.length + k] = need;
      jobNeedsMm[draw] = Math.max(jobNeedsMm[draw]!, need);
    }
  }
  return { pieceNeedsMm: pieceNeedsMm.sort(), jobNeedsMm: jobNeedsMm.sort() };
}

/** Share of ascending needs that an edge so wide does not cover. */
export function shareBeyond(needsMm: Float64Array, edgeMm: number): number {
  let low = 0;
  let high = needsMm.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (needsMm[middle]! <= edgeMm) low = middle + 1;
    else high = middle;
  }
  return (needsMm.length - low) / needsMm.length;
}

/** Least edge that covers so large a share of ascending needs. @param yieldShare 0 to 1. */
export const edgeFor = (needsMm: Float64Array, yieldShare: number): number =>
  needsMm[Math.min(needsMm.length - 1, Math.max(0, Math.ceil(yieldShare * needsMm.length) - 1))]!;
