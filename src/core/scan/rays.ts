import { brightnessAlong, type GrayImage } from './gray';
import { pixelsPerMm, type LocalView } from './local-view';
import type { EdgePoints } from './circle-fit';
import { betweenPixels, type EdgeLevels } from './sub-pixel';

/** Which side of an edge is dark: inside a printed disc, outside a hole in it; or a dark line. */
export type EdgeKind = 'dark-inside' | 'dark-outside' | 'line';

export interface RaySearch {
  /** Middle of the rays against the view's own, mm. */
  readonly x: number;
  readonly y: number;
  readonly fromMm: number;
  readonly toMm: number;
  readonly kind: EdgeKind;
  /** A step smaller than this is no edge. */
  readonly leastStep: number;
  readonly rays: number;
}

const MOST_RAYS = 360;
/** Plateaus that tell how bright either side is begin and end so far from the edge, mm. */
const PLATEAU_FROM_MM = 0.2;
const PLATEAU_TO_MM = 0.4;
/** From so many pixels a mm on, edges spread over several of them and need not be placed between two. */
const FINE_PIXELS_PER_MM = 16;
/** Samples are averaged over this much on either side to find the strongest step, mm. */
const STEP_REACH_MM = 0.15;

/** Ten rays a mm of the circle, 60 to 360: as many as ragged ink has anything to say. */
export const rayCount = (radiusMm: number): number =>
  Math.min(MOST_RAYS, Math.max(60, Math.round(2 * Math.PI * radiusMm * 10)));

/** A profile's running sum: entry i is the sum of all samples before i. */
function sumsOf(profile: Float64Array, sums: Float64Array): void {
  let sum = 0;
  for (let i = 0; i < profile.length; i++) {
    sums[i] = sum;
    sum += profile[i]!;
  }
  sums[profile.length] = sum;
}

/** Mean of the samples from .. to (not itself), within their bounds; NaN when nothing is left. */
function meanOf(sums: Float64Array, from: number, to: number): number {
  const [first, last] = [Math.max(0, from), Math.min(sums.length - 1, to)];
  return last <= first ? NaN : (sums[last]! - sums[first]!) / (last - first);
}

/** Before which sample the profile rises most, its means over `reach` either side compared; -1 when nowhere by so much. */
function steepest(sums: Float64Array, reach: number, leastStep: number): number {
  let best = leastStep * reach;
  let at = -1;
  const end = sums.length - reach;
  for (let i = reach; i < end; i++) {
    const rise = sums[i + reach]! - 2 * sums[i]! + sums[i - reach]!;
    if (rise <= best) continue;
    best = rise;
    at = i;
  }
  return at;
}

/** Where along a ray an edge is, in samples; of a step also how bright its sides are. */
interface Place {
  readonly at: number;
  readonly levels?: EdgeLevels;
}

/** Where a profile that rises crosses half way between its plateaus; null when there is no clear step. */
function risingEdge(profile: Float64Array, sums: Float64Array, stepMm: number, leastStep: number): Place | null {
  const reach = Math.max(1, Math.round(STEP_REACH_MM / stepMm));
  sumsOf(profile, sums);
  const at = steepest(sums, reach, leastStep);
  if (at < 0) return null;
  const [near, far] = [Math.round(PLATEAU_FROM_MM / stepMm), Math.max(Math.round(PLATEAU_TO_MM / stepMm), 1)];
  const dark = meanOf(sums, at - far, at - near);
  const light = meanOf(sums, at + near, at + far);
  if (!(light - dark > leastStep)) return null;
  return { at: crossing(profile, at, (dark + light) / 2, reach + 1), levels: { dark, light } };
}

/** A line is looked for through a window of this half width; what lies so far from it to both sides tells how light its ground is, mm. */
const LINE_HALF_MM = 0.1;
const GROUND_FROM_MM = 0.3;
const GROUND_TO_MM = 0.45;
/** Of a line's depth, what is lighter is taken for ground. */
const LINE_GROUND_SHARE = 0.25;

/** Where a dark line on light ground has its middle; null where nothing is darker than both of its sides. */
function darkLine(profile: Float64Array, sums: Float64Array, stepMm: number, leastStep: number): Place | null {
  sumsOf(profile, sums);
  const half = Math.max(0, Math.round(LINE_HALF_MM / stepMm));
  const [near, far] = [Math.round(GROUND_FROM_MM / stepMm), Math.round(GROUND_TO_MM / stepMm)];
  let [best, at, ground] = [leastStep, -1, 0];
  for (let i = far; i < profile.length - far; i++) {
    const sides = Math.min(meanOf(sums, i - far, i - near), meanOf(sums, i + near + 1, i + far + 1));
    const depth = sides - meanOf(sums, i - half, i + half + 1);
    if (depth > best) [best, at, ground] = [depth, i, sides];
  }
  return at < 0 ? null : { at: middleOfDark(profile, at - near, at + near, ground) };
}

/** Middle of what is clearly darker than the ground between two samples. */
function middleOfDark(profile: Float64Array, from: number, to: number, ground: number): number {
  const span = profile.subarray(from, to + 1);
  const least = ground - LINE_GROUND_SHARE * (ground - Math.min(...span));
  let [sum, weighted] = [0, 0];
  span.forEach((level, i) => {
    const dark = Math.max(0, least - level);
    sum += dark;
    weighted += dark * (from + i);
  });
  return weighted / sum;
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
 * between its plateaus and then between pixels, or the middle of the darkest line. Rays run in the sheet's own mm, so that turn, mirror image and unequal scales fall out.
 */
export function edgePoints(image: GrayImage, view: LocalView, search: RaySearch): EdgePoints {
  const { x, y, fromMm, toMm, leastStep, rays } = search;
  const { centre, right, up } = view;
  const stepMm = Math.max(0.25 / pixelsPerMm(view), 0.02);
  const samples = Math.ceil((toMm - fromMm) / stepMm) + 1;
  const profile = new Float64Array(samples);
  const sums = new Float64Array(samples + 1);
  const angles = new Float64Array(rays);
  const radii = new Float64Array(rays);
  // From dark to light either way.
  const [start, step] = search.kind === 'dark-outside' ? [toMm, -stepMm] : [fromMm, stepMm];
  const place = search.kind === 'line' ? darkLine : risingEdge;
  const isCoarse = pixelsPerMm(view) < FINE_PIXELS_PER_MM;
  let count = 0;
  for (let ray = 0; ray < rays; ray++) {
    const angle = (2 * Math.PI * ray) / rays;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const [mmX, mmY] = [x + start * cos, y + start * sin];
    const steps = {
      x: centre.x + mmX * right.x + mmY * up.x,
      y: centre.y + mmX * right.y + mmY * up.y,
      dx: step * (cos * right.x + sin * up.x),
      dy: step * (cos * right.y + sin * up.y),
    };
    brightnessAlong(image, steps, profile);
    const edge = place(profile, sums, stepMm, leastStep);
    if (!edge || !Number.isFinite(edge.at)) continue;
    const at = edge.levels && isCoarse ? betweenPixels(image, steps, edge.at, edge.levels) : edge.at;
    angles[count] = angle;
    radii[count++] = start + at * step;
  }
  return { angles, radii, count };
}
