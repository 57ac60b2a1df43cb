import type { Point } from '../geometry/affine';
import { blockToSheet, CELL_LENGTH_MM, CELL_WIDTH_MM, ROUGH_REACH_MM, type Block, type Box } from './block';
import { cellsOf, CHECK_KINDS, type Cell, type CheckKind, type Grid } from './cells';
import { codeNoOf } from './code-book';
import type { CombPlace } from './comb';
import {
  COMB_CELL_LENGTH_MM,
  COMB_CELL_WIDTH_MM,
  combBoxes,
  combCentres,
  combGridOf,
  pocketPlaces,
} from './comb-layout';
import { SMALL_DISC_MM, SMALL_HOLE_MM, type DiscFigure } from './disc';
import type { LiftOffFigure } from './lift-off';
import type { ReadingScale } from './reading-scale';
import { AXES, ditherOf, SHORT_HALF_LENGTH_MM, type Axis, type WedgePlace } from './wedge';
import { wedgeBoxes } from './wedge-layout';

export type SetNo = 1 | 2;
export const SET_NUMBERS: readonly SetNo[] = [1, 2];
/** Raised whenever the same block and kind would be drawn differently. */
export const GENERATOR_VERSION = 5;

/** Wedges for a knife whose strips are weeded; combs for a pen, and for a knife whose slits are rubbed in; lift-off discs where only a closed outline is traced. */
export const FIGURE_STYLES = ['wedge', 'comb', 'lift-off'] as const;
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

export interface CombFigure extends CombPlace {
  readonly kind: 'comb';
  readonly setNo: 1;
}

export interface RoughFigure {
  readonly kind: 'rough';
  readonly spotNo: number;
  /** The grid's zero and the cut L's corner, sheet frame. */
  readonly centre: Point;
  readonly reachMm: number;
  /** Scale of its lines; mm where absent. */
  readonly scale?: ReadingScale;
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
  readonly combs: readonly CombFigure[];
  readonly discs: readonly DiscFigure[];
  readonly liftOffs: readonly LiftOffFigure[];
  readonly roughs: readonly RoughFigure[];
  readonly trailCentre: Point | null;
}

/** Point u = 0, v = 0 of a wedge centred in its box. */
function originIn(block: Block, axis: Axis, box: Box): Point {
  const h = SHORT_HALF_LENGTH_MM;
  const x = box.left + box.width / 2;
  const y = box.bottom + box.height / 2;
  return axis === 'along' ? blockToSheet(block, x - h, y) : blockToSheet(block, x, y + h);
}

function wedgesOf(block: Block, cell: Cell, spotNo: number, sets: readonly SetNo[]): readonly WedgeFigure[] {
  const boxes = wedgeBoxes(cell);
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
  readonly scale?: ReadingScale;
}

const centreOf = (block: Block, cell: Cell): Point =>
  blockToSheet(block, cell.left + CELL_WIDTH_MM / 2, cell.bottom + CELL_LENGTH_MM / 2);

/** Two small discs in the pocket beside a spot's wedges, one for each set; their sets are swapped like the wedges'. */
function discsOf(block: Block, cell: Cell, spotNo: number, sets: readonly SetNo[]): readonly DiscFigure[] {
  const { pocket } = wedgeBoxes(cell);
  const swap = spotNo % 2 === 0;
  return sets.map((setNo) => {
    const isUpper = (setNo === 1) !== swap;
    const y = pocket.bottom + pocket.height / 2 + (isUpper ? DISC_HALF_PITCH_MM : -DISC_HALF_PITCH_MM);
    return {
      kind: 'disc',
      setNo,
      spotNo,
      centre: blockToSheet(block, pocket.left + pocket.width / 2, y),
      radiusMm: SMALL_DISC_MM,
      cut: 'hole',
      holeRadiusMm: SMALL_HOLE_MM,
      codeNo: codeNoOf(setNo, spotNo),
    };
  });
}

/** Half the distance between the two discs of a pocket: the spot's number stands between them. */
const DISC_HALF_PITCH_MM = 9;

