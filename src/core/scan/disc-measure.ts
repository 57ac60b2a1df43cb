import type { Rng } from '../math/random';
import { fitCircle, type CircleFit, type EdgePoints } from './circle-fit';
import type { GrayImage } from './gray';
import { brightnessIn, pixelsPerMm, type LocalView } from './local-view';
import { edgePoints, rayCount } from './rays';

/** What was found of a disc and the hole in it. */
export const DISC_STATES = ['good', 'partial', 'not-weeded', 'bad-cut', 'missing'] as const;
export type DiscState = (typeof DISC_STATES)[number];

/** States in which a disc tells a displacement. */
export type MeasuredState = 'good' | 'partial';
export const isMeasured = (state: DiscState): state is MeasuredState => state === 'good' || state === 'partial';

export interface DiscSize {
  readonly radiusMm: number;
  readonly holeRadiusMm: number;
}

/** A circle's edge as it was sampled, so that it can be fitted again with what the whole sheet knows of its size. */
export interface SampledEdge {
  readonly points: EdgePoints;
  /** Middle of the rays, mm from the figure's expected place. */
  readonly x: number;
  readonly y: number;
  readonly rays: number;
  readonly expectedRadiusMm: number;
  readonly toleranceMm: number;
  readonly fit: CircleFit;
}

export interface MeasuredDisc {
  readonly state: DiscState;
  readonly print: SampledEdge | null;
  readonly cut: SampledEdge | null;
}

/** How far a print may lie from where the page puts it, and a cut from its print. */
const PRINT_WINDOW_MM = 0.9;
const CUT_WINDOW_MM = 1;
const LEAST_CONTRAST = 20;
const STEP_SHARE = 0.3;
const TOLERANCE_MM = 0.06;
const TOLERANCE_PX = 0.6;
/** A radius is known beforehand to this much: ink gains, knives drag. */
const RADIUS_SD_MM = 0.2;

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

function sortedRound(image: GrayImage, view: LocalView, radiusMm: number): readonly number[] {
  return Array.from({ length: 48 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 48;
    return brightnessIn(image, view, radiusMm * Math.cos(angle), radiusMm * Math.sin(angle));
  }).sort((a, b) => a - b);
}

/** Ink between the hole and the edge, paper between the edge and the dots: the more usual of what is seen there. */
function levelsOf(image: GrayImage, view: LocalView, { radiusMm, holeRadiusMm }: DiscSize): Levels {
  const wall = radiusMm - holeRadiusMm;
  return {
    ink: sortedRound(image, view, radiusMm - 0.2 * wall)[16]!,
    paper: sortedRound(image, view, radiusMm + 0.4)[30]!,
  };
}

interface EdgeOrder {
  readonly image: GrayImage;
  readonly view: LocalView;
  readonly leastStep: number;
  readonly rng: Rng;
}

interface EdgeWanted {
  readonly radiusMm: number;
  readonly windowMm: number;
  readonly darkSide: 'inside' | 'outside';
}

/** Enough to find the middle, before it is measured. */
const FIRST_RAYS = 120;

/** Looks twice: the second time from the middle found, through a narrower window. */
function edgeAbout(
  order: EdgeOrder,
  wanted: EdgeWanted,
  start: { readonly x: number; readonly y: number },
): SampledEdge | null {
  const { image, view, leastStep, rng } = order;
  const perMm = pixelsPerMm(view);
  const toleranceMm = Math.max(TOLERANCE_MM, TOLERANCE_PX / perMm);
  let [x, y, radiusMm, windowMm] = [start.x, start.y, wanted.radiusMm, wanted.windowMm];
  let edge: SampledEdge | null = null;
  for (let look = 0; look < 2; look++) {
    const fromMm = Math.max(0.1, radiusMm - windowMm);
    const rays = look === 0 ? FIRST_RAYS : rayCount(radiusMm);
    const search = { x, y, fromMm, toMm: radiusMm + windowMm, darkSide: wanted.darkSide, leastStep, rays };
    const points = edgePoints(image, view, search);
    const fit = fitCircle(points, { expectedRadiusMm: wanted.radiusMm, radiusSdMm: RADIUS_SD_MM, toleranceMm, rng });
    if (!fit) return look === 0 ? null : edge;
    edge = { points, x, y, rays, expectedRadiusMm: wanted.radiusMm, toleranceMm, fit };
    [x, y, radiusMm, windowMm] = [x + fit.x, y + fit.y, fit.radiusMm, Math.max(0.6, 4 / perMm)];
  }
  return edge;
}

/** Where the light part of a disc lies and how large it is. */
function openPart(
  { image, view }: EdgeOrder,
  { x: x0, y: y0 }: { readonly x: number; readonly y: number },
  reachMm: number,
  level: number,
): { readonly areaMm2: number; readonly x: number; readonly y: number } {
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

const inlierShare = ({ fit, rays }: SampledEdge): number => fit.inlierCount / rays;

function isPrintFound(print: SampledEdge | null): print is SampledEdge {
  return print !== null && inlierShare(print) >= PRINT_LEAST_INLIERS && print.fit.largestGapRad <= PRINT_MOST_GAP_RAD;
}

function cutState(print: SampledEdge, cut: SampledEdge | null, { holeRadiusMm }: DiscSize): DiscState {
  const isBad =
    !cut ||
    inlierShare(cut) < CUT_LEAST_INLIERS ||
    cut.fit.largestGapRad > CUT_MOST_GAP_RAD ||
    Math.abs(cut.fit.radiusMm / holeRadiusMm - 1) > CUT_RADIUS_SHARE;
  if (isBad) return 'bad-cut';
  return Math.min(inlierShare(cut), inlierShare(print)) < GOOD_INLIERS ? 'partial' : 'good';
}

/** Measures the printed disc where the page puts it, and the weeded hole in it. */
export function measureDisc(image: GrayImage, view: LocalView, size: DiscSize, rng: Rng): MeasuredDisc {
  const { ink, paper } = levelsOf(image, view, size);
  const missing: MeasuredDisc = { state: 'missing', print: null, cut: null };
  if (paper - ink < LEAST_CONTRAST) return missing;
  const order: EdgeOrder = { image, view, leastStep: STEP_SHARE * (paper - ink), rng };
  const outer: EdgeWanted = { radiusMm: size.radiusMm, windowMm: PRINT_WINDOW_MM, darkSide: 'inside' };
  const print = edgeAbout(order, outer, { x: 0, y: 0 });
  if (!isPrintFound(print)) return missing;
  const middle = { x: print.x + print.fit.x, y: print.y + print.fit.y };
  const open = openPart(order, middle, print.fit.radiusMm - 0.35, (ink + paper) / 2);
  const openShare = open.areaMm2 / (Math.PI * size.holeRadiusMm ** 2);
  if (openShare < LEAST_OPEN) return { state: 'not-weeded', print, cut: null };
  const inner: EdgeWanted = { radiusMm: size.holeRadiusMm, windowMm: CUT_WINDOW_MM, darkSide: 'outside' };
  const cut = edgeAbout(order, inner, open);
  return { state: cutState(print, cut, size), print, cut };
}

/** The same edge fitted with a radius known from the whole sheet. */
export function refitted(edge: SampledEdge, radiusMm: number, radiusSdMm: number, rng: Rng): SampledEdge {
  const { points, toleranceMm } = edge;
  const fit = fitCircle(points, { expectedRadiusMm: radiusMm, radiusSdMm, toleranceMm, rng });
  return fit ? { ...edge, fit } : edge;
}
