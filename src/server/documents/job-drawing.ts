import 'server-only';
import { apply, identity, then, type Affine, type Point } from '@/core/geometry/affine';
import { sheetToFile, type FileAxes } from '@/core/geometry/file-axes';
import type { Load } from '@/core/geometry/load';
import { blockSize } from '@/core/layout/block-size';
import { cellToPage } from '@/core/layout/cell-place';
import type { Placement } from '@/core/layout/fill-page';
import type { LineChoice } from '@/core/layout/job-draft';
import type { Box } from '@/core/target/block';
import { text } from '@/core/target/figure-ink';
import { flatten } from '@/formats/flatten';
import type { FilePath } from '@/formats/hpgl/hpgl';
import {
  mapCommands,
  polyline,
  type LinePaint,
  type PathCommand,
  type VectorDrawing,
  type VectorImage,
  type VectorLayer,
  type VectorPath,
} from '@/formats/vector-drawing';
import { CUT_COLOURS, CUT_LINE_MM, INK_COLOUR } from './sheet-drawing';
import { outlineText } from './outline-text';

/** One item as a job's files need it: its cell's lower left corner is the origin. */
export interface JobFileItem {
  readonly id: string;
  readonly artBox: Box;
  readonly isMirrored: boolean;
  readonly cuts: readonly (readonly PathCommand<'page'>[])[];
  readonly scores: readonly (readonly PathCommand<'page'>[])[];
  readonly shapes: readonly {
    readonly commands: readonly PathCommand<'page'>[];
    readonly fill: string | null;
    readonly isEvenOdd: boolean;
    readonly stroke: LinePaint | null;
  }[];
  /** Its art where it is a picture. */
  readonly picture: Pick<VectorImage, 'format' | 'content'> | null;
}

/** One page of a job, of which all are equal. Page frame: origin lower left, y up, the leading end up. */
export interface JobSheet {
  readonly title: string;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** Marks of our own that are printed; none where a program or the machine prints them. */
  readonly marks: readonly Box[];
  /** Where the words stand that say which end leads: middle of their baseline; null where there is no room. */
  readonly words: { readonly at: Point<'page'>; readonly heightMm: number } | null;
  readonly items: readonly JobFileItem[];
  readonly placements: readonly Placement[];
  /** Correction of the cut lines, about the page's middle. */
  readonly cutMove: Affine<'page', 'page'>;
}

type ToFile = Affine<'page', 'file'>;
const AS_PAGE = identity<'page'>() as unknown as ToFile;

const boxPath = ({ left, bottom, width, height }: Box): readonly PathCommand<'page'>[] =>
  polyline<'page'>([
    { x: left, y: bottom },
    { x: left + width, y: bottom },
    { x: left + width, y: bottom + height },
    { x: left, y: bottom + height },
    { x: left, y: bottom },
  ]);

/** Each copy with its item. */
const copiesOf = ({ items, placements }: JobSheet) =>
  placements.flatMap((placement) => {
    const item = items.find((i) => i.id === placement.itemId);
    return item ? [{ item, map: cellToPage(placement) }] : [];
  });

const linePath = (commands: VectorPath['commands'], { colour, widthMm, ...line }: LinePaint): VectorPath => ({
  commands,
  colour,
  paint: { kind: 'stroke', widthMm, line },
});

function shapePaths(shape: JobFileItem['shapes'][number], toFile: ToFile): readonly VectorPath[] {
  const commands = mapCommands(toFile, shape.commands);
  return [
    ...(shape.fill
      ? [
          {
            commands,
            colour: shape.fill,
            paint: { kind: 'fill' as const, ...(shape.isEvenOdd && { isEvenOdd: true }) },
          },
        ]
      : []),
    ...(shape.stroke ? [linePath(commands, shape.stroke)] : []),
  ];
}

/** A picture fills its art's box; mirrored work shows it turned over. */
function imageOf(item: JobFileItem, toFile: ToFile): readonly VectorImage[] {
  if (!item.picture) return [];
  const { left, bottom, width, height } = item.artBox;
  const upright = { xx: width, xy: 0, yx: 0, yy: height, tx: left, ty: bottom };
  const inCell = item.isMirrored ? { ...upright, xx: -width, tx: left + width } : upright;
  return [{ ...item.picture, place: then(inCell as Affine<'picture', 'page'>, toFile) }];
}

function artLayer(sheet: JobSheet, toFile: ToFile): VectorLayer {
  const copies = copiesOf(sheet).map(({ item, map }) => ({ item, toFile: then(map, toFile) }));
  return {
    name: 'art',
    colour: INK_COLOUR,
    images: copies.flatMap((c) => imageOf(c.item, c.toFile)),
    paths: copies.flatMap((c) => c.item.shapes.flatMap((shape) => shapePaths(shape, c.toFile))),
  };
}

type Tool = 'scores' | 'cuts';
const LAYERS = {
  scores: { name: 'score', colour: CUT_COLOURS[2] },
  cuts: { name: 'cut', colour: CUT_COLOURS[1] },
} as const;

/** Scored or cut lines of every copy on the page, corrected. */
const toolCommands = (sheet: JobSheet, tool: Tool): readonly (readonly PathCommand<'page'>[])[] =>
  copiesOf(sheet).flatMap(({ item, map }) => item[tool].map((line) => mapCommands(then(map, sheet.cutMove), line)));

/** What a file of one choice of lines holds, in the order of work: what is scored comes while the sheet is still whole. */
const TOOLS: Readonly<Record<LineChoice, readonly Tool[]>> = {
  all: ['scores', 'cuts'],
  scored: ['scores'],
  cut: ['cuts'],
};

