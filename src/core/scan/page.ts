import { apply, type Affine, type Point } from '../geometry/affine';
import { seededRng } from '../math/random';
import { affineThrough, type SeenPlace } from './affine-fit';
import { cameraLens, homographyThrough, placeOf, scannerLens, type Lens, type PictureSize } from './lens';
import type { RingCode, SeenEllipse } from './ring-code';

/** A figure of a sheet as it is expected: where it stands, how large it is and which word it carries. */
export interface ExpectedFigure {
  readonly key: string;
  readonly codeNo: number;
  readonly centre: Point;
  readonly radiusMm: number;
}

/** A disc whose ring was read. */
export interface DecodedDisc {
  readonly ellipse: SeenEllipse;
  readonly code: RingCode;
}

export interface Page {
  readonly lens: Lens;
  readonly isMirrored: boolean;
  /** Read discs that agree with it. */
  readonly agreeing: readonly DecodedDisc[];
}

/** Read discs that a page needs to be believed: two may agree by chance. */
export const LEAST_AGREEING = 3;
/** How far a disc may lie from where a similarity through two others puts it, mm and as a share of the way. */
const NEAR_MM = 1;
const NEAR_SHARE = 0.02;
/** How far a ring's own size and turn may differ from the page's. */
const SCALE_SHARE = 0.12;
const TURN_RAD = 0.15;
/** With all of them fitted, mm. */
const FITTED_MM = 1;

interface Match {
  readonly disc: DecodedDisc;
  readonly expected: ExpectedFigure;
}

const radiusPx = ({ right, up }: SeenEllipse): number => (Math.hypot(right.x, right.y) + Math.hypot(up.x, up.y)) / 2;

/** The similarity (with or without a mirror image) that puts two figures where two discs were seen. */
function similarityOf(a: Match, b: Match): Affine<'sheet', 'picture'> | null {
  const { isMirrored } = a.disc.code;
  const side = isMirrored ? -1 : 1;
  const [dx, dy] = [b.expected.centre.x - a.expected.centre.x, side * (b.expected.centre.y - a.expected.centre.y)];
  const [du, dv] = [
    b.disc.ellipse.centre.x - a.disc.ellipse.centre.x,
    a.disc.ellipse.centre.y - b.disc.ellipse.centre.y,
  ];
  const square = dx * dx + dy * dy;
  if (square < 1) return null;
  // (du + i dv) / (dx + i dy), with the picture's y turned up.
  const re = (du * dx + dv * dy) / square;
  const im = (dv * dx - du * dy) / square;
  const map = { xx: re, xy: -im * side, yx: -im, yy: -re * side, tx: 0, ty: 0 };
  const at = apply<'sheet', 'picture'>(map, a.expected.centre);
  return { ...map, tx: a.disc.ellipse.centre.x - at.x, ty: a.disc.ellipse.centre.y - at.y };
}

const scaleOf = ({ xx, xy, yx, yy }: Affine<'sheet', 'picture'>): number => Math.sqrt(Math.abs(xx * yy - xy * yx));

function fitsRing({ disc, expected }: Match, map: Affine<'sheet', 'picture'>): boolean {
  const scale = radiusPx(disc.ellipse) / expected.radiusMm / scaleOf(map);
  const turn = Math.atan2(-map.yx, map.xx) - disc.code.angleRad;
  const off = Math.atan2(Math.sin(turn), Math.cos(turn));
  return Math.abs(scale - 1) < SCALE_SHARE && Math.abs(off) < TURN_RAD;
}

/** Matches that lie near enough to where the map puts them; of two discs with one word the nearer. */
function nearOnes(
  matches: readonly Match[],
  map: Affine<'sheet', 'picture'>,
  isMirrored: boolean,
  nearMm: (match: Match) => number,
): readonly Match[] {
  const scale = scaleOf(map);
  const nearest = new Map<string, { readonly match: Match; readonly gap: number }>();
  for (const match of matches) {
    if (match.disc.code.isMirrored !== isMirrored || !fitsRing(match, map)) continue;
    const at = apply(map, match.expected.centre);
    const gap = Math.hypot(at.x - match.disc.ellipse.centre.x, at.y - match.disc.ellipse.centre.y) / scale;
    if (gap > nearMm(match) || gap >= (nearest.get(match.expected.key)?.gap ?? Infinity)) continue;
    nearest.set(match.expected.key, { match, gap });
  }
  return [...nearest.values()].map(({ match }) => match);
}

const placeSeen = ({ disc, expected }: Match): SeenPlace => ({ at: expected.centre, seen: disc.ellipse.centre });

/** Through the matches' places; null when they lie on a line. */
const affineOf = (matches: readonly Match[]): Affine<'sheet', 'picture'> | null =>
  affineThrough(matches.map(placeSeen))?.map ?? null;