type Figures = Pick<SheetDefinition, 'spots' | 'wedges' | 'combs' | 'discs' | 'liftOffs' | 'roughs' | 'trailCentre'>;

/** Wedges: two axes and a disc at each spot for each cut set, rough grids and the blade trail between them. */
function wedgeSheet(block: Block, checkKind: CheckKind, sets: 1 | 2): Figures {
  const cells = cellsOf(block, checkKind);
  const setNumbers = SET_NUMBERS.slice(0, sets);
  return {
    spots: cells.map((cell, i) => ({ spotNo: i + 1, centre: centreOf(block, cell) })),
    wedges: cells.flatMap((cell, i) => wedgesOf(block, cell, i + 1, setNumbers)),
    combs: [],
    discs: cells.flatMap((cell, i) => discsOf(block, cell, i + 1, setNumbers)),
    liftOffs: [],
    roughs: block.roughPlaces.map((place, i) => ({
      kind: 'rough',
      spotNo: i + 1,
      centre: blockToSheet(block, place.x, place.y),
      reachMm: place.reachMm,
    })),
    trailCentre: block.trailCentre ? blockToSheet(block, block.trailCentre.x, block.trailCentre.y) : null,
  };
}

/** One lift-off disc a spot, for programs that only trace; a disc shows a far-off cut by itself, so no grids. */
function liftOffSheet(block: Block, checkKind: CheckKind): Figures {
  const spots = cellsOf(block, checkKind).map((cell, i) => ({ spotNo: i + 1, centre: centreOf(block, cell) }));
  return {
    spots,
    wedges: [],
    combs: [],
    discs: [],
    liftOffs: spots.map(({ spotNo, centre }) => ({
      ...{ kind: 'lift-off', setNo: 1, spotNo, centre },
      codeNo: codeNoOf(1, spotNo),
    })),
    roughs: [],
    trailCentre: null,
  };
}

/**
 * From which side a spot's ticks are cut: neither a side of the sheet nor an end all from one, or what is lost at a change
 * of direction would pass for a scale. Of four corners, those across from each other; of a whole grid, as on a chessboard.
 */
function approachOf(cell: Cell, checkKind: CheckKind): 1 | -1 {
  const isOdd =
    checkKind === 'quick' ? isCorner(cell) && cell.isTopRow === cell.isRightColumn : (cell.row + cell.column) % 2 === 1;
  return isOdd ? -1 : 1;
}

const isCorner = (cell: Cell): boolean =>
  (cell.isTopRow || cell.isBottomRow) && (cell.column === 0 || cell.isRightColumn);

/** A comb across, one along and a coded ring at each spot, one set to a sheet; rough grids in three corners' pockets, the blade trail in another. */
function combSheet(block: Block, grid: Grid, checkKind: CheckKind): Figures {
  const cells = cellsOf(grid, checkKind);
  const boxes = cells.map((cell) =>
    combBoxes(cell.left, cell.bottom, { isBottom: cell.isBottomRow, isRight: cell.isRightColumn }),
  );
  const pockets = boxes.map(({ pocket }) => pocketPlaces(pocket));
  const corners = cells.flatMap((cell, i) => (isCorner(cell) ? [i] : []));
  const last = pockets[corners.at(-1) ?? 0]?.grid;
  return {
    spots: cells.map((cell, i) => ({
      spotNo: i + 1,
      centre: blockToSheet(block, cell.left + COMB_CELL_WIDTH_MM / 2, cell.bottom + COMB_CELL_LENGTH_MM / 2),
    })),
    wedges: [],
    combs: boxes.flatMap((own, i) =>
      AXES.map((axis): CombFigure => {
        const { x, y } = combCentres(own)[axis];
        const at = { centre: blockToSheet(block, x, y), approach: approachOf(cells[i]!, checkKind) };
        return { kind: 'comb', setNo: 1, spotNo: i + 1, axis, ...at };
      }),
    ),
    discs: pockets.map(({ ring }, i) => ({
      ...{ kind: 'disc', setNo: 1, spotNo: i + 1, centre: blockToSheet(block, ring.x, ring.y) },
      ...{ radiusMm: SMALL_DISC_MM, cut: 'line', holeRadiusMm: SMALL_HOLE_MM, codeNo: codeNoOf(1, i + 1) },
    })),
    liftOffs: [],
    roughs: corners.slice(0, 3).map((index, i) => {
      const { x, y } = pockets[index]!.grid;
      return { kind: 'rough', spotNo: i + 1, centre: blockToSheet(block, x, y), reachMm: ROUGH_REACH_MM };
    }),
    trailCentre: last ? blockToSheet(block, last.x, last.y) : null,
  };
}

