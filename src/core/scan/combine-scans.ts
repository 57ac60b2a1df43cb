import type { Point } from '../geometry/affine';
import type { DiscState } from './disc-measure';
import type { DiscDisplacement, DiscResult, ScanResult } from './measure-scan';

/**
 * What no single scan can know. The lamp's shadow in a hole shifts every disc alike along the carriage's travel: rectangular
 * within 25 um. The carriage's uneven travel differs from disc to disc. Own prototype's figures, no published source.
 */
export const SHADOW_SD_MM = 0.025 / Math.sqrt(3);
export const WOBBLE_SD_MM = 0.007;

/** One disc as all scans together tell it, sheet frame. */
export interface ScannedDisc {
  readonly key: string;
  readonly state: DiscState;
  readonly acrossMm: number;
  readonly alongMm: number;
  /** Of this disc alone. */
  readonly acrossSdMm: number;
  readonly alongSdMm: number;
  /** What one standard deviation of the shadow would move it by: common to all discs of these scans. */
  readonly acrossSharedMm: number;
  readonly alongSharedMm: number;
}

export interface CombinedScans {
  readonly discs: readonly ScannedDisc[];
  /** The shadow's own shift along the travel, as far as scans that lay differently tell it. */
  readonly shadowMm: number;
  readonly shadowSdMm: number;
}

/** A symmetric 2 x 2 matrix. */
interface Symmetric {
  readonly xx: number;
  readonly xy: number;
  readonly yy: number;
}

const inverse = ({ xx, xy, yy }: Symmetric): Symmetric => {
  const determinant = xx * yy - xy * xy;
  return { xx: yy / determinant, xy: -xy / determinant, yy: xx / determinant };
};
const times = (m: Symmetric, p: Point): Point => ({ x: m.xx * p.x + m.xy * p.y, y: m.xy * p.x + m.yy * p.y });
const plus = (a: Symmetric, b: Symmetric): Symmetric => ({ xx: a.xx + b.xx, xy: a.xy + b.xy, yy: a.yy + b.yy });
const sum = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y });
const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;
const NONE: Symmetric = { xx: 0, xy: 0, yy: 0 };
const ORIGIN: Point = { x: 0, y: 0 };

interface Look {
  readonly value: Point;
  readonly weight: Symmetric;
  readonly travel: Point;
}

function lookOf({ acrossMm, alongMm, ...d }: DiscDisplacement, travel: Point): Look {
  const wobble = WOBBLE_SD_MM ** 2;
  const covariance = {
    xx: d.acrossVariance + wobble * travel.x * travel.x,
    xy: d.covariance + wobble * travel.x * travel.y,
    yy: d.alongVariance + wobble * travel.y * travel.y,
  };
  return { value: { x: acrossMm, y: alongMm }, weight: inverse(covariance), travel };
}

/** All looks at one disc: their weighted mean, and what a unit of shadow moves it by. */
interface Gathered {
  readonly key: string;
  readonly state: DiscState;
  readonly looks: readonly Look[];
  readonly covariance: Symmetric;
  readonly mean: Point;
  readonly shadowMoves: Point;
}

const ORDER: readonly DiscState[] = ['good', 'partial', 'bad-cut', 'not-weeded', 'missing'];

function gathered(key: string, own: readonly { readonly disc: DiscResult; readonly travel: Point }[]): Gathered {
  const looks = own.flatMap(({ disc, travel }) => (disc.displacement ? [lookOf(disc.displacement, travel)] : []));
  const state = ORDER.find((s) => own.some(({ disc }) => disc.state === s)) ?? 'missing';
  const covariance = looks.length > 0 ? inverse(looks.map((l) => l.weight).reduce(plus, NONE)) : NONE;
  const weighted = (of: (look: Look) => Point): Point =>
    times(covariance, looks.map((l) => times(l.weight, of(l))).reduce(sum, ORIGIN));
  return { key, state, looks, covariance, mean: weighted((l) => l.value), shadowMoves: weighted((l) => l.travel) };
}

/**
 * Scans of one sheet as one measurement, by weighted least squares: every disc has its displacement, all share one shadow
 * along the carriage's travel of which only its usual size is known. Turned by half, the shadow changes sides and falls
 * out; turned by a quarter, each component is taken along the sensor, which is also free of the carriage's wobble.
 * @param scans one or more results for the same figures.
 */
export function combineScans(scans: readonly ScanResult[]): CombinedScans {
  const keys = [...new Set(scans.flatMap(({ discs }) => discs.map(({ key }) => key)))];
  const all = keys.map((key) =>
    gathered(
      key,
      scans.flatMap(({ discs, travel }) => discs.filter((disc) => disc.key === key).map((disc) => ({ disc, travel }))),
    ),
  );
  let information = 1 / SHADOW_SD_MM ** 2;
  let pull = 0;
  for (const { looks, mean, shadowMoves } of all)
    for (const { value, weight, travel } of looks) {
      const turned = times(weight, travel);
      information += dot(turned, { x: travel.x - shadowMoves.x, y: travel.y - shadowMoves.y });
      pull += dot(turned, { x: value.x - mean.x, y: value.y - mean.y });
    }
  const shadowMm = pull / information;
  const shadowSdMm = 1 / Math.sqrt(information);
  return {
    discs: all.map(({ key, state, covariance, mean, shadowMoves }) => ({
      key,
      state,
      acrossMm: mean.x - shadowMm * shadowMoves.x,
      alongMm: mean.y - shadowMm * shadowMoves.y,
      acrossSdMm: Math.sqrt(covariance.xx),
      alongSdMm: Math.sqrt(covariance.yy),
      acrossSharedMm: shadowSdMm * shadowMoves.x,
      alongSharedMm: shadowSdMm * shadowMoves.y,
    })),
    shadowMm,
    shadowSdMm,
  };
}
