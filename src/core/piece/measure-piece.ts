import { fail, ok, type Result } from '../result';
import { reducedBy, type GrayImage, type Pixel } from '../scan/gray';
import { borderLooks, type EdgeLook } from './border-looks';
import { findLightPiece } from './light-piece';
import type { BorderLook, PieceProblem, PieceReading, PieceSide, PieceSought } from './piece-reading';
import { rectangleThrough, seenRatio, toMillimetres } from './rectangle';
import { robustFit, type RobustFit } from './robust-fit';

/** The piece is looked for in a picture of about so many pixels. */
const FINDING_PX = 800;
const LEAST_PIXELS_PER_MM = 6;
/** Sides may differ by this share from what was told: the camera is tilted, sizes are rounded. */
const RATIO_SHARE = 0.12;
/** The middle of a side, clear of round corners. */
const MIDDLE_SHARE = 0.76;
/** Of the looks of a side, or of an outline, so many must see print. */
const LEAST_SEEN = 0.5;
/** Looks of one side may lie so far from a straight border, mm. */
const UNEVEN_MM = 0.15;
/** Looks nearer than this to the rest are never called far off, mm. */
const LEAST_SD_MM = 0.01;
/** Looks stand so close that about four of them say the same. */
const ALIKE = 4;
/** What no spread of looks shows: light from one side, ink that spreads unevenly, a lens. mm, and pixels. Common practice, no published source. */
const OWN_SD_MM = 0.02;
const OWN_SD_PX = 0.15;

const SIDES: readonly PieceSide[] = ['left', 'right', 'top', 'bottom'];

interface Seen {
  readonly looks: readonly EdgeLook[];
  readonly pixelsPerMm: number;
}

const ownSdMm = (pixelsPerMm: number): number => Math.hypot(OWN_SD_MM, OWN_SD_PX / pixelsPerMm);

const asBorderLooks = (looks: readonly EdgeLook[], used: ReadonlySet<EdgeLook>): readonly BorderLook[] =>
  looks.map((look) => ({ cut: look.cut, print: look.print, isUsed: used.has(look) }));

interface SideBorder {
  readonly mm: number;
  readonly sdMm: number;
  readonly used: readonly EdgeLook[];
}

/** The border at the middle of one side: a straight line through its looks, which a turned cut tilts. */
function sideBorder(
  side: PieceSide,
  looks: readonly EdgeLook[],
  lengthMm: number,
  toMm: (p: Pixel) => Pixel,
): Result<SideBorder, PieceProblem> {
  const isAcross = side === 'top' || side === 'bottom';
  const half = (MIDDLE_SHARE * lengthMm) / 2;
  const middle = looks.flatMap((look) => {
    const cut = toMm(look.cut);
    const t = isAcross ? cut.x : cut.y;
    if (Math.abs(t) > half) return [];
    const print = look.print && toMm(look.print);
    const mm = print && Math.abs(isAcross ? print.y - cut.y : print.x - cut.x);
    return [{ look, t, mm }];
  });
  const seen = middle.flatMap(({ look, t, mm }) => (mm === null ? [] : [{ look, t, mm }]));
  if (seen.length < LEAST_SEEN * middle.length || seen.length < 3) return fail({ kind: 'no-print-edge', side });
  const fit = robustFit(
    seen.map(({ t }) => [1, t]),
    seen.map(({ mm }) => mm),
    LEAST_SD_MM,
  );
  if (!fit || fit.residualSd > UNEVEN_MM || !mostCount(fit)) return fail({ kind: 'uneven', side });
  return ok({
    mm: fit.parameters[0]!,
    ...spreadOf(
      fit,
      seen.map(({ look }) => look),
    ),
  });
}

const mostCount = ({ weights }: RobustFit): boolean =>
  weights.filter((w) => w > 0).length > LEAST_SEEN * weights.length;

/** Standard uncertainty of the first parameter by the looks' own spread, and which looks count. */
const spreadOf = ({ residualSd, inverseNormalDiagonal, weights }: RobustFit, looks: readonly EdgeLook[]) => ({
  sdMm: residualSd * Math.sqrt(ALIKE * inverseNormalDiagonal[0]!),
  used: looks.filter((_, i) => weights[i]! > 0),
});

function rectangleReading(
  looks: readonly EdgeLook[],
  { widthMm, heightMm }: PieceSought,
): Result<PieceReading, PieceProblem> {
  const rectangle = rectangleThrough(looks);
  const toMm = rectangle && toMillimetres(rectangle.corners, { widthMm, heightMm });
  if (!rectangle || !toMm) return fail({ kind: 'no-rectangle' });
  const [ratio, toldRatio] = [seenRatio(rectangle.corners), widthMm / heightMm];
  const isLike = (told: number): boolean => Math.abs(ratio / told - 1) < RATIO_SHARE;
  if (!isLike(toldRatio))
    return fail({ kind: 'other-size', seenRatio: ratio, toldRatio, isOnItsSide: isLike(1 / toldRatio) });
  const found: Partial<Record<PieceSide, SideBorder>> = {};
  for (const side of SIDES) {
    const own = looks.filter((look) => rectangle.sideOf(look) === side);
    const border = sideBorder(side, own, side === 'top' || side === 'bottom' ? widthMm : heightMm, toMm);
    if (!border.ok) return border;
    found[side] = border.value;
  }
  const { left, right, top, bottom } = found as Record<PieceSide, SideBorder>;
  const all = [left, right, top, bottom];
  const perMm = pixelsPerMmOf(looks, widthMm, heightMm);
  return ok({
    borders: { leftMm: left.mm, rightMm: right.mm, topMm: top.mm, bottomMm: bottom.mm },
    borderSdMm: Math.hypot(ownSdMm(perMm), Math.max(...all.map((b) => b.sdMm))),
    looks: asBorderLooks(looks, new Set(all.flatMap((b) => b.used))),
    pixelsPerMm: perMm,
  });
}

