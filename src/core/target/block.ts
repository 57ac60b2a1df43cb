import { cornersOf, type Point } from '../geometry/affine';
import { fail, ok, type Result } from '../result';
import { sheetSize, type SheetName, type SheetSize } from '../units/sheet-size';

/** Axis-aligned box in block coordinates: origin at the block's lower left corner, x right, y up, mm. */
export interface Box {
  readonly left: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}

export interface RoughPlace {
  readonly x: number;
  readonly y: number;
  /** How far off a cut L is still seen on this grid. */
  readonly reachMm: number;
}

/** Where the figures of one sheet stand. In block coordinates but the marks, which are in the sheet frame. */
export interface Block {
  readonly name: string;
  readonly page: SheetSize;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly columnLeftsMm: readonly number[];
  readonly rowBottomsMm: readonly number[];
  readonly roughPlaces: readonly RoughPlace[];
  /** Absent where no room is left for the blade trail figure. */
  readonly trailCentre: { readonly x: number; readonly y: number } | null;
  readonly checkLineMm: number;
  /** Pairs of bars in the strip of reference gaps, 0.1 mm and up. */
  readonly gapCount: number;
  /** Half distances between our own marks' centres, route D: outside every cut line, so that no file coordinate is negative. */
  readonly markHalfX: number;
  readonly markHalfY: number;
}

export const CELL_WIDTH_MM = 36;
export const CELL_LENGTH_MM = 56;
/** Side of our own printed square marks (route D). */
export const OWN_MARK_MM = 8;
/** Farthest a rough grid reaches where there is room. */
export const ROUGH_REACH_MM = 12;
/** Where two cells leave less, the grid is made smaller, down to this reach. */
const LEAST_ROUGH_REACH_MM = 8;
export const TRAIL_WIDTH_MM = 20;
export const TRAIL_LENGTH_MM = 23;

/** Left of the cells: border, check line and its room. Below them: the strip with gaps, code and arrow. */
export const CELLS_LEFT_MM = 7;
export const CELLS_BOTTOM_MM = 11;
export const BORDER_ROOM_MM = 1;
/** Code 40 mm and arrow 10 mm wide, 4 mm between all. */
const STRIP_REST_MM = 58;
const STRIP_LEFT_MM = 8;
export const GAP_PITCH_MM = 7;

/** What the marks of a sheet take: their distance from the page's edge and their size. */
export interface MarkSpace {
  readonly insetMm: number;
  readonly sizeMm: number;
}

/** Inset and size that a sheet is laid out for when its marks are not known. Common practice, no published source. */
export const USUAL_MARKS: MarkSpace = { insetMm: 15.9, sizeMm: 14 };

export interface PageChoice extends SheetSize {
  readonly name: string;
}

export type BlockProblem = {
  readonly kind: 'page-too-small';
  readonly neededWidthMm: number;
  readonly neededLengthMm: number;
};

/** Whole even mm below, so that halves are whole and figures stand on plotter units. */
const evenBelow = (mm: number): number => 2 * Math.floor(mm / 2 + 1e-9);

/** Lower ends of three cells with room between them, or of two. Null when not even two fit. */
export function cellStarts(first: number, end: number, cell: number, between: number): readonly number[] | null {
  const last = end - cell;
  const room = last - first;
  if (room >= 2 * (cell + between)) return [first, (first + last) / 2, last];
  return room >= cell + between ? [first, last] : null;
}

/** Reach of a square grid that fits into a gap with 1 mm to either side, at most the usual one; 0 when it is too narrow. */
function reachIn(gapMm: number): number {
  const reach = Math.min(ROUGH_REACH_MM, Math.floor(gapMm / 2 - 1 + 1e-9));
  return reach >= LEAST_ROUGH_REACH_MM ? reach : 0;
}

type Places = Pick<Block, 'roughPlaces' | 'trailCentre'>;

interface Gap {
  readonly x: number;
  readonly widthMm: number;
  readonly reachMm: number;
}

/** The gaps between the columns of cells, left first. */
function gapsOf(columns: readonly number[]): readonly Gap[] {
  return columns.slice(1).map((right, i) => {
    const left = columns[i]! + CELL_WIDTH_MM;
    return { x: (left + right) / 2, widthMm: right - left, reachMm: reachIn(right - left) };
  });
}

const roughIn = (gap: Gap, y: number): RoughPlace => ({ x: gap.x, y, reachMm: gap.reachMm });

/** Three columns: grids low and high in the first gap, one in the second; the blade trail below that. */
function betweenThree(first: Gap, second: Gap, rowMiddles: readonly number[]): Places {
  const low = rowMiddles[0]!;
  const high = rowMiddles.at(-1)!;
  const aside = rowMiddles.length === 3 ? rowMiddles[1]! : high;
  return {
    roughPlaces: [roughIn(first, low), roughIn(second, aside), roughIn(first, high)],
    trailCentre: second.widthMm >= TRAIL_WIDTH_MM ? { x: second.x, y: low } : null,
  };
}

