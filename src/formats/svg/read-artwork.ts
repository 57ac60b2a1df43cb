import { apply, then, type Affine, type Point } from '@/core/geometry/affine';
import { fail, ok, type Result } from '@/core/result';
import { lineNumber, problem, type FileProblem, type ReadOptions, type Remark } from '../cut-file/cut-file';
import type { LinePaint, PathCommand } from '../vector-drawing';
import { childrenOf, idsOf, shapesOf, type Lookup } from './svg-content';
import { outlineOf, type SubPath } from './svg-outline';
import { paintsOf, plainPaint, withPaintOf, type PaintWords, type PlainPaint } from './svg-paint';
import { placeWords, readSvgScene, type SvgLeaf, type SvgScene } from './svg-scene';
import { colourName } from './svg-style';

/** One shape of a drawing with its paint, page frame, mm. */
export interface ArtShape {
  readonly commands: readonly PathCommand<'page'>[];
  /** Colour by which a cut line is known: its stroke, else its fill. */
  readonly colour: string;
  readonly layer: string;
  /** Where it stands in the file, in words. */
  readonly place: string;
  readonly fill: string | null;
  readonly isEvenOdd: boolean;
  readonly stroke: LinePaint | null;
  /** What it asks for and a plain print file cannot carry. */
  readonly beyond: readonly string[];
}

/** Text that is still text: it cannot be outlined here. */
export interface ArtText {
  readonly colour: string;
  readonly layer: string;
  readonly place: string;
}

export interface Artwork {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly shapes: readonly ArtShape[];
  readonly texts: readonly ArtText[];
  /** Things that are drawn but are no shapes, by name and place: pictures inside the drawing and the like. */
  readonly others: readonly { readonly name: string; readonly place: string }[];
  readonly remarks: readonly Remark[];
}

/** Shapes that a layout takes at most: each is drawn on every copy. */
export const MOST_ART_SHAPES = 20_000;

const OTHER_THINGS: Readonly<Record<string, string>> = {
  image: 'a picture inside the drawing',
  foreignObject: 'a foreign object',
};

function commandsOf(paths: readonly SubPath[], toPage: Affine<'file', 'page'>): readonly PathCommand<'page'>[] {
  const at = (p: Point<'file'>): Point<'page'> => apply(toPage, p);
  return paths.flatMap(({ start, pieces, isClosed }) => [
    { op: 'M' as const, points: [at(start)] },
    ...pieces.map((piece): PathCommand<'page'> =>
      piece.kind === 'line'
        ? { op: 'L', points: [at(piece.to)] }
        : { op: 'C', points: piece.cubic.slice(1).map((p) => at(p)) },
    ),
    ...(isClosed ? [{ op: 'Z' as const, points: [] }] : []),
  ]);
}

/** How much a map enlarges lengths; null where it does so more one way than another. */
function evenScale({ xx, xy, yx, yy }: Affine<'file', 'page'>): number | null {
  const a = Math.hypot(xx, yx);
  const b = Math.hypot(xy, yy);
  const isEven = Math.abs(a - b) <= 1e-6 * Math.max(a, b) && Math.abs(xx * xy + yx * yy) <= 1e-6 * a * b;
  return isEven ? a : null;
}

/** The colour by which programs know a line: its stroke, or its fill where it has no stroke; black where nothing is said. */
function knownBy({ stroke, fill }: PaintWords): string {
  if (stroke !== undefined && stroke !== 'none') return colourName(stroke);
  return fill === undefined ? '#000000' : colourName(fill);
}

interface Reading {
  readonly scene: SvgScene;
  readonly lookup: Lookup;
  readonly paints: readonly PaintWords[];
}

function strokeOf({ stroke }: PlainPaint, scale: number | null): ArtShape['stroke'] {
  if (!stroke) return null;
  const { width, ...line } = stroke;
  return { ...line, widthMm: width * (scale ?? 1) };
}

