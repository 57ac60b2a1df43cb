import { cornersOf, type Point } from '../geometry/affine';
import { isoA, LETTER, type SheetSize } from '../units/sheet-size';

export const BLOCK_NAMES = ['A4', 'Letter'] as const;
export type BlockName = (typeof BLOCK_NAMES)[number];

/** Axis-aligned box in block coordinates: origin at the block's lower left corner, x right, y up, mm. */
export interface Box {
  readonly left: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}

/** Where the figures of one sheet size stand. All in block coordinates but the marks, which are in the sheet frame. */
export interface Block {
  readonly name: BlockName;
  readonly page: SheetSize;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly columnLeftsMm: readonly number[];
  readonly rowBottomsMm: readonly number[];
  readonly roughCentres: readonly { readonly x: number; readonly y: number }[];
  readonly trailCentre: { readonly x: number; readonly y: number };
  readonly checkLineMm: number;
  /** Half distances between our own marks' centres, route D: outside every cut line, so that no file coordinate is negative. */
  readonly markHalfX: number;
  readonly markHalfY: number;
}

export const CELL_WIDTH_MM = 36;
export const CELL_LENGTH_MM = 56;
/** Side of our own printed square marks (route D). */
export const OWN_MARK_MM = 8;
export const ROUGH_GRID_MM = 26;
export const ROUGH_REACH_MM = 12;
export const TRAIL_WIDTH_MM = 20;
export const TRAIL_LENGTH_MM = 23;

const BLOCKS: Readonly<Record<BlockName, Block>> = {
  A4: {
    name: 'A4',
    page: isoA(4),
    widthMm: 176,
    lengthMm: 236,
    columnLeftsMm: [7, 73, 139],
    rowBottomsMm: [11, 95, 179],
    roughCentres: [
      { x: 58, y: 39 },
      { x: 124, y: 123 },
      { x: 58, y: 207 },
    ],
    trailCentre: { x: 124, y: 39 },
    checkLineMm: 230,
    markHalfX: 94,
    markHalfY: 135,
  },
  Letter: {
    name: 'Letter',
    page: LETTER,
    widthMm: 182,
    lengthMm: 218,
    columnLeftsMm: [7, 76, 145],
    rowBottomsMm: [11, 86, 161],
    roughCentres: [
      { x: 59.5, y: 39 },
      { x: 128.5, y: 114 },
      { x: 59.5, y: 189 },
    ],
    trailCentre: { x: 128.5, y: 39 },
    checkLineMm: 210,
    markHalfX: 96,
    markHalfY: 126,
  },
};

export const blockNamed = (name: BlockName): Block => BLOCKS[name];

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
  const half = OWN_MARK_MM / 2;
  return ownMarkCentres(block).map((p) => ({ x: p.x + Math.sign(p.x) * half, y: p.y + Math.sign(p.y) * half }));
}

export function boxesOverlap(a: Box, b: Box): boolean {
  return (
    a.left < b.left + b.width &&
    b.left < a.left + a.width &&
    a.bottom < b.bottom + b.height &&
    b.bottom < a.bottom + a.height
  );
}
