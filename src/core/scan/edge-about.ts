import type { Rng } from '../math/random';
import { fitCircle, type CircleFit, type EdgePoints } from './circle-fit';
import type { GrayImage } from './gray';
import { pixelsPerMm, type LocalView } from './local-view';
import { edgePoints, rayCount, type EdgeKind } from './rays';

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

export interface EdgeOrder {
  readonly image: GrayImage;
  readonly view: LocalView;
  /** Ink and paper differ by so much. */
  readonly contrast: number;
  readonly rng: Rng;
}

export interface EdgeWanted {
  readonly radiusMm: number;
  /** Where the first look begins and ends, mm from its middle. */
  readonly fromMm: number;
  readonly toMm: number;
  readonly kind: EdgeKind;
}

/** A step of less than this share of the contrast is no edge; a thin line takes in as much paper as ink. */
const STEP_SHARE = 0.3;
const LINE_SHARE = 0.08;
const TOLERANCE_MM = 0.06;
const TOLERANCE_PX = 0.6;
/** A radius is known beforehand to this much: ink gains, knives drag. */
const RADIUS_SD_MM = 0.2;
/** Enough to find the middle, before it is measured. */
const FIRST_RAYS = 120;
const SECOND_WINDOW_MM = 0.6;

export const inlierShare = ({ fit, rays }: SampledEdge): number => fit.inlierCount / rays;

/** Where a circle is, looked at twice: the second time from the middle found, through a narrower window. */
export function edgeAbout(
  { image, view, contrast, rng }: EdgeOrder,
  { radiusMm: expectedRadiusMm, fromMm, toMm, kind }: EdgeWanted,
  start: { readonly x: number; readonly y: number },
): SampledEdge | null {
  const perMm = pixelsPerMm(view);
  const toleranceMm = Math.max(TOLERANCE_MM, TOLERANCE_PX / perMm);
  const leastStep = (kind === 'line' ? LINE_SHARE : STEP_SHARE) * contrast;
  let look = { x: start.x, y: start.y, fromMm, toMm };
  let edge: SampledEdge | null = null;
  for (const rays of [FIRST_RAYS, rayCount(expectedRadiusMm)]) {
    const points = edgePoints(image, view, { ...look, kind, leastStep, rays });
    const fit = fitCircle(points, { expectedRadiusMm, radiusSdMm: RADIUS_SD_MM, toleranceMm, rng });
    if (!fit) return edge;
    const { x, y } = look;
    edge = { points, x, y, rays, expectedRadiusMm, toleranceMm, fit };
    const windowMm = Math.max(SECOND_WINDOW_MM, 4 / perMm);
    const narrow = { fromMm: Math.max(0.1, fit.radiusMm - windowMm), toMm: fit.radiusMm + windowMm };
    look = { x: x + fit.x, y: y + fit.y, ...narrow };
  }
  return edge;
}

/** The same edge fitted with a radius known from the whole sheet. */
export function refitted(edge: SampledEdge, radiusMm: number, radiusSdMm: number, rng: Rng): SampledEdge {
  const { points, toleranceMm } = edge;
  const fit = fitCircle(points, { expectedRadiusMm: radiusMm, radiusSdMm, toleranceMm, rng });
  return fit ? { ...edge, fit } : edge;
}
