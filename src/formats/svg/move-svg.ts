import { apply, invert, then, type Affine, type Point } from '@/core/geometry/affine';
import { lineAsCubic, moveCubic } from '@/core/geometry/cubic';
import { affineInside, movePoint } from '@/core/geometry/plane-move';
import { fail, ok, type Result } from '@/core/result';
import {
  BEND_TOLERANCE_MM,
  MOST_PIECES,
  problem,
  tellProgress,
  tooFar,
  tooManyPieces,
  type Box,
  type FileProblem,
  type MovedFile,
  type MoveRequest,
  type ReadOptions,
  type Remark,
  type Survey,
} from '../cut-file/cut-file';
import { boxChange, extentRemark, groupsOf, growBox, isNear, linesOf, type Drawn } from '../cut-file/extent';
import { spliced, type Edit } from '../cut-file/splice';
import { childrenOf, idsOf, leafHull, leafLines, shapesOf, type Lookup } from './svg-content';
import { afterName, attributeSpan, type SvgElement } from './svg-elements';
import { outlineOf, type SubPath } from './svg-outline';
import { placeWords, readSvgScene, type SvgLeaf, type SvgScene } from './svg-scene';
import { matrixWords } from './svg-transform';

const lookupOf = (scene: SvgScene): Lookup => ({
  children: childrenOf(scene.tree),
  ids: idsOf(scene.tree),
  found: new Map(),
});

/** What a shape is drawn in when neither it nor anything around it says: SVG's own default. */
const DEFAULT_COLOUR = '#000000';

/**
 * Colours of what a leaf draws; a use's content takes the colour of the use where it has none of its own. Of a use that
 * cannot be followed only its own colour is known.
 */
function coloursOfLeaf(scene: SvgScene, lookup: Lookup, leaf: SvgLeaf): ReadonlySet<string> {
  const own = scene.colours[leaf.index] ?? DEFAULT_COLOUR;
  const shapes = leaf.kind === 'use' ? shapesOf(scene.tree, lookup, leaf) : null;
  return shapes ? new Set(shapes.map((s) => scene.colours[s.index] ?? own)) : new Set([own]);
}

function drawnOf(scene: SvgScene, lookup: Lookup): readonly Drawn[] {
  return scene.leaves
    .filter((leaf) => leaf.kind !== 'text')
    .flatMap((leaf) => {
      const hull = leafHull(scene, lookup, leaf);
      const box = hull && growBox(null, hull);
      const lines = () => leafLines(scene, lookup, leaf);
      return [...coloursOfLeaf(scene, lookup, leaf)].map((colour) => ({ colour, layer: leaf.layer, box, lines }));
    });
}

/** What an SVG draws, by colour and by layer. */
export function surveySvg(text: string, options: ReadOptions = {}): Result<Survey, FileProblem> {
  const scene = readSvgScene(text, options);
  if (!scene.ok) return scene;
  const { widthMm, heightMm, remarks } = scene.value;
  const drawn = drawnOf(scene.value, lookupOf(scene.value));
  return ok({ format: 'svg', widthMm, heightMm, groups: groupsOf(drawn), lines: linesOf(drawn), remarks });
}

type Chosen = 'all' | 'none' | 'some';

function chosenPart(scene: SvgScene, lookup: Lookup, leaf: SvgLeaf, request: MoveRequest): Chosen {
  if (request.by === 'layer') return request.names.includes(leaf.layer) ? 'all' : 'none';
  const colours = [...coloursOfLeaf(scene, lookup, leaf)];
  const inside = colours.filter((c) => request.names.includes(c));
  if (inside.length === 0) return 'none';
  return inside.length === colours.length ? 'all' : 'some';
}

/** Puts the move in front of a leaf's own transform: curves, arcs and shapes stay what they are. */
function turnedLeaf(scene: SvgScene, leaf: SvgLeaf, local: Affine<'file', 'file'>): Edit {
  const element = scene.tree.elements[leaf.index] as SvgElement;
  const span = attributeSpan(scene.tree, element, 'transform');
  const words = matrixWords(local);
  if (span) return { start: span[0], end: span[0], words: `${words} ` };
  const at = afterName(scene.tree, element);
  return { start: at, end: at, words: ` transform="${words}"` };
}

