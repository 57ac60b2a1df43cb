import { then, translation, type Affine } from '@/core/geometry/affine';
import { MM_PER_INCH } from '@/core/units/length';
import { fail, ok, type Result } from '@/core/result';
import { lineNumber, problem, type FileProblem, type ReadOptions, type Remark } from '../cut-file/cut-file';
import { SHAPES } from './svg-outline';
import { readSvgTree, type SvgElement, type SvgTree } from './svg-elements';
import { isPlainNumber, svgLength } from './svg-length';
import { coloursOf, ownValue, readStyles, type StyleSheet } from './svg-style';
import { parseTransform } from './svg-transform';
import { parseViewBox, viewMap, type View } from './svg-view';

type ToPage = Affine<'file', 'page'>;
type Inner = Affine<'file', 'file'>;

/** Something drawn: a shape, a use of one, or a text. */
export interface SvgLeaf {
  readonly index: number;
  readonly kind: 'shape' | 'use' | 'text';
  readonly layer: string;
  /** From the units of the element it stands in to the page; null where a transform was not understood. */
  readonly parentMap: ToPage | null;
  readonly ownMap: Inner | null;
  readonly view: View;
  readonly isClipped: boolean;
}

export interface SvgScene {
  readonly tree: SvgTree;
  readonly colours: readonly (string | null)[];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly leaves: readonly SvgLeaf[];
  readonly remarks: readonly Remark[];
}

/** What an element hands to those inside it. */
interface Inside {
  readonly map: ToPage | null;
  readonly view: View;
  readonly layer: string;
  readonly isDrawn: boolean;
  readonly isClipped: boolean;
}

const GROUPS: ReadonlySet<string> = new Set(['svg', 'g', 'a', 'switch']);
export const NO_LAYER = 'no layer';

/** The words by which a message names an element: its line, name and id. */
export function placeWords(tree: SvgTree, index: number): string {
  const element = tree.elements[index];
  if (!element) return 'unknown place';
  const id = element.attributes.id === undefined ? '' : ` id="${element.attributes.id.slice(0, 40)}"`;
  return `line ${lineNumber(tree.text, element.start)}, <${element.name}${id}>`;
}

/** Own transform of an element; null when it is not understood, or set by a style sheet. */
function transformOf(sheet: StyleSheet, element: SvgElement): Inner | null {
  const written = element.attributes.transform;
  const valid = ownValue(sheet, element, 'transform');
  if (valid !== written) return null;
  return parseTransform(written ?? '');
}

const joined = (inner: Inner | null, outer: ToPage | null): ToPage | null =>
  inner && outer ? then(inner, outer) : null;

interface Page {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly inside: Inside;
  readonly remarks: readonly Remark[];
}

/** Page size and the map of the root's units onto it, y up. A size that is not stated follows the view box. */
function pageOf(root: SvgElement, pxPerInch: number): Result<Page, FileProblem> {
  const box = parseViewBox(root.attributes.viewBox);
  const size = (name: 'width' | 'height', fallback: number | undefined): number | null => {
    const words = root.attributes[name];
    if (words === undefined || words.includes('%')) return fallback ?? null;
    const px = svgLength(words, 0);
    if (px === null || px <= 0) return null;
    return isPlainNumber(words) ? px : (px * pxPerInch) / 96;
  };
  const width = size('width', box?.[2]);
  const height = size('height', box?.[3]);
  if (width === null || height === null)
    return fail(
      problem(
        'not-understood',
        'root',
        'The drawing states no size: width and height in mm, or a viewBox, are needed.',
      ),
    );
  const toPx = box ? viewMap(box, { width, height }, root.attributes.preserveAspectRatio) : translation<'file'>(0, 0);
  const mm = MM_PER_INCH / pxPerInch;
  const heightMm = height * mm;
  const toPage = { xx: mm, xy: 0, yx: 0, yy: -mm, tx: 0, ty: heightMm } as ToPage;
  const isStated = [root.attributes.width, root.attributes.height].every(
    (words) => words !== undefined && !words.includes('%') && !isPlainNumber(words),
  );
  return ok({
    widthMm: width * mm,
    heightMm,
    inside: {
      map: root.attributes.transform === undefined ? joined(toPx, toPage) : null,
      view: box ? { width: box[2], height: box[3] } : { width, height },
      layer: NO_LAYER,
      isDrawn: true,
      isClipped: false,
    },
    remarks: isStated
      ? []
      : [
          {
            kind: 'size-not-stated',
            words: `The drawing's size is in plain numbers: taken as ${pxPerInch} to the inch, ${(width * mm).toFixed(2)} x ${heightMm.toFixed(2)} mm.`,
          },
        ],
  });
}

