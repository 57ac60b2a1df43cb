import 'server-only';
import { apply, translation, type Affine, type Point } from '@/core/geometry/affine';
import { sheetToFile, type FileAxes } from '@/core/geometry/file-axes';
import type { Load } from '@/core/geometry/load';
import { OWN_MARK_MM, ownMarkCentres, ownMarkExtent, type Block } from '@/core/target/block';
import { backInkOf, cutOf, inkOf, type CutPath } from '@/core/target/drawing';
import type { InkShape } from '@/core/target/figure-ink';
import type { SetNo, SheetDefinition } from '@/core/target/sheet-definition';
import {
  mapCommands,
  polyline,
  type PathCommand,
  type VectorDrawing,
  type VectorLayer,
  type VectorPath,
} from '@/formats/vector-drawing';
import type { FilePath } from '@/formats/hpgl/hpgl';
import { outlineText } from './outline-text';

export const INK_COLOUR = '#000000';
export const CUT_COLOURS: Readonly<Record<SetNo, string>> = { 1: '#c4162a', 2: '#0b6b62' };
export const CUT_LAYERS: Readonly<Record<SetNo, string>> = { 1: 'cut 1', 2: 'cut 2' };
export const CUT_LINE_MM = 0.1;

type Placing = Affine<'sheet', 'file'>;

/** Sheet frame (origin in the middle) to the lower left corner of a box of this size. */
function centredIn(widthMm: number, heightMm: number): Placing {
  return translation(widthMm / 2, heightMm / 2) as Placing;
}

function commandsOf(shape: InkShape): readonly PathCommand<'sheet'>[] {
  if (shape.kind === 'text') return outlineText(shape);
  if (shape.kind === 'line') return polyline(shape.points);
  return [...polyline(shape.points), { op: 'Z', points: [] }];
}

export function inkPath(shape: InkShape, placing: Placing): VectorPath {
  return {
    commands: mapCommands(placing, commandsOf(shape)),
    paint: shape.kind === 'line' ? { kind: 'stroke', widthMm: shape.widthMm } : { kind: 'fill' },
  };
}

/** What is done to a set's cut lines before they are written: a rough shift, a correction, figures left out. */
export interface CutFile {
  readonly setNo: SetNo;
  readonly move: Affine;
}

export function movedCuts(definition: SheetDefinition, cut: CutFile): readonly CutPath[] {
  return cutOf(definition, cut.setNo).map((path) => path.map((p) => apply(cut.move, p)));
}

function cutLayer(definition: SheetDefinition, cut: CutFile, placing: Placing): VectorLayer {
  return {
    name: CUT_LAYERS[cut.setNo],
    colour: CUT_COLOURS[cut.setNo],
    paths: movedCuts(definition, cut).map((path) => ({
      commands: mapCommands(placing, polyline(path)),
      paint: { kind: 'stroke', widthMm: CUT_LINE_MM },
    })),
  };
}

function inkLayer(definition: SheetDefinition, code: string, placing: Placing): VectorLayer {
  return { name: 'ink', colour: INK_COLOUR, paths: inkOf(definition, code).map((s) => inkPath(s, placing)) };
}

/** Route A: ink and both sets in one drawing of the block's size. */
export function oneDrawing(definition: SheetDefinition, code: string, cuts: readonly CutFile[]): VectorDrawing {
  const { block } = definition;
  const placing = centredIn(block.widthMm, block.lengthMm);
  return {
    title: `Check sheet ${code}`,
    widthMm: block.widthMm,
    heightMm: block.lengthMm,
    layers: [inkLayer(definition, code, placing), ...cuts.map((cut) => cutLayer(definition, cut, placing))],
  };
}

function markShape(centre: Point): InkShape {
  const h = OWN_MARK_MM / 2;
  const corners = [
    [-h, -h],
    [h, -h],
    [h, h],
    [-h, h],
  ] as const;
  return { kind: 'fill', points: corners.map(([x, y]) => ({ x: centre.x + x, y: centre.y + y })) };
}

/** Route D, print: the whole page with our own four marks. */
export function printPage(
  definition: SheetDefinition,
  code: string,
  markMoves: readonly Point[] | null = null,
): VectorDrawing {
  const { block } = definition;
  const { widthMm, lengthMm } = block.page;
  const placing = centredIn(widthMm, lengthMm);
  const ink = inkLayer(definition, code, placing);
  const marks = ownMarkCentres(block).map((centre, i) => {
    const move = markMoves?.[i] ?? { x: 0, y: 0 };
    return inkPath(markShape({ x: centre.x + move.x, y: centre.y + move.y }), placing);
  });
  return {
    title: `Check sheet ${code}`,
    widthMm,
    heightMm: lengthMm,
    layers: [{ ...ink, paths: [...ink.paths, ...marks] }],
  };
}

/** A shape as it must stand on the other face: places change sides, letters stay readable. */
function onTheBack(shape: InkShape): InkShape {
  const mirrored = (p: Point): Point => ({ x: -p.x, y: p.y });
  if (shape.kind === 'text') return { ...shape, at: mirrored(shape.at) };
  return { ...shape, points: shape.points.map(mirrored) };
}

/** The other face, print: the whole page as it is seen when the sheet was turned over its long edge; no marks. */
export function backPage(definition: SheetDefinition, code: string): VectorDrawing {
  const { widthMm, lengthMm } = definition.block.page;
  const placing = centredIn(widthMm, lengthMm);
  const paths = backInkOf(definition, code).map((shape) => inkPath(onTheBack(shape), placing));
  return {
    title: `Check sheet ${code}, back`,
    widthMm,
    heightMm: lengthMm,
    layers: [{ name: 'ink', colour: INK_COLOUR, paths }],
  };
}

/** Ink of the block alone, for programs that take a picture. */
export function pictureOnly(definition: SheetDefinition, code: string): VectorDrawing {
  return oneDrawing(definition, code, []);
}

/** Route C: ink, and one set's lines in the spot ink by which the queue knows a cut, each in a layer of its own. */
export function queuePage(definition: SheetDefinition, code: string, cut: CutFile, spotInk: string): VectorDrawing {
  const drawing = oneDrawing(definition, code, [cut]);
  return { ...drawing, layers: drawing.layers.map((layer, i) => (i === 0 ? layer : { ...layer, spotInk })) };
}

/** Route D, cut: one set in the page's box, arrow up. */
export function cutPage(definition: SheetDefinition, code: string, cut: CutFile): VectorDrawing {
  const { widthMm, lengthMm } = definition.block.page;
  const placing = centredIn(widthMm, lengthMm);
  return {
    title: `Check sheet ${code}, ${CUT_LAYERS[cut.setNo]}`,
    widthMm,
    heightMm: lengthMm,
    layers: [cutLayer(definition, cut, placing)],
  };
}

/** Sheet to cut file for a load: origin at the outer lower left mark corner as the file's axes see it. */
export function cutFilePlacing(block: Block, load: Load, axes: FileAxes): Placing {
  return sheetToFile(load, axes, ownMarkExtent(block));
}

/** Route D, cut as paths in the cutter's own file axes. */
export function cutFilePaths(
  definition: SheetDefinition,
  cut: CutFile,
  load: Load,
  axes: FileAxes,
): readonly FilePath[] {
  const placing = cutFilePlacing(definition.block, load, axes);
  return movedCuts(definition, cut).map((path) => path.map((p) => apply(placing, p)));
}
