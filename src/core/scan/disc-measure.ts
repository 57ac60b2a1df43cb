import type { Rng } from '../math/random';
import { LIFT_OFF_REACH_MM, LIFT_OFF_RING_OUTER_MM } from '../target/lift-off';
import type { CodedFigure } from '../target/coded-figure';
import { edgeAbout, inlierShare, type EdgeOrder, type SampledEdge } from './edge-about';
import type { GrayImage } from './gray';
import { brightnessIn, pixelsPerMm, type LocalView } from './local-view';

/** What was found of a disc and the cut about it. Not weeded: nothing shows where it was cut. */
export const DISC_STATES = ['good', 'partial', 'not-weeded', 'bad-cut', 'missing'] as const;
export type DiscState = (typeof DISC_STATES)[number];

/** States in which a disc tells a displacement. */
export type MeasuredState = 'good' | 'partial';
export const isMeasured = (state: DiscState): state is MeasuredState => state === 'good' || state === 'partial';

/** How large a figure is, and what shows its cut. */
export type FigureShape = Pick<CodedFigure, 'radiusMm' | 'inkFromMm' | 'cutShape' | 'cutRadiusMm'>;

export interface MeasuredDisc {
  readonly state: DiscState;
  readonly print: SampledEdge | null;
  readonly cut: SampledEdge | null;
}

/** How far a print may lie from where the page puts it, and a cut from its print. */
const PRINT_WINDOW_MM = 0.9;
const HOLE_WINDOW_MM = 1;
const LINE_WINDOW_MM = 1.3;
/** As near to printed ink as a cut is looked for, mm. */
const FROM_INK_MM = 0.12;
/** Card is looked at so far outside of where a piece's edge may be, mm. */
const CARD_MM = 0.6;
const LEAST_CONTRAST = 20;

const DEGREES = Math.PI / 180;
const PRINT_LEAST_INLIERS = 0.45;
const PRINT_MOST_GAP_RAD = 120 * DEGREES;
const LEAST_OPEN = 0.12;
const CUT_LEAST_INLIERS = 0.35;
const CUT_MOST_GAP_RAD = 190 * DEGREES;
const CUT_RADIUS_SHARE = 0.07;
const GOOD_INLIERS = 0.85;

interface Levels {
  readonly ink: number;
  readonly paper: number;
}

interface Middle {
  readonly x: number;
  readonly y: number;
}

const ROUND = 48;
const MOST_INSIDE_INK_MM = 0.4;

function sortedRound(image: GrayImage, view: LocalView, radiusMm: number, middle: Middle): readonly number[] {
  return Array.from({ length: ROUND }, (_, i) => {
    const angle = (2 * Math.PI * i) / ROUND;
    return brightnessIn(image, view, middle.x + radiusMm * Math.cos(angle), middle.y + radiusMm * Math.sin(angle));
  }).sort((a, b) => a - b);
}

/** Ink just inside the edge, paper between the edge and the dots: the more usual of what is seen there. */
function levelsOf(image: GrayImage, view: LocalView, { radiusMm, inkFromMm }: FigureShape): Levels {
  const inside = Math.min(MOST_INSIDE_INK_MM, (radiusMm - inkFromMm) / 2);
  const about = { x: 0, y: 0 };
  return {
    ink: sortedRound(image, view, radiusMm - inside, about)[16]!,
    paper: sortedRound(image, view, radiusMm + 0.4, about)[30]!,
  };
}

/** Where the light part of a disc lies and how large it is. */
function openPart(
  { image, view }: EdgeOrder,
  { x: x0, y: y0 }: Middle,
  reachMm: number,
  level: number,
): Middle & { readonly areaMm2: number } {
  const step = Math.max(0.2, 1 / pixelsPerMm(view));
  let [count, sumX, sumY] = [0, 0, 0];
  for (let v = -reachMm; v <= reachMm; v += step)
    for (let u = -reachMm; u <= reachMm; u += step) {
      if (u * u + v * v > reachMm * reachMm) continue;
      const [x, y] = [x0 + u, y0 + v];
      if (brightnessIn(image, view, x, y) < level) continue;
      count += 1;
      sumX += x;
      sumY += y;
    }
  return { areaMm2: count * step * step, x: count > 0 ? sumX / count : x0, y: count > 0 ? sumY / count : y0 };
}

function isPrintFound(print: SampledEdge | null): print is SampledEdge {
  return print !== null && inlierShare(print) >= PRINT_LEAST_INLIERS && print.fit.largestGapRad <= PRINT_MOST_GAP_RAD;
}