const GEOMETRY: ReadonlySet<string> = new Set([
  'd',
  'x',
  'y',
  'width',
  'height',
  'rx',
  'ry',
  'cx',
  'cy',
  'r',
  'x1',
  'y1',
  'x2',
  'y2',
  'points',
]);

const pair = (p: Point<'file'>): string => `${Number(p.x.toPrecision(12))} ${Number(p.y.toPrecision(12))}`;

interface Bend {
  readonly toPage: Affine<'file', 'page'>;
  readonly back: Affine<'page', 'file'>;
  readonly request: MoveRequest;
  readonly left: { pieces: number };
}

function bentPath(path: SubPath, { toPage, back, request, left }: Bend): string {
  const words = [`M${pair(apply(back, movePoint(request.move, apply(toPage, path.start))))}`];
  let here = path.start;
  const pieces = path.isClosed ? [...path.pieces, { kind: 'line' as const, to: path.start }] : path.pieces;
  for (const piece of pieces) {
    const cubic = piece.kind === 'line' ? lineAsCubic(here, piece.to) : piece.cubic;
    here = cubic[3];
    const [a, b, c, d] = cubic.map((p) => apply(toPage, p));
    if (!a || !b || !c || !d || left.pieces <= 0) continue;
    for (const moved of moveCubic(request.move, [a, b, c, d], BEND_TOLERANCE_MM)) {
      left.pieces -= 1;
      words.push(
        `C${moved
          .slice(1)
          .map((p) => pair(apply(back, p)))
          .join(' ')}`,
      );
    }
  }
  if (path.isClosed) words.push('Z');
  return words.join('');
}