/** Scored lines stand in an ink of their own, named after the cut's. */
const inkOf = (tool: Tool, spotInk: string | undefined) =>
  spotInk === undefined ? {} : { spotInk: tool === 'cuts' ? spotInk : `${spotInk} ${LAYERS.scores.name}` };

/** A layer for each kind of line that there is. */
const toolLayers = (sheet: JobSheet, toFile: ToFile, lines: LineChoice, spotInk?: string): readonly VectorLayer[] =>
  TOOLS[lines]
    .map((tool): VectorLayer => ({
      ...LAYERS[tool],
      ...inkOf(tool, spotInk),
      paths: toolCommands(sheet, tool).map((commands) => ({
        commands: mapCommands(toFile, commands),
        paint: { kind: 'stroke', widthMm: CUT_LINE_MM },
      })),
    }))
    .filter((layer) => layer.name === LAYERS.cuts.name || layer.paths.length > 0);

function markLayer({ marks, words, title }: JobSheet): VectorLayer {
  const squares = marks.map((box): VectorPath => ({
    commands: mapCommands(AS_PAGE, boxPath(box)),
    paint: { kind: 'fill' },
  }));
  if (!words) return { name: 'marks', colour: INK_COLOUR, paths: squares };
  const label = outlineText(text({ x: 0, y: 0 }, `${title}: this end first`, words.heightMm));
  const place = { xx: 1, xy: 0, yx: 0, yy: 1, tx: words.at.x, ty: words.at.y } as Affine<'sheet', 'file'>;
  return {
    name: 'marks',
    colour: INK_COLOUR,
    paths: [...squares, { commands: mapCommands(place, label), paint: { kind: 'fill' } }],
  };
}

/** Route D, print: the whole page with our own marks and which end leads. */
export const printSheet = (sheet: JobSheet): VectorDrawing => ({
  title: sheet.title,
  widthMm: sheet.widthMm,
  heightMm: sheet.lengthMm,
  layers: [artLayer(sheet, AS_PAGE), markLayer(sheet)],
});

/** Route D, cut: the lines in the page's box. */
export const cutSheet = (sheet: JobSheet, lines: LineChoice = 'all'): VectorDrawing => ({
  title: `${sheet.title}, cut`,
  widthMm: sheet.widthMm,
  heightMm: sheet.lengthMm,
  layers: toolLayers(sheet, AS_PAGE, lines),
});

/**
 * Routes A and C: art and cut lines in the smallest box about the page's middle that holds them, for a program that places
 * it in the middle of its own page and prints its own marks.
 */
export function blockDrawing(sheet: JobSheet, spotInk?: string): VectorDrawing {
  const { widthMm, lengthMm: heightMm } = blockSize(sheet.placements, sheet);
  const tx = (widthMm - sheet.widthMm) / 2;
  const ty = (heightMm - sheet.lengthMm) / 2;
  const toFile = { xx: 1, xy: 0, yx: 0, yy: 1, tx, ty } as ToFile;
  return {
    title: sheet.title,
    widthMm,
    heightMm,
    layers: [artLayer(sheet, toFile), ...toolLayers(sheet, toFile, 'all', spotInk)],
  };
}

export interface CutterFile {
  readonly scores: readonly FilePath[];
  readonly cuts: readonly FilePath[];
  readonly marksOutline: FilePath;
  readonly limit: { readonly xMm: number; readonly yMm: number };
}

const cornersOfBox = ({ left, bottom, width, height }: Box): readonly Point<'page'>[] => [
  { x: left, y: bottom },
  { x: left + width, y: bottom },
  { x: left + width, y: bottom + height },
  { x: left, y: bottom + height },
];

/** Route D, cut as paths in the cutter's own file axes: origin at the outer lower left corner of the marks as the file sees it. */
export function cutterPaths(sheet: JobSheet, load: Load, axes: FileAxes): CutterFile {
  const toSheet = { xx: 1, xy: 0, yx: 0, yy: 1, tx: -sheet.widthMm / 2, ty: -sheet.lengthMm / 2 } as Affine<'page'>;
  const page = cornersOfBox({ left: 0, bottom: 0, width: sheet.widthMm, height: sheet.lengthMm });
  const marks = sheet.marks.length > 0 ? sheet.marks.flatMap(cornersOfBox) : page;
  const outline = cornersOfBox({
    left: Math.min(...marks.map((p) => p.x)),
    bottom: Math.min(...marks.map((p) => p.y)),
    width: Math.max(...marks.map((p) => p.x)) - Math.min(...marks.map((p) => p.x)),
    height: Math.max(...marks.map((p) => p.y)) - Math.min(...marks.map((p) => p.y)),
  });
  const toFile = then(
    toSheet,
    sheetToFile(
      load,
      axes,
      outline.map((p) => apply(toSheet, p)),
    ),
  );
  const inFile = (points: readonly Point<'page'>[]): FilePath => points.map((p) => apply(toFile, p));
  const limits = inFile(page);
  const pathsOf = (tool: Tool): readonly FilePath[] =>
    toolCommands(sheet, tool)
      .flatMap((commands) => flatten(commands))
      .map(({ points, isClosed }) => inFile(isClosed ? [...points, ...points.slice(0, 1)] : points));
  return {
    scores: pathsOf('scores'),
    cuts: pathsOf('cuts'),
    marksOutline: inFile([...outline, ...outline.slice(0, 1)]),
    limit: { xMm: Math.max(...limits.map((p) => p.x)), yMm: Math.max(...limits.map((p) => p.y)) },
  };
}