/** Two columns: grids low and high in the gap, a third beside it where the rows leave room; the blade trail between. */
function betweenTwo(gap: Gap, left: number, rows: readonly number[]): Places {
  const low = rows[0]! + CELL_LENGTH_MM / 2;
  const high = rows.at(-1)! + CELL_LENGTH_MM / 2;
  const rowGap = rows[1]! - rows[0]! - CELL_LENGTH_MM;
  const aside = { x: left + CELL_WIDTH_MM / 2, y: rows[0]! + CELL_LENGTH_MM + rowGap / 2, reachMm: reachIn(rowGap) };
  const hasTrail = gap.widthMm >= TRAIL_WIDTH_MM && high - low >= CELL_LENGTH_MM + TRAIL_LENGTH_MM;
  return {
    roughPlaces: [roughIn(gap, low), ...(aside.reachMm > 0 ? [aside] : []), roughIn(gap, high)],
    trailCentre: hasTrail ? { x: gap.x, y: (low + high) / 2 } : null,
  };
}

/** Rough grids in the gaps between columns, not on one line where that can be; the blade trail in a gap that is left. */
function betweenCells(columns: readonly number[], rows: readonly number[]): Places {
  const [first, second] = gapsOf(columns);
  if (!first) return { roughPlaces: [], trailCentre: null };
  if (!second) return betweenTwo(first, columns[0]!, rows);
  return betweenThree(
    first,
    second,
    rows.map((bottom) => bottom + CELL_LENGTH_MM / 2),
  );
}

/**
 * Lays a check sheet out on a page: the block of figures between the marks, three cells across and along where they fit,
 * else two. Corner marks stand above and below the block, so its width reaches to the inset and its length to the marks.
 * @returns the block, or what the page would have to measure at least.
 */
export function layOutBlock(page: PageChoice, marks: MarkSpace = USUAL_MARKS): Result<Block, BlockProblem> {
  const sideMm = 2 * (marks.insetMm + 1);
  const endMm = 2 * (marks.insetMm + marks.sizeMm + 0.5);
  const widthMm = evenBelow(page.widthMm - sideMm);
  const lengthMm = evenBelow(page.lengthMm - endMm);
  const leastGap = 2 * LEAST_ROUGH_REACH_MM + 2;
  const columns = cellStarts(CELLS_LEFT_MM, widthMm - BORDER_ROOM_MM, CELL_WIDTH_MM, leastGap);
  const rows = cellStarts(CELLS_BOTTOM_MM, lengthMm - BORDER_ROOM_MM, CELL_LENGTH_MM, 0);
  if (!columns || !rows) {
    return fail({
      kind: 'page-too-small',
      neededWidthMm: CELLS_LEFT_MM + 2 * CELL_WIDTH_MM + leastGap + BORDER_ROOM_MM + sideMm,
      neededLengthMm: CELLS_BOTTOM_MM + 2 * CELL_LENGTH_MM + BORDER_ROOM_MM + endMm,
    });
  }
  const halfEdge = { x: page.widthMm / 2, y: page.lengthMm / 2 };
  const markRoom = OWN_MARK_MM / 2 + 7;
  return ok({
    name: page.name,
    page: { widthMm: page.widthMm, lengthMm: page.lengthMm },
    widthMm,
    lengthMm,
    columnLeftsMm: columns,
    rowBottomsMm: rows,
    ...betweenCells(columns, rows),
    checkLineMm: Math.floor((lengthMm - 6) / 10) * 10,
    gapCount: Math.min(10, Math.floor((widthMm - BORDER_ROOM_MM - STRIP_LEFT_MM - STRIP_REST_MM) / GAP_PITCH_MM)),
    markHalfX: Math.floor(Math.min(widthMm / 2 + 6, halfEdge.x - markRoom)),
    markHalfY: Math.floor(Math.min(lengthMm / 2 + 17, halfEdge.y - markRoom)),
  });
}

/** The block of a standard sheet with the usual marks. */
export function blockNamed(name: SheetName): Block {
  const block = layOutBlock({ name, ...sheetSize(name) });
  if (!block.ok) throw new Error(`the ${name} sheet holds no block`);
  return block.value;
}

/** Boxes of the bottom strip, block coordinates: reference gaps, code, arrow. */
export function stripBoxes(block: Block): { readonly gaps: Box; readonly code: Box; readonly arrow: Box } {
  const codeLeft = STRIP_LEFT_MM + GAP_PITCH_MM * block.gapCount + 4;
  const strip = { bottom: 1.5, height: 9 };
  return {
    gaps: { left: STRIP_LEFT_MM, width: GAP_PITCH_MM * block.gapCount, ...strip },
    code: { left: codeLeft, width: 40, ...strip },
    arrow: { left: codeLeft + 44, width: 10, ...strip },
  };
}

/** Block coordinates (origin lower left) to the sheet frame (origin at the block's centre). */
export function blockToSheet(block: Block, x: number, y: number): Point {
  return { x: x - block.widthMm / 2, y: y - block.lengthMm / 2 };
}

/** Centres of our own four printed marks, lower left first, counter-clockwise. */
export function ownMarkCentres(block: Block): readonly Point[] {
  return cornersOf(2 * block.markHalfX, 2 * block.markHalfY);
}

/** Outer corners of our own marks: the box whose lower left corner is the origin of a cut file. */
export function ownMarkExtent(block: Block): readonly Point[] {
  return cornersOf(2 * block.markHalfX + OWN_MARK_MM, 2 * block.markHalfY + OWN_MARK_MM);
}

/** Boxes that share an edge do not overlap, whatever the last digit says. */
const TOUCH_MM = 1e-9;

export function boxesOverlap(a: Box, b: Box): boolean {
  return (
    a.left < b.left + b.width - TOUCH_MM &&
    b.left < a.left + a.width - TOUCH_MM &&
    a.bottom < b.bottom + b.height - TOUCH_MM &&
    b.bottom < a.bottom + a.height - TOUCH_MM
  );
}
