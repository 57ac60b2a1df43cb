import { apply, identity, then, translation, type Affine, type Point } from '@/core/geometry/affine';
import { cubicAt, type Cubic } from '@/core/geometry/cubic';
import { eachHullPoint, outlineOf, SHAPES, type SubPath } from './svg-outline';
import type { SvgElement, SvgTree } from './svg-elements';
import { svgLength } from './svg-length';
import type { SvgLeaf, SvgScene } from './svg-scene';
import { parseTransform } from './svg-transform';
import { parseViewBox, viewMap } from './svg-view';

type Inner = Affine<'file', 'file'>;

/** One shape that a leaf draws, with its map to the units of the element the leaf stands in. */
export interface DrawnShape {
  readonly index: number;
  readonly map: Inner;
  /** Uses inside what the leaf shows that it is shown through. */
  readonly uses: readonly number[];
}

const MOST_SHAPES = 20_000;
const MOST_USES_DEEP = 16;

export function childrenOf(tree: SvgTree): readonly (readonly number[])[] {
  const children: number[][] = tree.elements.map(() => []);
  for (const [index, element] of tree.elements.entries()) children[element.parent]?.push(index);
  return children;
}

export function idsOf(tree: SvgTree): ReadonlyMap<string, number> {
  const ids = new Map<string, number>();
  for (const [index, element] of tree.elements.entries()) {
    const { id } = element.attributes;
    if (id !== undefined && !ids.has(id)) ids.set(id, index);
  }
  return ids;
}

export interface Lookup {
  readonly children: readonly (readonly number[])[];
  readonly ids: ReadonlyMap<string, number>;
  /** What leaves were found to draw, by the leaf's place in the tree. */
  readonly found: Map<number, readonly DrawnShape[] | null>;
}

const lengthOf = (element: SvgElement, name: string): number => svgLength(element.attributes[name] ?? '0', 0) ?? 0;

/** Map that a `use` adds to what it shows: its place, and for a symbol the view that it fills. */
function placeOfUse(use: SvgElement, target: SvgElement): Inner | null {
  const place = translation<'file'>(lengthOf(use, 'x'), lengthOf(use, 'y'));
  const box = parseViewBox(target.attributes.viewBox);
  if (!box || (target.name !== 'symbol' && target.name !== 'svg')) return place;
  const width = svgLength(use.attributes.width ?? target.attributes.width ?? String(box[2]), box[2]);
  const height = svgLength(use.attributes.height ?? target.attributes.height ?? String(box[3]), box[3]);
  if (width === null || height === null) return null;
  const view = viewMap(box, { width, height }, target.attributes.preserveAspectRatio);
  return view && then(view, place);
}

interface Step {
  readonly index: number;
  readonly map: Inner;
  readonly deep: number;
  /** What a use shows is drawn even where it stands among definitions. */
  readonly isTarget: boolean;
  readonly uses: readonly number[];
}

const usesThrough = (tree: SvgTree, uses: readonly number[], index: number): readonly number[] =>
  tree.elements[index]?.name === 'use' ? [...uses, index] : uses;

/** What a use shows, one step deeper; `nothing` where it points nowhere, null where it cannot be followed. */
function targetOf(tree: SvgTree, lookup: Lookup, step: Step, own: Inner): Step | 'nothing' | null {
  const use = tree.elements[step.index];
  const href = use?.attributes.href ?? use?.attributes['xlink:href'] ?? '#';
  if (!use || !href.startsWith('#') || step.deep >= MOST_USES_DEEP) return null;
  const index = lookup.ids.get(href.slice(1));
  const shown = index === undefined ? undefined : tree.elements[index];
  if (index === undefined || !shown) return 'nothing';
  const map = placeOfUse(use, shown);
  const uses = usesThrough(tree, step.uses, index);
  return map && { index, map: then(map, own), deep: step.deep + 1, isTarget: true, uses };
}

const OPEN: ReadonlySet<string> = new Set(['g', 'a', 'switch']);
const OPEN_WHEN_USED: ReadonlySet<string> = new Set(['symbol', 'svg']);

