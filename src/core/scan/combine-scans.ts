import type { Point } from '../geometry/affine';
import { chiSquareQuantile } from '../math/quantile';
import type { DiscState } from './disc-measure';
import type { DiscDisplacement, DiscResult } from './measured-figure';
import type { PictureKind, ScanResult } from './scan-result';

/**
 * What no single scan can know. The lamp's shadow in a hole shifts every disc alike along the carriage's travel: rectangular
 * within 25 um. The carriage's uneven travel differs from disc to disc. Own prototype's figures, no published source.
 */
export const SHADOW_SD_MM = 0.025 / Math.sqrt(3);
export const WOBBLE_SD_MM = 0.007;
/**
 * A camera that looks in aslant sees the bottom of a hole beside its rim: half of a film of 0.1 mm times the tilt's tangent.
 * What light from one side does comes on top, and a sheet that does not lie quite flat shifts every disc by some of its own.
 * Own simulation, no published source.
 */
const FILM_MM = 0.1;
const ONE_SIDED_LIGHT_MM = 0.01;
const CURL_SD_MM = 0.01;

/** What all discs of one picture share along its travel, and what each has of its own, along it and all round. */
interface Doubt {
  readonly sharedSdMm: number;
  readonly alongTravelSdMm: number;
  readonly allRoundSdMm: number;
}

export function doubtOf({ kind, tiltRad, cutShape }: Pick<ScanResult, 'kind' | 'tiltRad' | 'cutShape'>): Doubt {
  // A line on the surface has nothing that could cast a shadow.
  const sharedSdMm = cutShape === 'line' ? 0 : SHADOW_SD_MM;
  if (kind === 'scan') return { sharedSdMm, alongTravelSdMm: WOBBLE_SD_MM, allRoundSdMm: 0 };
  const parallax = (FILM_MM / 2) * Math.tan(tiltRad);
  return { sharedSdMm: Math.hypot(parallax, ONE_SIDED_LIGHT_MM), alongTravelSdMm: 0, allRoundSdMm: CURL_SD_MM };
}

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

/** Scans that differ from each other by more than their doubt. */
export interface AtOdds {
  /** So many times what they should; every disc's own doubt was made that much larger. */
  readonly factor: number;
  /** The disc at which they differ most. */
  readonly key: string;
}

export interface CombinedScans {
  readonly kind: PictureKind;
  /** Null where the scans agree, or there is only one. */
  readonly atOdds: AtOdds | null;
  readonly discs: readonly ScannedDisc[];
  /** The shared shift along the travel, as far as pictures that lay differently tell it. */
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
  /** What one standard deviation of the shared effect does to it. */
  readonly shared: Point;
}

function lookOf({ acrossMm, alongMm, ...d }: DiscDisplacement, travel: Point, scan: ScanResult): Look {
  const doubt = doubtOf(scan);
  const [wobble, all] = [doubt.alongTravelSdMm ** 2, doubt.allRoundSdMm ** 2];
  const covariance = {
    xx: d.acrossVariance + wobble * travel.x * travel.x + all,
    xy: d.covariance + wobble * travel.x * travel.y,
    yy: d.alongVariance + wobble * travel.y * travel.y + all,
  };
  const shared = { x: doubt.sharedSdMm * travel.x, y: doubt.sharedSdMm * travel.y };
  return { value: { x: acrossMm, y: alongMm }, weight: inverse(covariance), shared };
}

/** All looks at one disc: their weighted mean, and what a unit of shadow moves it by. */
interface Gathered {
  readonly key: string;
  readonly state: DiscState;
  readonly looks: readonly Look[];
  readonly covariance: Symmetric;
  readonly mean: Point;
  readonly sharedMoves: Point;
}

const ORDER: readonly DiscState[] = ['good', 'partial', 'bad-cut', 'not-weeded', 'missing'];

function gathered(key: string, own: readonly { readonly disc: DiscResult; readonly scan: ScanResult }[]): Gathered {
  const looks = own.flatMap(({ disc, scan }) =>
    disc.displacement ? [lookOf(disc.displacement, disc.travel, scan)] : [],
  );
  const state = ORDER.find((s) => own.some(({ disc }) => disc.state === s)) ?? 'missing';
  const covariance = looks.length > 0 ? inverse(looks.map((l) => l.weight).reduce(plus, NONE)) : NONE;
  const weighted = (of: (look: Look) => Point): Point =>
    times(covariance, looks.map((l) => times(l.weight, of(l))).reduce(sum, ORIGIN));
  return { key, state, looks, covariance, mean: weighted((l) => l.value), sharedMoves: weighted((l) => l.shared) };
}

