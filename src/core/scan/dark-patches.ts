import type { GrayImage, Pixel } from './gray';
import { thresholdRow, type DarkLevels } from './local-white';

/** A patch of dark pixels that hang together (also corner to corner). */
export interface DarkPatch {
  readonly areaPx: number;
  readonly left: number;
  readonly top: number;
  /** Width and height of its box. */
  readonly width: number;
  readonly height: number;
  readonly centre: Pixel;
}

/** Sums that grow while runs of dark pixels are joined; one row of numbers a patch. */
const FIELDS = 7;
const [AREA, SUM_X, SUM_Y, LEFT, RIGHT, TOP, BOTTOM] = [0, 1, 2, 3, 4, 5, 6] as const;
const SUMMED = [AREA, SUM_X, SUM_Y] as const;

/** Patches by number: which one each has been joined to, and their sums. */
interface Patches {
  parents: Int32Array;
  sums: Float64Array;
  count: number;
}

const noPatches = (): Patches => ({ parents: new Int32Array(1024), sums: new Float64Array(1024 * FIELDS), count: 0 });

function grow(patches: Patches): void {
  const parents = new Int32Array(patches.parents.length * 2);
  parents.set(patches.parents);
  const sums = new Float64Array(patches.sums.length * 2);
  sums.set(patches.sums);
  patches.parents = parents;
  patches.sums = sums;
}

/** A new patch without pixels; its number. */
function addPatch(patches: Patches): number {
  if (patches.count === patches.parents.length) grow(patches);
  const own = patches.count++;
  patches.parents[own] = own;
  const at = own * FIELDS;
  patches.sums[at + LEFT] = Infinity;
  patches.sums[at + TOP] = Infinity;
  patches.sums[at + RIGHT] = -Infinity;
  patches.sums[at + BOTTOM] = -Infinity;
  return own;
}

/** The patch that one has been joined to; the way there is cut short for the next time. */
function rootOf({ parents }: Patches, patch: number): number {
  let root = patch;
  while (parents[root]! !== root) root = parents[root]!;
  for (let at = patch; at !== root;) {
    const next = parents[at]!;
    parents[at] = root;
    at = next;
  }
  return root;
}

function join(patches: Patches, a: number, b: number): void {
  const [one, other] = [rootOf(patches, a), rootOf(patches, b)];
  if (one === other) return;
  const [from, into] = [Math.max(one, other), Math.min(one, other)];
  patches.parents[from] = into;
  const [f, t] = [from * FIELDS, into * FIELDS];
  const { sums } = patches;
  for (const field of SUMMED) sums[t + field]! += sums[f + field]!;
  sums[t + LEFT] = Math.min(sums[t + LEFT]!, sums[f + LEFT]!);
  sums[t + TOP] = Math.min(sums[t + TOP]!, sums[f + TOP]!);
  sums[t + RIGHT] = Math.max(sums[t + RIGHT]!, sums[f + RIGHT]!);
  sums[t + BOTTOM] = Math.max(sums[t + BOTTOM]!, sums[f + BOTTOM]!);
}

/** Adds a run of dark pixels, from..to (not itself) of row y. */
function takeRun(patches: Patches, patch: number, { from, to }: Run, y: number): void {
  const at = rootOf(patches, patch) * FIELDS;
  const { sums } = patches;
  const n = to - from;
  // Every pixel counts at its middle.
  const middle = (from + to) / 2;
  const row = y + 0.5;
  sums[at + AREA]! += n;
  sums[at + SUM_X]! += n * middle;
  sums[at + SUM_Y]! += n * row;
  sums[at + LEFT] = Math.min(sums[at + LEFT]!, from);
  sums[at + RIGHT] = Math.max(sums[at + RIGHT]!, to);
  sums[at + TOP] = Math.min(sums[at + TOP]!, y);
  sums[at + BOTTOM] = Math.max(sums[at + BOTTOM]!, y + 1);
}

function patchOf({ sums }: Patches, i: number): DarkPatch {
  const sum = (field: number): number => sums[i * FIELDS + field]!;
  return {
    areaPx: sum(AREA),
    left: sum(LEFT),
    top: sum(TOP),
    width: sum(RIGHT) - sum(LEFT),
    height: sum(BOTTOM) - sum(TOP),
    centre: { x: sum(SUM_X) / sum(AREA), y: sum(SUM_Y) / sum(AREA) },
  };
}

interface Run {
  readonly from: number;
  readonly to: number;
}

/** Runs of one row, as three columns. */
interface Runs {
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly patch: Int32Array;
  count: number;
}

const runsFor = (width: number): Runs => {
  const most = (width >> 1) + 1;
  return { from: new Int32Array(most), to: new Int32Array(most), patch: new Int32Array(most), count: 0 };
};

/** Dark runs of one row: from..to (not itself). */
function findRuns(row: Uint8Array, threshold: Uint8Array, runs: Runs): void {
  const { from, to } = runs;
  const width = row.length;
  let count = 0;
  for (let x = 0; x < width; x++) {
    if (row[x]! >= threshold[x]!) continue;
    from[count] = x;
    while (x < width && row[x]! < threshold[x]!) x++;
    to[count++] = x;
  }
  runs.count = count;
}

/** Gives every run of a row the patch of the runs above that it touches, which become one, or a new one. */
function joinToRowAbove(patches: Patches, above: Runs, here: Runs, y: number): void {
  let first = 0;
  for (let i = 0; i < here.count; i++) {
    const run = { from: here.from[i]!, to: here.to[i]! };
    // Runs above that end before this one begins touch none of those that follow either.
    while (first < above.count && above.to[first]! < run.from) first++;
    let patch = -1;
    for (let k = first; k < above.count && above.from[k]! <= run.to; k++) {
      if (patch < 0) patch = above.patch[k]!;
      else join(patches, patch, above.patch[k]!);
    }
    if (patch < 0) patch = addPatch(patches);
    takeRun(patches, patch, run, y);
    here.patch[i] = patch;
  }
}

/** Blocks are many rows high: the threshold of so many is taken for the same. */
const ROWS_ALIKE = 4;

/** All patches that are darker than the threshold thereabouts, of at least so many pixels. */
export function darkPatches(image: GrayImage, levels: DarkLevels, leastAreaPx: number): readonly DarkPatch[] {
  const { width, height, data } = image;
  const patches = noPatches();
  const threshold = new Uint8Array(width);
  let above = runsFor(width);
  let here = runsFor(width);
  for (let y = 0; y < height; y++) {
    if (y % ROWS_ALIKE === 0) thresholdRow(levels, y, threshold);
    findRuns(data.subarray(y * width, (y + 1) * width), threshold, here);
    joinToRowAbove(patches, above, here, y);
    [above, here] = [here, above];
  }
  const found: DarkPatch[] = [];
  for (let i = 0; i < patches.count; i++)
    if (patches.parents[i] === i && patches.sums[i * FIELDS]! >= leastAreaPx) found.push(patchOf(patches, i));
  return found;
}
