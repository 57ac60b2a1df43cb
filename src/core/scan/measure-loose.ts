import { fail, ok, type Result } from '../result';
import { medianOf } from '../math/median';
import { seededRng } from '../math/random';
import type { Point } from '../geometry/affine';
import { dotAngles } from '../target/code-book';
import { CODE_RING_SHARE } from '../target/disc';
import { measureDisc, type MeasuredDisc } from './disc-measure';
import type { GrayImage, Pixel } from './gray';
import { brightnessIn, meanPixelsPerMm, type LocalView } from './local-view';
import { commonRadius, resultOf, withCommonRadii, type MeasuredFigure, type ScanFigure } from './measured-figure';
import type { DecodedDisc } from './page';
import type { SeenEllipse } from './ring-code';
import { coarseness, type ScanProblem, type ScanProgress, type ScanResult, type ScanWork } from './scan-result';

/** What a scanner makes of one mm to the right and up on its glass. */
interface GlassShape {
  readonly right: Pixel;
  readonly up: Pixel;
}

/** A piece is known by its own ring, whatever way it lies. */
interface Piece {
  readonly figure: ScanFigure;
  readonly disc: DecodedDisc;
}

/** A read disc whose size differs by more from the sheet's own is something else that lies there. */
const SIZE_SHARE = 0.12;
/** Pieces of one scan are seen alike; of a photograph they are not. */
const MOST_SIZE_SPREAD = 0.004;

const sizeOf = ({ ellipse: { right, up } }: DecodedDisc): number =>
  (Math.hypot(right.x, right.y) + Math.hypot(up.x, up.y)) / 2;

/** Median of how a radius is seen to the right and up: one damaged piece does not change it. */
function glassOf(pieces: readonly Piece[], radiusMm: number): GlassShape {
  const median = (of: (ellipse: SeenEllipse) => number): number =>
    medianOf(pieces.map(({ disc }) => of(disc.ellipse))) / radiusMm;
  return {
    right: { x: median(({ right }) => right.x), y: median(({ right }) => right.y) },
    up: { x: median(({ up }) => up.x), y: median(({ up }) => up.y) },
  };
}

/** How a piece is seen: its own turn and side, the scanner's shape. */
function viewOf({ disc: { ellipse, code } }: Piece, { right, up }: GlassShape): LocalView {
  const [cos, sin] = [Math.cos(code.angleRad), Math.sin(code.angleRad)];
  const side = code.isMirrored ? -1 : 1;
  const seen = (u: number, v: number): Pixel => ({ x: u * right.x + v * up.x, y: u * right.y + v * up.y });
  return { centre: ellipse.centre, right: seen(cos, sin), up: seen(-side * sin, side * cos) };
}

/** How the dots of a piece's ring lie against where its view has them. */
interface DotsSeen {
  readonly turnRad: number;
  readonly scale: number;
}

/** One dot's middle is looked for within so much of its place: short of its neighbours, the disc and the traced ring. */
const DOT_REACH_MM = 1.05;
const DOT_STEP_MM = 0.05;
/** Of what a dot is darker than its ground by, so much may be noise. */
const DOT_GROUND_SHARE = 0.15;
const LEAST_DOT_CONTRAST = 20;

/** The middle of the dark part about a place, mm against the view's own; null where nothing there is dark. */
function dotMiddle(image: GrayImage, view: LocalView, at: Point): Point | null {
  const seen: { readonly x: number; readonly y: number; readonly level: number }[] = [];
  for (let v = -DOT_REACH_MM; v <= DOT_REACH_MM; v += DOT_STEP_MM)
    for (let u = -DOT_REACH_MM; u <= DOT_REACH_MM; u += DOT_STEP_MM) {
      if (u * u + v * v > DOT_REACH_MM * DOT_REACH_MM) continue;
      const [x, y] = [at.x + u, at.y + v];
      seen.push({ x, y, level: brightnessIn(image, view, x, y) });
    }
  const levels = seen.map(({ level }) => level).sort((a, b) => a - b);
  // A dot fills half of what is looked at.
  const ground = levels[Math.floor(0.85 * levels.length)]!;
  const contrast = ground - levels[Math.floor(0.1 * levels.length)]!;
  if (contrast < LEAST_DOT_CONTRAST) return null;
  const least = ground - DOT_GROUND_SHARE * contrast;
  let [sum, sumX, sumY] = [0, 0, 0];
  for (const { x, y, level } of seen) {
    const dark = Math.max(0, least - level);
    sum += dark;
    sumX += dark * x;
    sumY += dark * y;
  }
  return { x: sumX / sum, y: sumY / sum };
}

/**
 * How a piece is turned and how large it is seen, against its view, by the middles of its dots: ink that spreads leaves
 * them where they are, where a disc's edge would be taken for a larger scale. Medians: a hair over one dot changes neither.
 */
