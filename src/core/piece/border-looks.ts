import { brightnessAlong, type GrayImage, type Pixel } from '../scan/gray';
import type { LightPiece } from './light-piece';

/** A look from outside the outline inward: where the light begins and where, further in, it ends. */
export interface EdgeLook {
  readonly cut: Pixel;
  readonly print: Pixel | null;
  /** Outward, of length one, y down as in the picture. */
  readonly outward: Pixel;
}

/** Looks all round. */
const LOOKS = 400;
/** The outline's direction is taken from so much of it on either side, as a share of its length. */
const TANGENT_SHARE = 0.008;
/** Pixels of the small picture that the outline may be wrong by. */
const OUTSIDE_PX = 4;
/** Print is looked for up to this share of the piece's smaller extent. */
const DEEPEST_SHARE = 0.35;
const STEP_PX = 0.5;
/** Print that is darker than the border by less than this share of border against ground is not seen. */
const PRINT_SHARE = 0.12;
/** Means are compared over so many pixels either side, wider where pixels are small. */
const LEAST_REACH_PX = 2;
const REACH_MM_PIXELS = 0.12;

interface Profile {
  readonly levels: Float64Array;
  /** Running sums: entry i is of all before i. */
  readonly sums: Float64Array;
}

function summed({ levels, sums }: Profile): void {
  for (let i = 0; i < levels.length; i++) sums[i + 1] = sums[i]! + levels[i]!;
}

/** Of the samples from .. to (not itself), kept within what there is. */
function meanOf({ sums }: Profile, from: number, to: number): number {
  const [a, b] = [Math.max(0, from), Math.min(sums.length - 1, to)];
  return b > a ? (sums[b]! - sums[a]!) / (b - a) : NaN;
}

/** How much it rises about a sample, falls negative. */
const riseAt = (profile: Profile, at: number, reach: number): number =>
  meanOf(profile, at, at + reach) - meanOf(profile, at - reach, at);

/** Between which samples it goes through half of the way from one side's level to the other's, nearest to a sample. */
function halfWay(profile: Profile, at: number, reach: number): number | null {
  const before = meanOf(profile, at - 2 * reach, at - reach);
  const after = meanOf(profile, at + reach, at + 2 * reach);
  if (!Number.isFinite(before) || !Number.isFinite(after)) return null;
  const [half, sign] = [(before + after) / 2, Math.sign(after - before)];
  for (let k = 0; k <= 2 * reach; k++)
    for (const i of [at - k, at + k]) {
      const [a, b] = [profile.levels[i - 1], profile.levels[i]];
      if (a === undefined || b === undefined) continue;
      if (sign * (a - half) < 0 && sign * (b - half) >= 0) return i - 1 + (half - a) / (b - a);
    }
  return null;
}

/** The first sample from one on about which it rises (or falls) most, by at least so much. */
function firstStep(
  profile: Profile,
  { from, sign, least, reach }: { from: number; sign: 1 | -1; least: number; reach: number },
): number | null {
  let best = { at: -1, rise: least };
  for (let at = from; at + reach <= profile.levels.length; at++) {
    const rise = sign * riseAt(profile, at, reach);
    if (rise > best.rise) best = { at, rise };
    else if (best.at >= 0 && at > best.at + reach) break;
  }
  return best.at < 0 ? null : best.at;
}

/** Outline points at even distances, with the direction outward there. */
function stationsOf(outline: readonly Pixel[]): readonly { readonly at: Pixel; readonly outward: Pixel }[] {
  const n = outline.length;
  const reach = Math.max(3, Math.round(TANGENT_SHARE * n));
  const mean = (from: number): Pixel => {
    const points = Array.from({ length: reach }, (_, k) => outline[(from + k + n) % n]!);
    return {
      x: points.reduce((sum, p) => sum + p.x, 0) / reach,
      y: points.reduce((sum, p) => sum + p.y, 0) / reach,
    };
  };
  const count = Math.min(LOOKS, n);
  return Array.from({ length: count }, (_, k) => {
    const i = Math.floor(((k + 0.5) * n) / count);
    const [before, after] = [mean(i - reach), mean(i + 1)];
    const [tx, ty] = [after.x - before.x, after.y - before.y];
    const length = Math.hypot(tx, ty) || 1;
    // Clockwise as the picture shows it: outside is to the left of the way.
    return { at: outline[i]!, outward: { x: ty / length, y: -tx / length } };
  });
}

function extentOf(outline: readonly Pixel[]): number {
  const [xs, ys] = [outline.map((p) => p.x), outline.map((p) => p.y)];
  return Math.min(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}

/**
 * Looks across the border all round a piece, in the whole picture. A look without a clear outer edge is left out.
 * @param factor pixels of the whole picture a pixel of the small one in which the piece was found.
 */
export function borderLooks(
  image: GrayImage,
  { outline, ground, light }: LightPiece,
  factor: number,
  pixelsPerMm: number,
): readonly EdgeLook[] {
  const outsidePx = OUTSIDE_PX * factor;
  const samples = Math.ceil((outsidePx + DEEPEST_SHARE * extentOf(outline) * factor) / STEP_PX);
  const levels = new Float64Array(samples);
  const profile: Profile = { levels, sums: new Float64Array(samples + 1) };
  const reach = Math.round(Math.max(LEAST_REACH_PX, REACH_MM_PIXELS * pixelsPerMm) / STEP_PX);
  return stationsOf(outline).flatMap(({ at, outward }): readonly EdgeLook[] => {
    const start = { x: at.x * factor + outsidePx * outward.x, y: at.y * factor + outsidePx * outward.y };
    const [dx, dy] = [-STEP_PX * outward.x, -STEP_PX * outward.y];
    brightnessAlong(image, { ...start, dx, dy }, levels);
    summed(profile);
    const placeOf = (sample: number): Pixel => ({ x: start.x + sample * dx, y: start.y + sample * dy });
    const outer = firstStep(profile, { from: reach, sign: 1, least: (light - ground) / 4, reach });
    const cut = outer === null ? null : halfWay(profile, outer, reach);
    if (outer === null || cut === null) return [];
    const inner = firstStep(profile, { from: outer + reach, sign: -1, least: PRINT_SHARE * (light - ground), reach });
    const print = inner === null ? null : halfWay(profile, inner, reach);
    return [{ cut: placeOf(cut), print: print === null ? null : placeOf(print), outward }];
  });
}
