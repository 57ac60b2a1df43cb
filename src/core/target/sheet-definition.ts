import type { Point } from '../geometry/affine';
import {
  blockNamed,
  blockToSheet,
  CELL_LENGTH_MM,
  CELL_WIDTH_MM,
  ROUGH_GRID_MM,
  TRAIL_LENGTH_MM,
  TRAIL_WIDTH_MM,
  type Block,
  type BlockName,
  type Box,
} from './block';
import {
  ditherOf,
  SHORT_HALF_LENGTH_MM,
  WEDGE_BOX_LENGTH_MM,
  WEDGE_BOX_WIDTH_MM,
  type Axis,
  type WedgePlace,
} from './wedge';

export const CHECK_KINDS = ['quick', 'full'] as const;
export type CheckKind = (typeof CHECK_KINDS)[number];
export type SetNo = 1 | 2;
export const SET_NUMBERS: readonly SetNo[] = [1, 2];
/** Raised whenever the same block and kind would be drawn differently. */
export const GENERATOR_VERSION = 1;

export interface Spot {
  readonly spotNo: number;
  /** Middle of the spot's cell, sheet frame. */
  readonly centre: Point;
}

export interface WedgeFigure extends WedgePlace {
  readonly kind: 'wedge';
  readonly setNo: SetNo;
  readonly spotNo: number;
}

export interface RoughFigure {
  readonly kind: 'rough';
  readonly spotNo: number;
  /** The grid's zero and the cut L's corner, sheet frame. */
  readonly centre: Point;
}

/** What a check sheet is: enough to draw every file of it, and nothing else. Content is hashed in canonical form. */
export interface SheetDefinition {
  readonly generatorVersion: number;
  readonly blockName: BlockName;
  readonly checkKind: CheckKind;
  readonly spots: readonly Spot[];
  readonly wedges: readonly WedgeFigure[];
  readonly roughs: readonly RoughFigure[];
  readonly trailCentre: Point;
}

interface Cell {
  readonly row: number;
  readonly column: number;
  readonly left: number;
  readonly bottom: number;
}

/** Cells row by row from the top left, as one reads with the arrow up. */
function cellsOf(block: Block, kind: CheckKind): readonly Cell[] {
  const all: Cell[] = [];
  for (let row = 2; row >= 0; row--) {
    for (let column = 0; column < 3; column++) {
      all.push({ row, column, left: block.columnLeftsMm[column]!, bottom: block.rowBottomsMm[row]! });
    }
  }
  return kind === 'full' ? all : all.filter((cell) => (cell.row + cell.column) % 2 === 0);
}

/** Boxes of a cell's figures in block coordinates: place 0 and 1 of each axis, and the pocket kept for two discs. */
function boxesOf(cell: Cell): {
  readonly along: readonly Box[];
  readonly across: readonly Box[];
  readonly pocket: Box;
} {
  const outerIsTop = cell.row > 0;
  const alongBottom = outerIsTop ? cell.bottom + 36 : cell.bottom;
  const restBottom = outerIsTop ? cell.bottom : cell.bottom + 20;
  const acrossLeft = cell.column === 2 ? cell.left + 16 : cell.left;
  const stacked = [0, 1].map((i) => ({
    left: cell.left,
    bottom: alongBottom + i * WEDGE_BOX_WIDTH_MM,
    width: WEDGE_BOX_LENGTH_MM,
    height: WEDGE_BOX_WIDTH_MM,
  }));
  const sideBySide = [0, 1].map((i) => ({
    left: acrossLeft + i * WEDGE_BOX_WIDTH_MM,
    bottom: restBottom,
    width: WEDGE_BOX_WIDTH_MM,
    height: WEDGE_BOX_LENGTH_MM,
  }));
  const pocketLeft = cell.column === 2 ? cell.left : cell.left + 20;
  return {
    along: stacked,
    across: sideBySide,
    pocket: { left: pocketLeft, bottom: restBottom, width: 16, height: 36 },
  };
}

