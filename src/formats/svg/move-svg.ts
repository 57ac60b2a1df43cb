import { identity, invert, then, type Affine } from '@/core/geometry/affine';
import { affineInside } from '@/core/geometry/plane-move';
import { fail, ok, type Result } from '@/core/result';
import {
  MOST_PIECES,
  problem,
  tellProgress,
  tooFar,
  type FileProblem,
  type MovedFile,
  type MoveRequest,
  type PiecesLeft,
  type ReadOptions,
  type Remark,
  type Survey,
} from '../cut-file/cut-file';
import {
  boxChange,
  extentOf,
  extentRemark,
  gatherer,
  isNear,
  measureLine,
  noBoxes,
  type Extent,
  type OuterBoxes,
} from '../cut-file/extent';
import { spliced, type Edit } from '../cut-file/splice';
import { childrenOf, eachLeafPlace, idsOf, leafLines, shapesOf, type Lookup } from './svg-content';
import { afterName, attributeSpan, type SvgElement } from './svg-elements';
import { bentLeaf } from './svg-bend';
import { movedInside } from './svg-clones';
import { placeWords, readSvgScene, type SvgLeaf, type SvgScene } from './svg-scene';
import { matrixWords, parseTransform } from './svg-transform';

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

function extentOfLeaf(scene: SvgScene, lookup: Lookup, leaf: SvgLeaf): Extent {
  return extentOf((visit) => {
    eachLeafPlace(scene, lookup, leaf, visit);
  });
}

