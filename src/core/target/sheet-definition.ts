import type { Point } from '../geometry/affine';
import {
  blockToSheet,
  CELL_LENGTH_MM,
  CELL_WIDTH_MM,
  stripBoxes,
  TRAIL_LENGTH_MM,
  TRAIL_WIDTH_MM,
  type Block,
  type Box,
} from './block';
import { LIFT_OFF_CLEAR_MM, type LiftOffFigure } from './lift-off';
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
export const GENERATOR_VERSION = 2;

/** Wedges for a knife that can cut a second time or a weeded strip; lift-off discs where only a closed outline is traced. */
export const FIGURE_STYLES = ['wedge', 'lift-off'] as const;
export type FigureStyle = (typeof FIGURE_STYLES)[number];

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
  readonly reachMm: number;
}

/** What a check sheet is: enough to draw every file of it, and nothing else. Content is hashed in canonical form. */
export interface SheetDefinition {
  readonly generatorVersion: number;
  readonly block: Block;
  readonly checkKind: CheckKind;
  /** Cut sets on one sheet: one where the program refuses a second cut on the same print. */
  readonly sets: 1 | 2;
  readonly spots: readonly Spot[];
  readonly wedges: readonly WedgeFigure[];
  readonly liftOffs: readonly LiftOffFigure[];
  readonly roughs: readonly RoughFigure[];
  readonly trailCentre: Point | null;
}

interface Cell {
  readonly row: number;
  readonly column: number;
  readonly left: number;
  readonly bottom: number;
  readonly isTopRow: boolean;
  readonly isBottomRow: boolean;
  readonly isRightColumn: boolean;
}

/** Cells row by row from the top left, as one reads with the arrow up. */
function allCells(block: Block): readonly Cell[] {
  const { columnLeftsMm: lefts, rowBottomsMm: bottoms } = block;
  return bottoms
    .map((bottom, row) =>
      lefts.map((left, column): Cell => ({
        row,
        column,
        left,
        bottom,
        isTopRow: row === bottoms.length - 1,
        isBottomRow: row === 0,
        isRightColumn: column === lefts.length - 1,
      })),
    )
    .reverse()
    .flat();
}

/** Quick: the corner cells and, where there is one, the cell nearest the middle. Full: all. */
function cellsOf(block: Block, kind: CheckKind): readonly Cell[] {
  const all = allCells(block);
  if (kind === 'full') return all;
  const middleColumn = block.columnLeftsMm.length === 3 ? 1 : 0;
  const middleRow = 1;
  return all.filter((cell) => {
    const isCorner = (cell.isTopRow || cell.isBottomRow) && (cell.column === 0 || cell.isRightColumn);
    return isCorner || (cell.row === middleRow && cell.column === middleColumn);
  });
}

/** Checks that a block offers: a full one only where it has more spots than the quick one. */
export function checkKindsOf(block: Block): readonly CheckKind[] {
  return cellsOf(block, 'full').length > cellsOf(block, 'quick').length ? CHECK_KINDS : ['quick'];
}