function cutState(print: SampledEdge, cut: SampledEdge | null, { cutRadiusMm }: FigureShape): DiscState {
  const isBad =
    !cut ||
    inlierShare(cut) < CUT_LEAST_INLIERS ||
    cut.fit.largestGapRad > CUT_MOST_GAP_RAD ||
    Math.abs(cut.fit.radiusMm / cutRadiusMm - 1) > CUT_RADIUS_SHARE;
  if (isBad) return 'bad-cut';
  return Math.min(inlierShare(cut), inlierShare(print)) < GOOD_INLIERS ? 'partial' : 'good';
}

interface CutOrder {
  readonly order: EdgeOrder;
  readonly shape: FigureShape;
  readonly middle: Middle;
  readonly printRadiusMm: number;
  /** Half way from ink to paper. */
  readonly level: number;
}

/** What is found of a cut; not shown: nothing there tells that anything was cut. */
type FoundCut = SampledEdge | 'not-shown' | null;

/** The weeded hole in a solid disc. */
function holeIn({ order, shape: { cutRadiusMm }, middle, printRadiusMm, level }: CutOrder): FoundCut {
  const open = openPart(order, middle, printRadiusMm - 0.35, level);
  if (open.areaMm2 / (Math.PI * cutRadiusMm ** 2) < LEAST_OPEN) return 'not-shown';
  const [fromMm, toMm] = [cutRadiusMm - HOLE_WINDOW_MM, cutRadiusMm + HOLE_WINDOW_MM];
  return edgeAbout(order, { radiusMm: cutRadiusMm, fromMm, toMm, kind: 'dark-outside' }, open);
}

/** The line that a pen drew in a printed ring, or that was rubbed into a slit. */
function lineIn({ order, shape: { cutRadiusMm, inkFromMm }, middle }: CutOrder): FoundCut {
  const fromMm = Math.max(0.3, cutRadiusMm - LINE_WINDOW_MM);
  const toMm = Math.min(cutRadiusMm + LINE_WINDOW_MM, inkFromMm - FROM_INK_MM);
  const line = edgeAbout(order, { radiusMm: cutRadiusMm, fromMm, toMm, kind: 'line' }, middle);
  return line && line.points.count >= CUT_LEAST_INLIERS * line.rays ? line : 'not-shown';
}

/** The edge of the piece that was lifted out and lies on dark card. */
function edgeOfPiece({ order, shape: { cutRadiusMm }, middle, level }: CutOrder): FoundCut {
  const outermostMm = cutRadiusMm + LIFT_OFF_REACH_MM + CARD_MM;
  const card = sortedRound(order.image, order.view, outermostMm, middle)[ROUND / 2]!;
  if (card > level) return 'not-shown';
  const fromMm = LIFT_OFF_RING_OUTER_MM + FROM_INK_MM;
  return edgeAbout(order, { radiusMm: cutRadiusMm, fromMm, toMm: outermostMm, kind: 'dark-outside' }, middle);
}

const CUT_FINDERS: Readonly<Record<FigureShape['cutShape'], (order: CutOrder) => FoundCut>> = {
  hole: holeIn,
  line: lineIn,
  edge: edgeOfPiece,
};

/** Measures the printed disc where the page puts it, and the cut about the same middle. */
export function measureDisc(image: GrayImage, view: LocalView, shape: FigureShape, rng: Rng): MeasuredDisc {
  const { ink, paper } = levelsOf(image, view, shape);
  const missing: MeasuredDisc = { state: 'missing', print: null, cut: null };
  const contrast = paper - ink;
  if (contrast < LEAST_CONTRAST) return missing;
  const order: EdgeOrder = { image, view, contrast, rng };
  const { radiusMm } = shape;
  const [fromMm, toMm] = [radiusMm - PRINT_WINDOW_MM, radiusMm + PRINT_WINDOW_MM];
  const print = edgeAbout(order, { radiusMm, fromMm, toMm, kind: 'dark-inside' }, { x: 0, y: 0 });
  if (!isPrintFound(print)) return missing;
  const middle = { x: print.x + print.fit.x, y: print.y + print.fit.y };
  const level = (ink + paper) / 2;
  const cut = CUT_FINDERS[shape.cutShape]({ order, shape, middle, printRadiusMm: print.fit.radiusMm, level });
  if (cut === 'not-shown') return { state: 'not-weeded', print, cut: null };
  return { state: cutState(print, cut, shape), print, cut };
}