/** The layer an element opens: a layer of a drawing program, or the outermost group that has a name. */
function layerOf(element: SvgElement, above: string): string {
  if (element.name !== 'g') return above;
  const { id } = element.attributes;
  const label = element.attributes['inkscape:label'] ?? id;
  const isLayer = element.attributes['inkscape:groupmode'] === 'layer';
  return label !== undefined && (isLayer || above === NO_LAYER) ? label : above;
}

/** A drawing inside the drawing: its own view at its own place. */
function nestedView(element: SvgElement, above: Inside): { readonly map: Inner | null; readonly view: View } {
  const length = (name: string, base: number, absent: number): number =>
    element.attributes[name] === undefined ? absent : (svgLength(element.attributes[name], base) ?? NaN);
  const x = length('x', above.view.width, 0);
  const y = length('y', above.view.height, 0);
  const width = length('width', above.view.width, above.view.width);
  const height = length('height', above.view.height, above.view.height);
  if (![x, y, width, height].every(Number.isFinite)) return { map: null, view: above.view };
  const box = parseViewBox(element.attributes.viewBox);
  const place = translation<'file'>(x, y);
  if (!box) return { map: place, view: { width, height } };
  const inner = viewMap(box, { width, height }, element.attributes.preserveAspectRatio);
  return { map: inner && then(inner, place), view: { width: box[2], height: box[3] } };
}

function isClippedBy(sheet: StyleSheet, element: SvgElement): boolean {
  // A drawing inside the drawing shows nothing beyond its own box, unless told to.
  if (element.name === 'svg' && element.attributes.overflow !== 'visible') return true;
  return ['clip-path', 'mask'].some((name) => (ownValue(sheet, element, name) ?? 'none') !== 'none');
}

function insideOf(sheet: StyleSheet, element: SvgElement, above: Inside): Inside {
  const isDrawn = above.isDrawn && GROUPS.has(element.name);
  if (!isDrawn) return { ...above, isDrawn };
  const own = transformOf(sheet, element);
  const nested = element.name === 'svg' ? nestedView(element, above) : { map: own, view: above.view };
  const map = element.name === 'svg' && nested.map && own ? then(nested.map, own) : nested.map;
  return {
    map: joined(map, above.map),
    view: nested.view,
    layer: layerOf(element, above.layer),
    isDrawn,
    isClipped: above.isClipped || isClippedBy(sheet, element),
  };
}

function kindOf(name: string): SvgLeaf['kind'] | null {
  if (SHAPES.has(name)) return 'shape';
  if (name === 'use' || name === 'text') return name;
  return null;
}

/** Leaves of a tree: groups are walked in the tree's order, without recursion. */
function leavesOf(tree: SvgTree, sheet: StyleSheet, page: Inside): readonly SvgLeaf[] {
  const insides: Inside[] = [page];
  const leaves: SvgLeaf[] = [];
  for (const [index, element] of tree.elements.entries()) {
    const above = insides[element.parent];
    if (!above) continue;
    const kind = kindOf(element.name);
    if (kind && above.isDrawn) {
      leaves.push({
        index,
        kind,
        layer: above.layer,
        parentMap: above.map,
        ownMap: transformOf(sheet, element),
        view: above.view,
        isClipped: above.isClipped || isClippedBy(sheet, element),
      });
    }
    insides[index] = kind ? { ...above, isDrawn: false } : insideOf(sheet, element, above);
  }
  return leaves;
}

/** Everything that an SVG draws, with the map of each to the page. */
export function readSvgScene(text: string, options: ReadOptions = {}): Result<SvgScene, FileProblem> {
  const read = readSvgTree(text);
  if (!read.ok) return read;
  const tree = read.value;
  const sheet = readStyles(tree.styles);
  if (!sheet.ok) return sheet;
  const root = tree.elements[0];
  const page = root
    ? pageOf(root, options.pxPerInch ?? 96)
    : fail(problem('not-a-drawing', 'root', 'The file is empty.'));
  if (!page.ok) return page;
  const { widthMm, heightMm, inside, remarks } = page.value;
  return ok({
    tree,
    colours: coloursOf(tree, sheet.value),
    widthMm,
    heightMm,
    leaves: leavesOf(tree, sheet.value, inside),
    remarks: [...remarks, ...styleRemarks(sheet.value)],
  });
}

function styleRemarks({ notUnderstood }: StyleSheet): readonly Remark[] {
  if (notUnderstood.length === 0) return [];
  const words = `Style rules that colour by relation are not followed: ${notUnderstood.slice(0, 5).join(', ')}. Look at the colours below before you choose.`;
  return [{ kind: 'style-not-understood', words }];
}