/** A shape written anew as a path, for a move that no matrix can make. */
function bentLeaf(scene: SvgScene, leaf: SvgLeaf, request: MoveRequest): Result<readonly Edit[], FileProblem> {
  const { tree } = scene;
  const element = tree.elements[leaf.index] as SvgElement;
  const refuse = (kind: FileProblem['kind'], words: string) => fail(problem(kind, placeWords(tree, leaf.index), words));
  const toPage = leaf.parentMap && leaf.ownMap && then(leaf.ownMap, leaf.parentMap);
  const back = toPage && invert(toPage);
  if (!toPage || !back?.ok || leaf.kind !== 'shape')
    return refuse('cannot-bend', 'Only plain shapes can follow a bow: turn uses into plain paths first.');
  const outline = outlineOf(element, leaf.view);
  if (!outline.ok) return refuse('not-understood', outline.error);
  const left = { pieces: MOST_PIECES };
  const d = outline.value.map((path) => bentPath(path, { toPage, back: back.value, request, left })).join('');
  if (left.pieces <= 0) return fail(tooManyPieces(placeWords(tree, leaf.index)));
  const tag = tree.text.slice(element.start, element.end);
  const kept = [...tag.matchAll(/\s+([^\s=/<>"']+)\s*=\s*(?:"[^"]*"|'[^']*')/g)].filter(
    (m) => !GEOMETRY.has(m[1] ?? ''),
  );
  const name = tag.slice(1, afterName(tree, element) - element.start).replace(element.name, 'path');
  const closing = element.closing;
  const words = `<${name} d="${d}"${kept.map((m) => m[0]).join('')}${closing ? '>' : '/>'}`;
  return ok([
    { start: element.start, end: element.end, words },
    ...(closing ? [{ start: closing[0], end: closing[1], words: `</${name}>` }] : []),
  ]);
}

function movedLeaf(scene: SvgScene, leaf: SvgLeaf, request: MoveRequest): Result<readonly Edit[], FileProblem> {
  if (!leaf.parentMap || !leaf.ownMap)
    return fail(
      problem(
        'not-understood',
        placeWords(scene.tree, leaf.index),
        'Its transform, or one around it, is not understood: flatten transforms first.',
      ),
    );
  const back = invert(leaf.parentMap);
  // Something scaled to nothing is not drawn: it has no place to move from.
  if (!back.ok) return ok([]);
  if (request.move.bow) return bentLeaf(scene, leaf, request);
  return ok([turnedLeaf(scene, leaf, affineInside(request.move.affine, leaf.parentMap, back.value))]);
}

interface Progress {
  readonly edits: Edit[];
  before: Box | null;
  after: Box | null;
  movedCount: number;
  clipped: number;
  texts: number;
  /** Uses of something that cannot be followed, and are not moved. */
  unknown: number;
}

/** A use that cannot be followed: its colour, if it has one, says nothing of what it shows. */
const isUnknownUse = (scene: SvgScene, lookup: Lookup, leaf: SvgLeaf): boolean =>
  leaf.kind === 'use' && !shapesOf(scene.tree, lookup, leaf);

interface Work {
  readonly scene: SvgScene;
  readonly lookup: Lookup;
  readonly request: MoveRequest;
  readonly done: Progress;
}

/** Takes one leaf into what was done; the reason when it cannot be taken. */
function takeLeaf({ scene, lookup, request, done }: Work, leaf: SvgLeaf): FileProblem | null {
  const part = chosenPart(scene, lookup, leaf, request);
  if (leaf.kind === 'text') {
    done.texts += part === 'none' ? 0 : 1;
    return null;
  }
  const hull = leafHull(scene, lookup, leaf) ?? [];
  done.before = growBox(done.before, hull);
  done.after = growBox(done.after, part === 'all' ? hull.map((p) => movePoint(request.move, p)) : hull);
  if (part === 'none') {
    done.unknown += isUnknownUse(scene, lookup, leaf) ? 1 : 0;
    return null;
  }
  if (part === 'some')
    return problem(
      'mixed-use',
      placeWords(scene.tree, leaf.index),
      'It shows lines to cut and others together: unlink the clone in the drawing program first.',
    );
  if (!isNear(hull)) return tooFar(placeWords(scene.tree, leaf.index));
  const edits = movedLeaf(scene, leaf, request);
  if (!edits.ok) return edits.error;
  for (const edit of edits.value) done.edits.push(edit);
  done.movedCount += 1;
  if (leaf.isClipped) done.clipped += 1;
  return null;
}

function remarksOf(done: Progress): readonly Remark[] {
  const remarks: Remark[] = [];
  if (done.texts > 0)
    remarks.push({
      kind: 'text-stays',
      words: `${done.texts} of the chosen lines are text and stay where they are: turn them into outlines first if they are to be cut.`,
    });
  if (done.unknown > 0)
    remarks.push({
      kind: 'not-moved',
      words: `${done.unknown} uses show something that cannot be followed and stay where they are: unlink clones in the drawing program if they are to be cut.`,
    });
  if (done.clipped > 0)
    remarks.push({
      kind: 'clipped',
      words: `${done.clipped} of the moved lines are clipped or masked in the drawing. The clip stays; many cutting programs ignore it and cut the whole line.`,
    });
  return [...remarks, ...extentRemark(boxChange(done.before, done.after))];
}

/** Moves the chosen lines of an SVG and nothing else: every other byte, the size and the view box stay. */
export function moveSvg(text: string, request: MoveRequest, options: ReadOptions = {}): Result<MovedFile, FileProblem> {
  const read = readSvgScene(text, options);
  if (!read.ok) return read;
  const scene = read.value;
  const done: Progress = { edits: [], before: null, after: null, movedCount: 0, clipped: 0, texts: 0, unknown: 0 };
  const work = { scene, lookup: lookupOf(scene), request, done };
  for (const [i, leaf] of scene.leaves.entries()) {
    tellProgress(options, i, scene.leaves.length);
    const wrong = takeLeaf(work, leaf);
    if (wrong) return fail(wrong);
  }
  if (done.movedCount === 0)
    return fail(problem('nothing-to-move', 'choice', 'Nothing in the drawing has the chosen colours or layers.'));
  return ok({
    text: spliced(text, done.edits),
    movedCount: done.movedCount,
    remarks: [...scene.remarks, ...remarksOf(done)],
  });
}