/** Of an outline of any shape, held upright: one border all round, and the shift that makes it wider towards where the cut went. */
function outlineReading(
  { looks, pixelsPerMm }: Seen,
  { widthMm, heightMm }: PieceSought,
): Result<PieceReading, PieceProblem> {
  const { across, down } = extents(looks);
  const [ratio, toldRatio] = [across / down, widthMm / heightMm];
  if (Math.abs(ratio / toldRatio - 1) > RATIO_SHARE)
    return fail({
      ...{ kind: 'other-size', seenRatio: ratio, toldRatio },
      isOnItsSide: Math.abs(ratio * toldRatio - 1) < RATIO_SHARE,
    });
  const seen = looks.flatMap((look) =>
    look.print ? [{ look, mm: Math.hypot(look.print.x - look.cut.x, look.print.y - look.cut.y) / pixelsPerMm }] : [],
  );
  if (seen.length < LEAST_SEEN * looks.length) return fail({ kind: 'no-print-edge', side: null });
  const fit = robustFit(
    seen.map(({ look: { outward } }) => [1, outward.x, -outward.y]),
    seen.map(({ mm }) => mm),
    LEAST_SD_MM,
  );
  if (!fit || fit.residualSd > UNEVEN_MM || !mostCount(fit)) return fail({ kind: 'uneven', side: null });
  const [border, right, up] = fit.parameters as [number, number, number];
  // A shift beyond the border leaves no border on one side: what was seen there was something else.
  if (border < Math.max(Math.abs(right), Math.abs(up))) return fail({ kind: 'no-print-edge', side: null });
  const { inverseNormalDiagonal: d, residualSd } = fit;
  const spread = residualSd * Math.sqrt(ALIKE * (d[0]! + Math.max(d[1]!, d[2]!)));
  return ok({
    borders: { leftMm: border - right, rightMm: border + right, topMm: border + up, bottomMm: border - up },
    borderSdMm: Math.hypot(ownSdMm(pixelsPerMm), spread),
    looks: asBorderLooks(
      looks,
      new Set(
        spreadOf(
          fit,
          seen.map(({ look }) => look),
        ).used,
      ),
    ),
    pixelsPerMm,
  });
}

function extents(looks: readonly { readonly cut: Pixel }[]): { readonly across: number; readonly down: number } {
  const [xs, ys] = [looks.map(({ cut }) => cut.x), looks.map(({ cut }) => cut.y)];
  return { across: Math.max(...xs) - Math.min(...xs), down: Math.max(...ys) - Math.min(...ys) };
}

function pixelsPerMmOf(looks: readonly EdgeLook[], widthMm: number, heightMm: number): number {
  const { across, down } = extents(looks);
  return (across / widthMm + down / heightMm) / 2;
}

/** By how much a picture is reduced to look for a piece in it. */
export const pieceFactor = ({ width, height }: GrayImage): number =>
  Math.max(1, Math.round(Math.max(width, height) / FINDING_PX));

/**
 * The four borders of one finished piece from a photograph of it: the piece's light border is told from the dark ground outside
 * and from the print inside, all round, and both edges are placed between pixels. Of a rectangle the camera's tilt is taken
 * out by its own four sides.
 * @param sought its cut size, mm, as it is held.
 * @param small the picture reduced by `pieceFactor`.
 * @returns borders in mm with their standard uncertainty, or what is in the way.
 */
export function measurePiece(
  image: GrayImage,
  sought: PieceSought,
  small: GrayImage = reducedBy(image, pieceFactor(image)),
): Result<PieceReading, PieceProblem> {
  const factor = pieceFactor(image);
  const piece = findLightPiece(small);
  if (!piece.ok) return piece;
  const outline = piece.value.outline.map((cut) => ({ cut: { x: cut.x * factor, y: cut.y * factor } }));
  const { across, down } = extents(outline);
  const size = Math.max(across, down) / Math.max(sought.widthMm, sought.heightMm);
  if (size < LEAST_PIXELS_PER_MM) return fail({ kind: 'too-coarse', pixelsPerMm: size });
  const looks = borderLooks(image, piece.value, factor, size);
  if (sought.shape === 'rectangle') return rectangleReading(looks, sought);
  return outlineReading({ looks, pixelsPerMm: pixelsPerMmOf(looks, sought.widthMm, sought.heightMm) }, sought);
}