function dotsSeen(image: GrayImage, view: LocalView, { codeNo, radiusMm }: ScanFigure): DotsSeen | null {
  const ringMm = radiusMm * CODE_RING_SHARE;
  const dots = dotAngles(codeNo).flatMap((angle) => {
    const middle = dotMiddle(image, view, { x: ringMm * Math.cos(angle), y: ringMm * Math.sin(angle) });
    if (!middle) return [];
    const off = Math.atan2(middle.y, middle.x) - angle;
    return [{ turnRad: Math.atan2(Math.sin(off), Math.cos(off)), scale: Math.hypot(middle.x, middle.y) / ringMm }];
  });
  if (dots.length < LEAST_DOTS) return null;
  return { turnRad: medianOf(dots.map((d) => d.turnRad)), scale: medianOf(dots.map((d) => d.scale)) };
}

const LEAST_DOTS = 3;

/** A view turned and scaled about its middle. */
function moved({ centre, right, up }: LocalView, turnRad: number, scale: number): LocalView {
  const [cos, sin] = [scale * Math.cos(turnRad), scale * Math.sin(turnRad)];
  const seen = (u: number, v: number): Pixel => ({ x: u * right.x + v * up.x, y: u * right.y + v * up.y });
  return { centre, right: seen(cos, sin), up: seen(-sin, cos) };
}

/** The sheet's own pieces; none of them where another sheet's lie there too, or one of them lies there twice. */
function piecesOf(
  decoded: readonly DecodedDisc[],
  figures: readonly ScanFigure[],
): Result<readonly Piece[], ScanProblem> {
  const byCode = new Map(figures.map((figure) => [figure.codeNo, figure]));
  const known = decoded.filter(({ code }) => byCode.has(code.codeNo));
  if (known.length === 0) return fail({ kind: 'other-pieces' });
  const size = medianOf(known.map(sizeOf));
  const ofItsSize = decoded.filter((disc) => Math.abs(sizeOf(disc) / size - 1) < SIZE_SHARE);
  const pieces = ofItsSize.flatMap((disc) => {
    const figure = byCode.get(disc.code.codeNo);
    return figure ? [{ figure, disc }] : [];
  });
  if (pieces.length < ofItsSize.length) return fail({ kind: 'other-pieces' });
  if (new Set(pieces.map(({ figure }) => figure.key)).size < pieces.length) return fail({ kind: 'two-sheets' });
  return ok(pieces);
}

const NOT_SEEN: MeasuredDisc = { state: 'missing', print: null, cut: null };
const NOWHERE = { x: 0, y: 0 };

/** Spread of the printed radii as a share; pieces alike in size are seen from straight above. */
function sizeSpread(measured: readonly MeasuredFigure[]): number {
  const common = commonRadius(measured.flatMap(({ disc: { print } }) => (print ? [print.fit.radiusMm] : [])));
  return common ? common.sdMm / common.radiusMm : 0;
}

/**
 * Measures pieces that were lifted out and lie loose on dark card, each in the frame that its own ring tells.
 * @param decoded what was found in the picture.
 */
export function* measureLoose(
  { image, figures }: ScanWork,
  decoded: readonly DecodedDisc[],
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const own = piecesOf(decoded, figures);
  if (!own.ok) return own;
  const pieces = own.value;
  const rng = seededRng(1);
  const glass = glassOf(pieces, pieces[0]!.figure.radiusMm);
  const seen = new Map(
    pieces.map((piece) => {
      const view = viewOf(piece, glass);
      return [piece.figure.key, { view, dots: dotsSeen(image, view, piece.figure) }];
    }),
  );
  const scales = [...seen.values()].flatMap(({ dots }) => (dots ? [dots.scale] : []));
  const scale = scales.length > 0 ? medianOf(scales) : 1;
  const perMm = scale * meanPixelsPerMm({ centre: NOWHERE, ...glass });
  const coarse = coarseness(perMm);
  if (coarse) return fail(coarse);
  const measured: MeasuredFigure[] = [];
  for (const figure of figures) {
    const piece = seen.get(figure.key);
    const view = piece && moved(piece.view, piece.dots?.turnRad ?? 0, scale);
    measured.push(
      view
        ? { figure, view, bias: NOWHERE, disc: measureDisc(image, view, figure, rng) }
        : { figure, view: null, bias: NOWHERE, disc: NOT_SEEN },
    );
    yield { stage: 'measured', done: measured.length, of: figures.length, disc: resultOf(measured.at(-1)!) };
  }
  const behind = pieces.filter(({ disc }) => disc.code.isMirrored).length;
  if (sizeSpread(measured) > MOST_SIZE_SPREAD) return fail({ kind: 'pieces-aslant' });
  return ok({
    kind: 'scan',
    discs: withCommonRadii(measured).map(resultOf),
    tiltRad: 0,
    isMirrored: behind === pieces.length,
    isMixed: behind > 0 && behind < pieces.length,
    turnDeg: null,
    cutShape: 'edge',
    pixelsPerMm: perMm,
  });
}