/** Boxes of a cell's figures in block coordinates: place 0 and 1 of each axis, and the pocket kept for two discs. */
function boxesOf(cell: Cell): {
  readonly along: readonly Box[];
  readonly across: readonly Box[];
  readonly pocket: Box;
} {
  const outerIsTop = !cell.isBottomRow;
  const alongBottom = outerIsTop ? cell.bottom + 36 : cell.bottom;
  const restBottom = outerIsTop ? cell.bottom : cell.bottom + 20;
  const acrossLeft = cell.isRightColumn ? cell.left + 16 : cell.left;
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
  const pocketLeft = cell.isRightColumn ? cell.left : cell.left + 20;
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

function wedgesOf(block: Block, cell: Cell, spotNo: number, sets: readonly SetNo[]): readonly WedgeFigure[] {
  const boxes = boxesOf(cell);
  // Sets are swapped in a checkerboard, so that neither has the worse leverage.
  const swap = spotNo % 2 === 0;
  const figures: WedgeFigure[] = [];
  for (const setNo of sets) {
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

export interface SheetChoice {
  readonly block: Block;
  readonly checkKind: CheckKind;
  readonly style?: FigureStyle;
  readonly sets?: 1 | 2;
}

const centreOf = (block: Block, cell: Cell): Point =>
  blockToSheet(block, cell.left + CELL_WIDTH_MM / 2, cell.bottom + CELL_LENGTH_MM / 2);

/**
 * The check sheet of a block. Wedges: two axes at each spot for each cut set, rough grids and the blade trail. Lift-off:
 * one disc a spot and one set, for programs that only trace; a disc shows a far-off cut by itself, so no grids.
 */
export function defineSheet({ block, checkKind, style = 'wedge', sets = 2 }: SheetChoice): SheetDefinition {
  const cells = cellsOf(block, checkKind);
  const isWedge = style === 'wedge';
  const setNumbers = SET_NUMBERS.slice(0, sets);
  return {
    generatorVersion: GENERATOR_VERSION,
    block,
    checkKind,
    sets: isWedge ? sets : 1,
    spots: cells.map((cell, i) => ({ spotNo: i + 1, centre: centreOf(block, cell) })),
    wedges: isWedge ? cells.flatMap((cell, i) => wedgesOf(block, cell, i + 1, setNumbers)) : [],
    liftOffs: isWedge
      ? []
      : cells.map((cell, i) => ({ kind: 'lift-off', setNo: 1, spotNo: i + 1, centre: centreOf(block, cell) })),
    roughs: isWedge
      ? block.roughPlaces.map((place, i) => ({
          kind: 'rough',
          spotNo: i + 1,
          centre: blockToSheet(block, place.x, place.y),
          reachMm: place.reachMm,
        }))
      : [],
    trailCentre: isWedge && block.trailCentre ? blockToSheet(block, block.trailCentre.x, block.trailCentre.y) : null,
  };
}

export interface NamedBox extends Box {
  readonly name: string;
}

function squareAbout(c: { readonly x: number; readonly y: number }, width: number, height: number): Box {
  return { left: c.x - width / 2, bottom: c.y - height / 2, width, height };
}

function cellZones(definition: SheetDefinition, cell: Cell, spotNo: number): readonly NamedBox[] {
  const spot = `spot ${spotNo}`;
  if (definition.liftOffs.length > 0) {
    const centre = { x: cell.left + CELL_WIDTH_MM / 2, y: cell.bottom + CELL_LENGTH_MM / 2 };
    const side = 2 * LIFT_OFF_CLEAR_MM + 2;
    return [
      { ...squareAbout(centre, side, side), name: `${spot} disc` },
      { left: cell.left, bottom: cell.bottom, width: CELL_WIDTH_MM, height: 10, name: `${spot} number` },
    ];
  }
  const boxes = boxesOf(cell);
  return [
    ...boxes.along.map((box, k) => ({ ...box, name: `${spot} along ${k}` })),
    ...boxes.across.map((box, k) => ({ ...box, name: `${spot} across ${k}` })),
    { ...boxes.pocket, name: `${spot} discs` },
  ];
}

/** Every zone that must stay free of every other, in block coordinates; places kept for later figures among them. */
export function keepOuts(definition: SheetDefinition): readonly NamedBox[] {
  const { block } = definition;
  const cells = cellsOf(block, definition.checkKind);
  const strip = stripBoxes(block);
  const between: NamedBox[] = [
    ...block.roughPlaces.map((place, i) => ({
      ...squareAbout(place, 2 * place.reachMm + 2, 2 * place.reachMm + 2),
      name: `rough ${i + 1}`,
    })),
    ...(block.trailCentre
      ? [{ ...squareAbout(block.trailCentre, TRAIL_WIDTH_MM, TRAIL_LENGTH_MM), name: 'blade trail' }]
      : []),
  ];
  return [
    ...cells.flatMap((cell, i) => cellZones(definition, cell, i + 1)),
    ...(definition.wedges.length > 0 ? between : []),
    { name: 'check line', left: 1, bottom: 1, width: 5, height: block.lengthMm - 2 },
    { name: 'gaps', ...strip.gaps },
    { name: 'code', ...strip.code },
    { name: 'arrow', ...strip.arrow },
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