/** Combs need longer cells than wedges; a small page may not hold enough of them. */
function figuresOf({ block, checkKind, style = 'wedge', sets = 2 }: SheetChoice): Figures {
  if (style === 'wedge') return wedgeSheet(block, checkKind, sets);
  if (style === 'lift-off') return liftOffSheet(block, checkKind);
  const grid = combGridOf(block);
  if (!grid) throw new Error(`a ${block.name} sheet holds too few combs: ask stylesOf first`);
  return combSheet(block, grid, checkKind);
}

/** The check sheet of a block. Only wedges are cut in two sets. */
export function defineSheet(choice: SheetChoice): SheetDefinition {
  const { block, checkKind, style = 'wedge', sets = 2, scale = 'mm' } = choice;
  const figures = figuresOf(choice);
  return {
    generatorVersion: GENERATOR_VERSION,
    block,
    checkKind,
    sets: style === 'wedge' ? sets : 1,
    ...(scale === 'mm' ? figures : inScale(figures, scale)),
  };
}

/** The same figures with another scale printed beside them. A sheet in mm says nothing of it. */
const inScale = (figures: Figures, scale: ReadingScale): Figures => ({
  ...figures,
  wedges: figures.wedges.map((f) => ({ ...f, scale })),
  combs: figures.combs.map((f) => ({ ...f, scale })),
  roughs: figures.roughs.map((f) => ({ ...f, scale })),
});

/** Scale in which the figures of a sheet are read. Lift-off discs carry no numbers. */
export const scaleOf = ({
  wedges,
  combs,
  roughs,
}: Pick<SheetDefinition, 'wedges' | 'combs' | 'roughs'>): ReadingScale =>
  [...wedges, ...combs, ...roughs][0]?.scale ?? 'mm';

/** Figures that a block has room for. */
export const stylesOf = (block: Block): readonly FigureStyle[] =>
  FIGURE_STYLES.filter((style) => style !== 'comb' || combGridOf(block) !== null);

const gridOf = (block: Block, style: FigureStyle): Grid => (style === 'comb' ? combGridOf(block) : null) ?? block;

/** Checks that a block offers: a full one only where it has more spots than the quick one. */
export function checkKindsOf(block: Block, style: FigureStyle = 'wedge'): readonly CheckKind[] {
  const grid = gridOf(block, style);
  return cellsOf(grid, 'full').length > cellsOf(grid, 'quick').length ? CHECK_KINDS : ['quick'];
}

export function wedgeOf(
  definition: SheetDefinition,
  setNo: number,
  spotNo: number,
  axis: Axis,
): WedgeFigure | undefined {
  return definition.wedges.find((w) => w.setNo === setNo && w.spotNo === spotNo && w.axis === axis);
}

/** How a set's figures are named where some are left out. */
export const figureName = (f: Pick<WedgeFigure, 'spotNo' | 'axis'>): string => `${f.spotNo} ${f.axis}`;
export const discName = (d: Pick<DiscFigure, 'spotNo'>): string => `${d.spotNo} disc`;

export function combOf(definition: SheetDefinition, spotNo: number, axis: Axis): CombFigure | undefined {
  return definition.combs.find((c) => c.spotNo === spotNo && c.axis === axis);
}

export function discOf(definition: SheetDefinition, setNo: number, spotNo: number): DiscFigure | undefined {
  return definition.discs.find((d) => d.setNo === setNo && d.spotNo === spotNo);
}