/**
 * The page that most read discs agree on: a similarity through every two of them, then an affine map through all that lie
 * near it. Discs in a row give no page: the way across it is not known.
 */
export function findPage(
  discs: readonly DecodedDisc[],
  figures: readonly ExpectedFigure[],
  size: PictureSize,
): Page | null {
  const matches = matchesOf(discs, figures);
  let best: readonly Match[] = [];
  for (let i = 0; i < matches.length; i++)
    for (let j = i + 1; j < matches.length; j++) {
      const [a, b] = [matches[i]!, matches[j]!];
      if (a.disc.code.isMirrored !== b.disc.code.isMirrored) continue;
      const map = similarityOf(a, b);
      if (!map || !fitsRing(a, map) || !fitsRing(b, map)) continue;
      const nearMm = ({ expected }: Match): number =>
        NEAR_MM +
        NEAR_SHARE * Math.hypot(expected.centre.x - a.expected.centre.x, expected.centre.y - a.expected.centre.y);
      const near = nearOnes(matches, map, a.disc.code.isMirrored, nearMm);
      if (near.length > best.length) best = near;
    }
  if (best.length < LEAST_AGREEING) return null;
  const isMirrored = best[0]!.disc.code.isMirrored;
  let map = affineOf(best);
  if (!map) return null;
  const agreeing = nearOnes(matches, map, isMirrored, () => FITTED_MM);
  if (agreeing.length < LEAST_AGREEING) return null;
  map = affineOf(agreeing);
  return map && { lens: scannerLens(map, size), isMirrored, agreeing: agreeing.map(({ disc }) => disc) };
}

/** A camera's view has nine parameters: so many discs are wanted to tell it with something to spare. */
const LEAST_PHOTOGRAPHED = 8;
const FOURS = 300;
/** Before the lens is known, and with it, mm. */
const UNBENT_MM = 8;
const BENT_MM = 1.2;

/** Matches that a view puts where they were seen, to so many mm. */
function seenWithin(lens: Lens, matches: readonly Match[], nearMm: number): readonly Match[] {
  return matches.filter(({ disc, expected }) => {
    const at = placeOf(lens, expected.centre);
    const gap = Math.hypot(at.x - disc.ellipse.centre.x, at.y - disc.ellipse.centre.y);
    return gap / (radiusPx(disc.ellipse) / expected.radiusMm) < nearMm;
  });
}

/** The most discs of one side that a homography through four of them puts about where they were seen. */
function mostSeen(matches: readonly Match[], size: PictureSize): readonly Match[] {
  if (matches.length < 4) return [];
  const rng = seededRng(matches.length);
  let best: readonly Match[] = [];
  for (let four = 0; four < FOURS; four++) {
    const chosen = Array.from({ length: 4 }, () => matches[Math.floor(rng() * matches.length)]!);
    if (new Set(chosen.map((m) => m.expected.key)).size < 4) continue;
    const homography = homographyThrough(chosen.map(placeSeen));
    if (!homography) continue;
    const lens = { ...scannerLens(NO_MAP, size), homography };
    const near = seenWithin(lens, matches, UNBENT_MM);
    if (near.length > best.length) best = near;
  }
  return best;
}

const NO_MAP = { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 };

/**
 * The view of a flat sheet that a camera had: a homography through many fours of read discs, then with its lens' radial
 * term through all that agree. Null below eight discs.
 */
export function findCameraPage(
  discs: readonly DecodedDisc[],
  figures: readonly ExpectedFigure[],
  size: PictureSize,
): Page | null {
  const sides = [false, true].map((isMirrored) => ({
    isMirrored,
    matches: mostSeen(
      matchesOf(discs, figures).filter(({ disc }) => disc.code.isMirrored === isMirrored),
      size,
    ),
  }));
  const { isMirrored, matches } = sides[0]!.matches.length >= sides[1]!.matches.length ? sides[0]! : sides[1]!;
  if (matches.length < LEAST_PHOTOGRAPHED) return null;
  const rough = cameraLens(matches.map(placeSeen), size);
  const agreeing = rough ? seenWithin(rough, matches, BENT_MM) : [];
  if (agreeing.length < LEAST_PHOTOGRAPHED) return null;
  const lens = cameraLens(agreeing.map(placeSeen), size);
  return lens && { lens, isMirrored, agreeing: agreeing.map(({ disc }) => disc) };
}

function matchesOf(discs: readonly DecodedDisc[], figures: readonly ExpectedFigure[]): readonly Match[] {
  const byCode = new Map(figures.map((figure) => [figure.codeNo, figure]));
  return discs.flatMap((disc) => {
    const expected = byCode.get(disc.code.codeNo);
    return expected ? [{ disc, expected }] : [];
  });
}
