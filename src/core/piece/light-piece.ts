import { fail, ok, type Result } from '../result';
import type { GrayImage, Pixel } from '../scan/gray';
import type { PieceProblem } from './piece-reading';

/** A piece in a small picture: its outline pixel by pixel, clockwise as the picture shows it, and the levels either side. */
export interface LightPiece {
  readonly outline: readonly Pixel[];
  readonly ground: number;
  readonly light: number;
}

/** The rim of a picture that is taken for ground, as a share of its shorter side. */
const RIM_SHARE = 0.02;
/** Of all pixels so many may be brighter than the piece's border: glints. */
const LIGHT_SHARE = 0.98;
const LEAST_CONTRAST = 60;
const LEAST_AREA_SHARE = 0.03;

/** The level below which lies a share of some pixels. */
function levelAt(counts: Float64Array, share: number): number {
  const total = counts.reduce((sum, n) => sum + n, 0);
  let seen = 0;
  for (let level = 0; level < counts.length; level++) {
    seen += counts[level]!;
    if (seen >= share * total) return level;
  }
  return counts.length - 1;
}

function levelsOf({ width, height, data }: GrayImage): { readonly ground: number; readonly light: number } {
  const rim = Math.max(1, Math.round(RIM_SHARE * Math.min(width, height)));
  const [all, rims] = [new Float64Array(256), new Float64Array(256)];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const level = data[y * width + x]!;
      all[level]! += 1;
      if (x < rim || y < rim || x >= width - rim || y >= height - rim) rims[level]! += 1;
    }
  return { ground: levelAt(rims, 0.5), light: levelAt(all, LIGHT_SHARE) };
}

const GROUND = 1;
const PATCH = 2;

/** Marks all pixels that hang together with the given ones and are wanted; how many they are. */
function flood(
  { width, height }: GrayImage,
  { marks, mark, isWanted }: { marks: Int32Array; mark: number; isWanted: (at: number) => boolean },
  from: readonly number[],
): number {
  const stack = from.filter((at) => marks[at] === 0 && isWanted(at));
  for (const at of stack) marks[at] = mark;
  let count = 0;
  const visit = (at: number): void => {
    if (marks[at] !== 0 || !isWanted(at)) return;
    marks[at] = mark;
    stack.push(at);
  };
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    count++;
    const x = at % width;
    if (x > 0) visit(at - 1);
    if (x + 1 < width) visit(at + 1);
    if (at >= width) visit(at - width);
    if (at < width * (height - 1)) visit(at + width);
  }
  return count;
}

function rimOf({ width, height }: GrayImage): readonly number[] {
  const across = Array.from({ length: width }, (_, x) => [x, (height - 1) * width + x]);
  const along = Array.from({ length: height }, (_, y) => [y * width, y * width + width - 1]);
  return [...across, ...along].flat();
}

/** East, south-east, ... clockwise as the picture shows it. */
const WAYS = [
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
  [0, -1],
  [1, -1],
] as const;

/** Follows the outline of the marked pixels from their first one, with the hand on the wall (Moore's neighbourhood). */
function outlineOf({ width, height }: GrayImage, isIn: (at: number) => boolean, first: number): readonly Pixel[] {
  const inside = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < width && y < height && isIn(y * width + x);
  const [startX, startY] = [first % width, Math.floor(first / width)];
  let [x, y, way] = [startX, startY, 7];
  const outline: Pixel[] = [];
  do {
    outline.push({ x: x + 0.5, y: y + 0.5 });
    // Two ways back to the left of where it came from, then round to the right.
    let turn = 0;
    let next = (way + 6) % 8;
    while (turn < 8 && !inside(x + WAYS[next]![0], y + WAYS[next]![1])) {
      next = (next + 1) % 8;
      turn++;
    }
    if (turn === 8) break;
    way = next;
    x += WAYS[way]![0];
    y += WAYS[way]![1];
  } while ((x !== startX || y !== startY) && outline.length < 4 * (width + height));
  return outline;
}

/**
 * The largest thing on the ground that does not reach the picture's rim, with all that it encloses: print that is as dark
 * as the ground belongs to it as long as a light border runs all round.
 * @param image small enough to be looked at as a whole, large enough that the border is two pixels wide.
 */
export function findLightPiece(image: GrayImage): Result<LightPiece, PieceProblem> {
  const { width, height, data } = image;
  const { ground, light } = levelsOf(image);
  if (light - ground < LEAST_CONTRAST) return fail({ kind: 'no-contrast' });
  const threshold = (ground + light) / 2;
  const marks = new Int32Array(width * height);
  flood(image, { marks, mark: GROUND, isWanted: (at) => data[at]! < threshold }, rimOf(image));
  // What reaches the rim is no piece that is wholly seen.
  const reaching = flood(image, { marks, mark: GROUND, isWanted: () => true }, rimOf(image));
  let best = { first: -1, area: 0, mark: 0 };
  let mark = PATCH;
  for (let at = 0; at < marks.length; at++) {
    if (marks[at] !== 0) continue;
    const area = flood(image, { marks, mark, isWanted: () => true }, [at]);
    if (area > best.area) best = { first: at, area, mark };
    mark++;
  }
  if (best.area < LEAST_AREA_SHARE * marks.length)
    return fail({ kind: reaching > LEAST_AREA_SHARE * marks.length ? 'reaches-rim' : 'no-piece' });
  return ok({ outline: outlineOf(image, (at) => marks[at] === best.mark, best.first), ground, light });
}
