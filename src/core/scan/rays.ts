import type { GrayImage } from './gray';
import { brightnessIn, pixelsPerMm, type LocalView } from './local-view';
import type { EdgePoints } from './circle-fit';

export interface RaySearch {
  /** Middle of the rays against the view's own, mm. */
  readonly x: number;
  readonly y: number;
  readonly fromMm: number;
  readonly toMm: number;
  /** Which side is dark: inside a printed disc, outside a hole in it. */
  readonly darkSide: 'inside' | 'outside';
  /** A step smaller than this is no edge. */
  readonly leastStep: number;
}

const MOST_RAYS = 360;
/** Plateaus that tell how bright either side is begin and end so far from the edge, mm. */
const PLATEAU_FROM_MM = 0.2;
const PLATEAU_TO_MM = 0.4;
/** Samples are averaged over this much on either side to find the strongest step, mm. */
const STEP_REACH_MM = 0.15;

/** Ten rays a mm of the circle, 60 to 360: as many as ragged ink has anything to say. */
export const rayCount = (radiusMm: number): number =>
  Math.min(MOST_RAYS, Math.max(60, Math.round(2 * Math.PI * radiusMm * 10)));

/** Mean of profile[from .. to), within its bounds; NaN when nothing is left. */
function meanOf(profile: Float64Array, from: number, to: number): number {
  const [first, last] = [Math.max(0, from), Math.min(profile.length, to)];
  if (last <= first) return NaN;
  let sum = 0;
  for (let i = first; i < last; i++) sum += profile[i]!;
  return sum / (last - first);
}

/** Where a profile that rises crosses half way between its plateaus, in samples; NaN when there is no clear step. */
function risingEdge(profile: Float64Array, stepMm: number, leastStep: number): number {
  const reach = Math.max(1, Math.round(STEP_REACH_MM / stepMm));
  let best = leastStep;
  let at = -1;
  for (let i = reach; i + reach <= profile.length; i++) {
    const rise = meanOf(profile, i, i + reach) - meanOf(profile, i - reach, i);
    if (rise <= best) continue;
    best = rise;
    at = i;
  }
  if (at < 0) return NaN;
  const [near, far] = [Math.round(PLATEAU_FROM_MM / stepMm), Math.max(Math.round(PLATEAU_TO_MM / stepMm), 1)];
  const low = meanOf(profile, at - far, at - near);
  const high = meanOf(profile, at + near, at + far);
  if (!(high - low > leastStep)) return NaN;
  return crossing(profile, at, (low + high) / 2, reach + 1);
}

/** The crossing of a level nearest to a sample, looked for on both sides of it. */
function crossing(profile: Float64Array, at: number, level: number, reach: number): number {
  for (let k = 0; k <= reach; k++)
    for (const i of k === 0 ? [at] : [at - k, at + k]) {
      const [a, b] = [profile[i - 1], profile[i]];
      if (a !== undefined && b !== undefined && a < level && b >= level) return i - 1 + (level - a) / (b - a);
    }
  return NaN;
}

/**
 * Edge points round a middle: on every ray the strongest step from dark to light (or light to dark), at half the height
 * between its plateaus. Rays run in the sheet's own mm, so that turn, mirror image and unequal scales fall out.
 */
export function edgePoints(image: GrayImage, view: LocalView, search: RaySearch, radiusMm: number): EdgePoints {
  const perMm = pixelsPerMm(view);
  const stepMm = Math.max(0.25 / perMm, 0.02);
  const rays = rayCount(radiusMm);
  const samples = Math.ceil((search.toMm - search.fromMm) / stepMm) + 1;
  const profile = new Float64Array(samples);
  const angles = new Float64Array(rays);
  const radii = new Float64Array(rays);
  const isInward = search.darkSide === 'outside';
  let count = 0;
  for (let ray = 0; ray < rays; ray++) {
    const angle = (2 * Math.PI * ray) / rays;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    for (let i = 0; i < samples; i++) {
      // From dark to light either way.
      const r = isInward ? search.toMm - i * stepMm : search.fromMm + i * stepMm;
      profile[i] = brightnessIn(image, view, search.x + r * cos, search.y + r * sin);
    }
    const at = risingEdge(profile, stepMm, search.leastStep);
    if (!Number.isFinite(at)) continue;
    angles[count] = angle;
    radii[count++] = isInward ? search.toMm - at * stepMm : search.fromMm + at * stepMm;
  }
  return { angles, radii, count };
}