/** What an element of a leaf is painted with; null where it is not shown. */
function paintWords({ paints }: Reading, leaf: SvgLeaf, index: number): PaintWords | null {
  const leafPaint = paints[leaf.index];
  const own = paints[index];
  const words = leaf.kind === 'use' && own && leafPaint ? withPaintOf(own, leafPaint) : leafPaint;
  const isShown = words && !words.isHidden && (words.visibility ?? 'visible') === 'visible';
  return isShown ? words : null;
}

/** One shape that a leaf draws; null where it is not shown. */
function artShape(
  reading: Reading,
  leaf: SvgLeaf,
  { index, toPage }: { readonly index: number; readonly toPage: Affine<'file', 'page'> },
): Result<ArtShape | null, FileProblem> {
  const { tree } = reading.scene;
  const element = tree.elements[index];
  const words = paintWords(reading, leaf, index);
  if (!element || !words) return ok(null);
  const outline = outlineOf(element, leaf.view);
  if (!outline.ok) return fail(problem('not-understood', placeWords(tree, index), outline.error));
  const scale = evenScale(toPage);
  const paint = plainPaint(words);
  const uneven = paint.stroke && scale === null ? ['a line stretched more one way than the other'] : [];
  return ok({
    commands: commandsOf(outline.value, toPage),
    colour: knownBy(words),
    layer: leaf.layer,
    place: placeWords(tree, leaf.index),
    fill: paint.fill,
    isEvenOdd: paint.isEvenOdd,
    stroke: strokeOf(paint, scale),
    beyond: [...paint.beyond, ...(leaf.isClipped ? ['a clipped part'] : []), ...uneven],
  });
}

/** Everything that a leaf draws; fails by name where a part of it is not understood. */
function shapesOfLeaf(reading: Reading, leaf: SvgLeaf): Result<readonly ArtShape[], FileProblem> {
  const { tree } = reading.scene;
  const { parentMap } = leaf;
  const drawn = parentMap && shapesOf(tree, reading.lookup, leaf);
  if (!parentMap || !drawn)
    return fail(
      problem('not-understood', placeWords(tree, leaf.index), 'Its place or what it shows is not understood.'),
    );
  const shapes: ArtShape[] = [];
  for (const { index, map } of drawn) {
    const shape = artShape(reading, leaf, { index, toPage: then(map, parentMap) });
    if (!shape.ok) return shape;
    if (shape.value) shapes.push(shape.value);
  }
  return ok(shapes);
}

/** Pictures and the like among what is drawn. */
function othersOf({ tree }: SvgScene, paints: readonly PaintWords[]): Artwork['others'] {
  return tree.elements.flatMap((element, index) => {
    const name = OTHER_THINGS[element.name];
    if (!name || paints[index]?.isHidden) return [];
    return [{ name, place: `line ${lineNumber(tree.text, element.start)}` }];
  });
}

/** An SVG as art and lines: every shape with its paint, what is still text, and what is beyond a plain print file. */
export function readArtwork(text: string, options: ReadOptions = {}): Result<Artwork, FileProblem> {
  const read = readSvgScene(text, options);
  if (!read.ok) return read;
  const scene = read.value;
  const paints = paintsOf(scene.tree);
  if (!paints.ok) return paints;
  const lookup = { children: childrenOf(scene.tree), ids: idsOf(scene.tree), found: new Map() };
  const reading: Reading = { scene, lookup, paints: paints.value };
  const shapes: ArtShape[] = [];
  const texts: ArtText[] = [];
  for (const leaf of scene.leaves) {
    const paint = paints.value[leaf.index];
    if (!paint || paint.isHidden) continue;
    if (leaf.kind === 'text') {
      texts.push({ colour: knownBy(paint), layer: leaf.layer, place: placeWords(scene.tree, leaf.index) });
      continue;
    }
    const own = shapesOfLeaf(reading, leaf);
    if (!own.ok) return own;
    shapes.push(...own.value);
    if (shapes.length > MOST_ART_SHAPES)
      return fail(
        problem('too-large', 'drawing', `It has more than ${MOST_ART_SHAPES} shapes: place it as a picture.`),
      );
  }
  const { widthMm, heightMm, remarks } = scene;
  return ok({ widthMm, heightMm, shapes, texts, others: othersOf(scene, paints.value), remarks });
}
