import { normalQuantile } from '../math/normal-quantile';
import type { GrayImage, RaySteps } from './gray';

/** How bright either side of an edge is. */
export interface EdgeLevels {
  readonly dark: number;
  readonly light: number;
}

const STEPS = 512;
/** Beyond these shares the noise of a pixel says more than the blur. */
const LEAST_SHARE = 0.01;

/**
 * How far a share of light lies from the middle of a bell-shaped blur, in its standard deviations: along a straight edge it
 * grows evenly, where brightness itself bends. Entry i is for the share i / 512.
 */
const BLURS = Float64Array.from({ length: STEPS + 1 }, (_, i) =>
  normalQuantile(Math.min(1 - LEAST_SHARE, Math.max(LEAST_SHARE, i / STEPS))),
);

/** Distance from the edge in blurs at a place between pixels, from the four around it; light side positive. */
function blursAt({ width, height, data }: GrayImage, { dark, light }: EdgeLevels, x: number, y: number): number {
  const px = Math.min(Math.max(x - 0.5, 0), width - 1);
  const py = Math.min(Math.max(y - 0.5, 0), height - 1);
  const [x0, y0] = [px | 0, py | 0];
  const [fx, fy] = [px - x0, py - y0];
  const at = y0 * width + x0;
  const right = x0 + 1 < width ? 1 : 0;
  const below = y0 + 1 < height ? width : 0;
  const perLevel = STEPS / (light - dark);
  const blurs = (level: number): number =>
    BLURS[Math.min(STEPS, Math.max(0, Math.round((level - dark) * perLevel)))] ?? 0;
  const upper = blurs(data[at] ?? 0) * (1 - fx) + blurs(data[at + right] ?? 0) * fx;
  const lower = blurs(data[at + below] ?? 0) * (1 - fx) + blurs(data[at + below + right] ?? 0) * fx;
  return upper + fy * (lower - upper);
}

/** A look to either side, and how often it is looked again from the place found. */
const LOOK_PX = 0.25;
const LOOKS = 3;
/** Less rise than this over a look is no edge any more, in blurs; and further off than this it is another one, pixels. */
const LEAST_RISE = 0.5;
const FURTHEST_PX = 0.75;

/**
 * An edge placed between pixels, from where half its height was crossed. Where pixels are coarser than the blur, a straight line
 * from one pixel's brightness to the next crosses the half up to a tenth of a pixel beside the edge, alike all along the
 * stretches where a circle runs with the rows: told in blurs it does not.
 * @param at where along the ray, in its steps.
 * @returns the same, `at` itself where the picture says no more.
 */
export function betweenPixels(image: GrayImage, { x, y, dx, dy }: RaySteps, at: number, levels: EdgeLevels): number {
  const perPixel = 1 / Math.hypot(dx, dy);
  const half = LOOK_PX * perPixel;
  const along = (t: number): number => blursAt(image, levels, x + t * dx, y + t * dy);
  let found = at;
  for (let look = 0; look < LOOKS; look++) {
    const [before, after] = [along(found - half), along(found + half)];
    if (!(after - before > LEAST_RISE)) return found;
    const next = found - (half * (before + after)) / (after - before);
    if (Math.abs(next - at) > FURTHEST_PX * perPixel) return found;
    found = next;
  }
  return found;
}
