import { medianOf } from '../math/median';
import type { Point } from '../geometry/affine';
import { dotAngles } from '../target/code-book';
import { CODE_RING_SHARE } from '../target/disc';
import type { GrayImage, Pixel } from './gray';
import { brightnessIn, meanPixelsPerMm, type LocalView } from './local-view';
import type { ScanFigure } from './measured-figure';
import type { DecodedDisc } from './page';
import type { SeenEllipse } from './ring-code';

/** What a scanner makes of one mm to the right and up on its glass. */
interface GlassShape {
  readonly right: Pixel;
  readonly up: Pixel;
}

/** A piece is known by its own ring, whatever way it lies. */
export interface Piece {
  readonly figure: ScanFigure;
  readonly disc: DecodedDisc;
}

/** A read disc whose size differs by more from the others is something else that lies there. */
const SIZE_SHARE = 0.12;

export const sizeOf = ({ ellipse: { right, up } }: DecodedDisc): number =>
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

/** One dot's middle is looked for within so much of its place, as a share of the disc's radius: short of its neighbours, the disc and the traced ring. */
const DOT_REACH_SHARE = 0.175;
/** So many looks from a dot's place to either side. */
const DOT_LOOKS = 21;
/** Of what a dot is darker than its ground by, so much may be noise. */
const DOT_GROUND_SHARE = 0.15;
const LEAST_DOT_CONTRAST = 20;

/** The middle of the dark part about a place, mm against the view's own; null where nothing there is dark. */
function dotMiddle(image: GrayImage, view: LocalView, at: Point, reachMm: number): Point | null {
  const seen: { readonly x: number; readonly y: number; readonly level: number }[] = [];
  const stepMm = reachMm / DOT_LOOKS;
  for (let row = -DOT_LOOKS; row <= DOT_LOOKS; row++)
    for (let column = -DOT_LOOKS; column <= DOT_LOOKS; column++) {
      if (row * row + column * column > DOT_LOOKS * DOT_LOOKS) continue;
      const [x, y] = [at.x + column * stepMm, at.y + row * stepMm];
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
    const place = { x: ringMm * Math.cos(angle), y: ringMm * Math.sin(angle) };
    const middle = dotMiddle(image, view, place, radiusMm * DOT_REACH_SHARE);
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

const NOWHERE = { x: 0, y: 0 };

/** Those whose size is near the given one. */
export const alikeInSize = (discs: readonly DecodedDisc[], size: number): readonly DecodedDisc[] =>
  discs.filter((disc) => Math.abs(sizeOf(disc) / size - 1) < SIZE_SHARE);

/** How pieces of one scan are seen: each with its own turn, all with one scale and the scanner's shape. */
export interface SeenPieces {
  /** A view a piece, in their order. */
  readonly views: readonly LocalView[];
  readonly pixelsPerMm: number;
}

/** @param pieces at least one, all of one radius. */
export function seenPieces(image: GrayImage, pieces: readonly Piece[]): SeenPieces {
  const glass = glassOf(pieces, pieces[0]!.figure.radiusMm);
  const seen = pieces.map((piece) => {
    const view = viewOf(piece, glass);
    return { view, dots: dotsSeen(image, view, piece.figure) };
  });
  const scales = seen.flatMap(({ dots }) => (dots ? [dots.scale] : []));
  const scale = scales.length > 0 ? medianOf(scales) : 1;
  return {
    views: seen.map(({ view, dots }) => moved(view, dots?.turnRad ?? 0, scale)),
    pixelsPerMm: scale * meanPixelsPerMm({ centre: NOWHERE, ...glass }),
  };
}