/** What an SVG draws, by colour and by layer. */
export function surveySvg(text: string, options: ReadOptions = {}): Result<Survey, FileProblem> {
  const read = readSvgScene(text, options);
  if (!read.ok) return read;
  const scene = read.value;
  const lookup = lookupOf(scene);
  const { take, gathered } = gatherer();
  for (const leaf of scene.leaves) {
    if (leaf.kind === 'text') continue;
    const extent = extentOfLeaf(scene, lookup, leaf);
    const lines = () => leafLines(scene, lookup, leaf);
    for (const colour of coloursOfLeaf(scene, lookup, leaf))
      take({ colour, layer: leaf.layer, count: 1, extent, lines });
  }
  const { widthMm, heightMm, remarks } = scene;
  return ok({ format: 'svg', widthMm, heightMm, ...gathered(), remarks });
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

interface Progress {
  readonly edits: Edit[];
  /** What was put in front of the transform of each moved element, in the units around it. */
  readonly moved: Map<number, Affine<'file', 'file'>>;
  /** Lines that were bent: their coordinates are others now, wherever they are shown. */
  readonly bent: Set<number>;
  /** Pieces that bending may still come to. */
  readonly left: PiecesLeft;
  readonly outer: OuterBoxes;
  movedCount: number;
  clipped: number;
  texts: number;
  /** Uses of something that cannot be followed, and are not moved. */
  unknown: number;
}

interface Work {
  readonly scene: SvgScene;
  readonly lookup: Lookup;
  readonly request: MoveRequest;
  readonly done: Progress;
}

function movedLeaf(work: Work, leaf: SvgLeaf): Result<readonly Edit[], FileProblem> {
  const { scene, request, done } = work;
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
  if (request.move.bow) {
    done.bent.add(leaf.index);
    return bentLeaf(scene, leaf, request.move, done.left);
  }
  const wanted = affineInside(request.move.affine, leaf.parentMap, back.value);
  return turned(work, leaf, wanted);
}

const MIXED_CLONE =
  'It shows lines that are moved by themselves as well: unlink the clone in the drawing program first.';

/** Puts a move in front of a leaf's transform, less what its content was moved by already where it is a clone. */
function turned(
  { scene, lookup, done }: Work,
  leaf: SvgLeaf,
  wanted: Affine<'file', 'file'>,
): Result<readonly Edit[], FileProblem> {
  const inside = leaf.kind === 'use' ? insideOf(scene, lookup, leaf, done) : identity<'file'>();
  const back = inside && invert(inside);
  if (!back?.ok) return fail(problem('mixed-use', placeWords(scene.tree, leaf.index), MIXED_CLONE));
  const local = then(back.value, wanted);
  if (isIdentity(local)) return ok([]);
  done.moved.set(leaf.index, local);
  return ok([turnedLeaf(scene, leaf, local)]);
}

/** By how much a clone's content was moved already; null where no one transform puts that right. */
function insideOf(scene: SvgScene, lookup: Lookup, leaf: SvgLeaf, done: Progress): Affine<'file', 'file'> | null {
  const shapes = shapesOf(scene.tree, lookup, leaf) ?? [];
  if (shapes.some((s) => done.bent.has(s.index))) return null;
  return movedInside(shapes, done.moved, (index) =>
    parseTransform(scene.tree.elements[index]?.attributes.transform ?? ''),
  );
}

const isIdentity = (map: Affine<'file', 'file'>): boolean =>
  map.xx === 1 && map.xy === 0 && map.yx === 0 && map.yy === 1 && map.tx === 0 && map.ty === 0;

/** A clone that is not to be moved stays, though its original is moved. */
function keptClone(work: Work, leaf: SvgLeaf): FileProblem | null {
  const kept = turned(work, leaf, identity<'file'>());
  if (!kept.ok) return kept.error;
  for (const edit of kept.value) work.done.edits.push(edit);
  return null;
}

/** A use that cannot be followed: its colour, if it has one, says nothing of what it shows. */
const isUnknownUse = (scene: SvgScene, lookup: Lookup, leaf: SvgLeaf): boolean =>
  leaf.kind === 'use' && !shapesOf(scene.tree, lookup, leaf);

/** Takes one leaf into what was done; the reason when it cannot be taken. */
function takeLeaf(work: Work, leaf: SvgLeaf): FileProblem | null {
  const { scene, lookup, request, done } = work;
  const part = chosenPart(scene, lookup, leaf, request);
  if (leaf.kind === 'text') {
    done.texts += part === 'none' ? 0 : 1;
    return null;
  }
  const extent = measureLine(
    done.outer,
    (visit) => {
      eachLeafPlace(scene, lookup, leaf, visit);
    },
    part === 'all' ? request.move : null,
  );
  if (part === 'none') {
    done.unknown += isUnknownUse(scene, lookup, leaf) ? 1 : 0;
    return leaf.kind === 'use' ? keptClone(work, leaf) : null;
  }
  if (part === 'some')
    return problem(
      'mixed-use',
      placeWords(scene.tree, leaf.index),
      'It shows lines to cut and others together: unlink the clone in the drawing program first.',
    );
  if (!isNear(extent)) return tooFar(placeWords(scene.tree, leaf.index));
  const edits = movedLeaf(work, leaf);
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
  return [...remarks, ...extentRemark(boxChange(done.outer))];
}

/** Moves the chosen lines of an SVG and nothing else: every other byte, the size and the view box stay. */
export function moveSvg(text: string, request: MoveRequest, options: ReadOptions = {}): Result<MovedFile, FileProblem> {
  const read = readSvgScene(text, options);
  if (!read.ok) return read;
  const scene = read.value;
  const done: Progress = {
    edits: [],
    moved: new Map(),
    bent: new Set(),
    left: { pieces: MOST_PIECES },
    outer: noBoxes(),
    movedCount: 0,
    clipped: 0,
    texts: 0,
    unknown: 0,
  };
  const work = { scene, lookup: lookupOf(scene), request, done };
  // Clones come last: what they show may have been moved by then.
  const leaves = [...scene.leaves].sort((a, b) => Number(a.kind === 'use') - Number(b.kind === 'use'));
  for (const [i, leaf] of leaves.entries()) {
    tellProgress(options, i, i / scene.leaves.length);
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