function stepsInto(tree: SvgTree, lookup: Lookup, step: Step, own: Inner): readonly Step[] | null {
  const name = tree.elements[step.index]?.name ?? '';
  if (name === 'use') {
    const target = targetOf(tree, lookup, step, own);
    return target === 'nothing' ? [] : target && [target];
  }
  if (!OPEN.has(name) && !(step.isTarget && OPEN_WHEN_USED.has(name))) return [];
  const inside = lookup.children[step.index] ?? [];
  return inside.map((index) => {
    const uses = usesThrough(tree, step.uses, index);
    return { index, map: own, deep: step.deep, isTarget: false, uses };
  });
}

/** Every shape that a leaf draws; null where something in it is not understood (or shows itself without end). */
export function shapesOf(tree: SvgTree, lookup: Lookup, leaf: SvgLeaf): readonly DrawnShape[] | null {
  const known = lookup.found.get(leaf.index);
  if (known !== undefined) return known;
  const shapes = walkShapes(tree, lookup, leaf);
  lookup.found.set(leaf.index, shapes);
  return shapes;
}

function walkShapes(tree: SvgTree, lookup: Lookup, leaf: SvgLeaf): readonly DrawnShape[] | null {
  const steps: Step[] = [{ index: leaf.index, map: identity<'file'>(), deep: 0, isTarget: false, uses: [] }];
  const shapes: DrawnShape[] = [];
  for (let step = steps.pop(); step; step = steps.pop()) {
    const element = tree.elements[step.index];
    const own = element && parseTransform(element.attributes.transform ?? '');
    if (!own || shapes.length > MOST_SHAPES || steps.length > MOST_SHAPES) return null;
    const map = then(own, step.map);
    if (SHAPES.has(element.name)) {
      shapes.push({ index: step.index, map, uses: step.uses });
      continue;
    }
    const inside = stepsInto(tree, lookup, step, map);
    if (!inside) return null;
    steps.push(...inside);
  }
  return shapes;
}

/** Sub-paths of all that a leaf draws, each with its map to the page. Null where a part is not understood. */
function leafPaths(scene: SvgScene, lookup: Lookup, leaf: SvgLeaf) {
  const shapes = leaf.parentMap && shapesOf(scene.tree, lookup, leaf);
  if (!leaf.parentMap || !shapes) return null;
  const found: { readonly paths: readonly SubPath[]; readonly toPage: Affine<'file', 'page'> }[] = [];
  for (const shape of shapes) {
    const element = scene.tree.elements[shape.index];
    const outline = element && outlineOf(element, leaf.view);
    if (!outline?.ok) return null;
    found.push({ paths: outline.value, toPage: then(shape.map, leaf.parentMap) });
  }
  return found;
}

/** Visits page points that hold all of a leaf's shapes inside their box; none where a part is not understood. */
export function eachLeafPlace(
  scene: SvgScene,
  lookup: Lookup,
  leaf: SvgLeaf,
  visit: (place: Point<'page'>) => void,
): void {
  for (const { paths, toPage } of leafPaths(scene, lookup, leaf) ?? [])
    eachHullPoint(paths, (place) => {
      visit(apply(toPage, place));
    });
}

/** Lines of a leaf for a picture, page frame; curves by four chords a piece. */
export function leafLines(scene: SvgScene, lookup: Lookup, leaf: SvgLeaf): readonly (readonly Point<'page'>[])[] {
  const found = leafPaths(scene, lookup, leaf) ?? [];
  return found.flatMap(({ paths, toPage }) =>
    paths.map((path) => {
      const points = [path.start, ...path.pieces.flatMap((p) => (p.kind === 'line' ? [p.to] : chordsOf(p.cubic)))];
      return (path.isClosed ? [...points, path.start] : points).map((p) => apply(toPage, p));
    }),
  );
}

const chordsOf = (cubic: Cubic<'file'>): readonly Point<'file'>[] => [0.25, 0.5, 0.75, 1].map((t) => cubicAt(cubic, t));