/** Point u = 0, v = 0 of a wedge centred in its box. */
function originIn(block: Block, axis: Axis, box: Box): Point {
  const h = SHORT_HALF_LENGTH_MM;
  const x = box.left + box.width / 2;
  const y = box.bottom + box.height / 2;
  return axis === 'along' ? blockToSheet(block, x - h, y) : blockToSheet(block, x, y + h);
}

function wedgesOf(block: Block, cell: Cell, spotNo: number): readonly WedgeFigure[] {
  const boxes = boxesOf(cell);
  // Sets are swapped in a checkerboard, so that neither has the worse leverage.
  const swap = spotNo % 2 === 0;
  const figures: WedgeFigure[] = [];
  for (const setNo of SET_NUMBERS) {
    const place = (setNo === 1) === swap ? 1 : 0;
    for (const axis of ['across', 'along'] as const) {
      figures.push({
        kind: 'wedge',
        setNo,
        spotNo,
        axis,
        origin: originIn(block, axis, boxes[axis][place]!),
        halfLengthMm: SHORT_HALF_LENGTH_MM,
        ditherMm: ditherOf(spotNo),
      });
    }
  }
  return figures;
}

/** The check sheet of a block: five spots (quick) or nine (full), two cut sets, three rough grids, one blade trail figure. */
export function defineSheet(blockName: BlockName, checkKind: CheckKind): SheetDefinition {
  const block = blockNamed(blockName);
  const cells = cellsOf(block, checkKind);
  return {
    generatorVersion: GENERATOR_VERSION,
    blockName,
    checkKind,
    spots: cells.map((cell, i) => ({
      spotNo: i + 1,
      centre: blockToSheet(block, cell.left + CELL_WIDTH_MM / 2, cell.bottom + CELL_LENGTH_MM / 2),
    })),
    wedges: cells.flatMap((cell, i) => wedgesOf(block, cell, i + 1)),
    roughs: block.roughCentres.map((c, i) => ({ kind: 'rough', spotNo: i + 1, centre: blockToSheet(block, c.x, c.y) })),
    trailCentre: blockToSheet(block, block.trailCentre.x, block.trailCentre.y),
  };
}

export interface NamedBox extends Box {
  readonly name: string;
}

/** Every zone that must stay free of every other, in block coordinates; places kept for later figures among them. */
export function keepOuts(definition: SheetDefinition): readonly NamedBox[] {
  const block = blockNamed(definition.blockName);
  const cells = cellsOf(block, definition.checkKind);
  const square = (c: { x: number; y: number }, width: number, height: number): Box => ({
    left: c.x - width / 2,
    bottom: c.y - height / 2,
    width,
    height,
  });
  return [
    ...cells.flatMap((cell, i) => {
      const boxes = boxesOf(cell);
      const spot = `spot ${i + 1}`;
      return [
        ...boxes.along.map((box, k) => ({ ...box, name: `${spot} along ${k}` })),
        ...boxes.across.map((box, k) => ({ ...box, name: `${spot} across ${k}` })),
        { ...boxes.pocket, name: `${spot} discs` },
      ];
    }),
    ...block.roughCentres.map((c, i) => ({ ...square(c, ROUGH_GRID_MM, ROUGH_GRID_MM), name: `rough ${i + 1}` })),
    { ...square(block.trailCentre, TRAIL_WIDTH_MM, TRAIL_LENGTH_MM), name: 'blade trail' },
    { name: 'check line', left: 1, bottom: 1, width: 5, height: block.lengthMm - 2 },
    { name: 'gaps', left: 8, bottom: 1.5, width: 70, height: 9 },
    { name: 'code', left: 82, bottom: 1.5, width: 40, height: 9 },
    { name: 'arrow', left: 126, bottom: 1.5, width: 10, height: 9 },
  ];
}

export function wedgeOf(
  definition: SheetDefinition,
  setNo: number,
  spotNo: number,
  axis: Axis,
): WedgeFigure | undefined {
  return definition.wedges.find((w) => w.setNo === setNo && w.spotNo === spotNo && w.axis === axis);
}