/** Sum of squares of what is left of one disc's looks, in standard deviations, and how many numbers that is. */
function misfitOf(
  { looks, mean, sharedMoves }: Gathered,
  size: number,
): { readonly squares: number; readonly spare: number } {
  const disc = { x: mean.x - size * sharedMoves.x, y: mean.y - size * sharedMoves.y };
  const squares = looks.reduce((total, { value, weight, shared }) => {
    const left = { x: value.x - disc.x - size * shared.x, y: value.y - disc.y - size * shared.y };
    return total + dot(left, times(weight, left));
  }, 0);
  return { squares, spare: Math.max(0, 2 * looks.length - 2) };
}

/** One in a thousand scans that agree would be taken for ones that do not. */
const AT_ODDS_PROBABILITY = 0.999;

/**
 * Whether scans agree within their doubt: chi square of all that is left over. Where they do not, the doubt grows by the
 * root of chi square over its degrees of freedom. Source: R. T. Birge, Physical Review 40 (1932) 207, from memory.
 */
function oddsOf(all: readonly Gathered[], size: number): AtOdds | null {
  const misfits = all.map((gathering) => ({ key: gathering.key, ...misfitOf(gathering, size) }));
  const spare = misfits.reduce((total, m) => total + m.spare, 0);
  const squares = misfits.reduce((total, m) => total + m.squares, size * size);
  if (spare === 0 || squares <= chiSquareQuantile(AT_ODDS_PROBABILITY, spare)) return null;
  const most = misfits.reduce((a, b) => (b.squares > a.squares ? b : a));
  return { factor: Math.sqrt(squares / spare), key: most.key };
}

/**
 * Pictures of one sheet as one measurement, by weighted least squares: every disc has its displacement, all share one effect
 * along each picture's travel of which only its usual size is known (the lamp's shadow; a camera's parallax). Turned by half,
 * it changes sides and falls out; turned by a quarter, each component of a scan is taken along the sensor, which is also free
 * of the carriage's wobble. Where there is a scan, photographs add nothing and are left out.
 * @param pictures one or more results for the same figures.
 */
export function combineScans(pictures: readonly ScanResult[]): CombinedScans {
  const scans = pictures.filter(({ kind }) => kind === 'scan');
  const counted = scans.length > 0 ? scans : pictures;
  const keys = [...new Set(counted.flatMap(({ discs }) => discs.map(({ key }) => key)))];
  const all = keys.map((key) =>
    gathered(
      key,
      counted.flatMap((scan) => scan.discs.filter((disc) => disc.key === key).map((disc) => ({ disc, scan }))),
    ),
  );
  let information = 1;
  let pull = 0;
  for (const { looks, mean, sharedMoves } of all)
    for (const { value, weight, shared } of looks) {
      const turned = times(weight, shared);
      information += dot(turned, { x: shared.x - sharedMoves.x, y: shared.y - sharedMoves.y });
      pull += dot(turned, { x: value.x - mean.x, y: value.y - mean.y });
    }
  // In standard deviations of what is usual.
  const size = pull / information;
  const sd = 1 / Math.sqrt(information);
  const atOdds = oddsOf(all, size);
  const grown = atOdds?.factor ?? 1;
  const usualMm = Math.max(...counted.map((scan) => doubtOf(scan).sharedSdMm));
  return {
    kind: scans.length > 0 ? 'scan' : 'photo',
    atOdds,
    discs: all.map(({ key, state, covariance, mean, sharedMoves }) => ({
      key,
      state,
      acrossMm: mean.x - size * sharedMoves.x,
      alongMm: mean.y - size * sharedMoves.y,
      acrossSdMm: grown * Math.sqrt(covariance.xx),
      alongSdMm: grown * Math.sqrt(covariance.yy),
      acrossSharedMm: sd * sharedMoves.x,
      alongSharedMm: sd * sharedMoves.y,
    })),
    shadowMm: size * usualMm,
    shadowSdMm: sd * usualMm,
  };
}
