import { apply, invert, then, type Affine, type Point } from '@/core/geometry/affine';
import { lineAsCubic, moveCubic } from '@/core/geometry/cubic';
import { bowHeight, movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { fail, ok, type Result } from '@/core/result';
import { BEND_TOLERANCE_MM, problem, tooManyPieces, type FileProblem, type PiecesLeft } from '../cut-file/cut-file';
import { joiner, type Edit } from '../cut-file/splice';
import { afterName, type SvgElement, type SvgTree } from './svg-elements';
import { outlineOf, type OutlinePiece, type SubPath } from './svg-outline';
import { placeWords, type SvgLeaf, type SvgScene } from './svg-scene';

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
  readonly move: PlaneMove;
  readonly left: PiecesLeft;
  readonly out: ReturnType<typeof joiner>;
}

function writeBentPiece(piece: OutlinePiece, here: Point<'file'>, { toPage, back, move, left, out }: Bend): void {
  const onPage = (p: Point<'file'>): Point<'page'> => apply(toPage, p);
  const inFile = (p: Point<'page'>): string => pair(apply(back, p));
  const from = onPage(here);
  if (piece.kind === 'line' && bowHeight(move, from, onPage(piece.to)) < BEND_TOLERANCE_MM / 2) {
    out.take(`L${inFile(movePoint(move, onPage(piece.to)))}`);
    return;
  }
  const [, b, c, d] = piece.kind === 'line' ? lineAsCubic(here, piece.to) : piece.cubic;
  for (const moved of moveCubic(move, [from, onPage(b), onPage(c), onPage(d)], BEND_TOLERANCE_MM)) {
    left.pieces -= 1;
    out.take(`C${inFile(moved[1])} ${inFile(moved[2])} ${inFile(moved[3])}`);
  }
}

function writeBentPath({ start, pieces, isClosed }: SubPath, bend: Bend): void {
  const { toPage, back, move, left, out } = bend;
  out.take(`M${pair(apply(back, movePoint(move, apply(toPage, start))))}`);
  let here = start;
  for (const piece of pieces) {
    if (left.pieces <= 0) return;
    writeBentPiece(piece, here, bend);
    here = piece.kind === 'line' ? piece.to : piece.cubic[3];
  }
  if (!isClosed) return;
  writeBentPiece({ kind: 'line', to: start }, here, bend);
  out.take('Z');
}

/** From a leaf's own units to the page, and back; null where there is no way back. */
function mapsOf({ parentMap, ownMap }: SvgLeaf): Pick<Bend, 'toPage' | 'back'> | null {
  const toPage = parentMap && ownMap && then(ownMap, parentMap);
  const back = toPage && invert(toPage);
  return toPage && back?.ok ? { toPage, back: back.value } : null;
}

/** A shape written anew as a path, for a move that no matrix can make. */
export function bentLeaf(
  { tree }: SvgScene,
  leaf: SvgLeaf,
  move: PlaneMove,
  left: PiecesLeft,
): Result<readonly Edit[], FileProblem> {
  const element = tree.elements[leaf.index] as SvgElement;
  const refuse = (kind: FileProblem['kind'], words: string) => fail(problem(kind, placeWords(tree, leaf.index), words));
  const maps = leaf.kind === 'shape' ? mapsOf(leaf) : null;
  if (!maps) return refuse('cannot-bend', 'Only plain shapes can follow a bow: turn uses into plain paths first.');
  const outline = outlineOf(element, leaf.view);
  if (!outline.ok) return refuse('not-understood', outline.error);
  const out = joiner();
  for (const path of outline.value) writeBentPath(path, { ...maps, move, left, out });
  const d = out.joined();
  if (left.pieces <= 0) return fail(tooManyPieces(placeWords(tree, leaf.index)));
  return ok(asPath(tree, element, d));
}

/** A shape's tags written as a path's, with all of its attributes but those of its geometry. */
function asPath(tree: SvgTree, element: SvgElement, d: string): readonly Edit[] {
  const tag = tree.text.slice(element.start, element.end);
  const kept = [...tag.matchAll(/\s+([^\s=/<>"']+)\s*=\s*(?:"[^"]*"|'[^']*')/g)].filter(
    (m) => !GEOMETRY.has(m[1] ?? ''),
  );
  const name = tag.slice(1, afterName(tree, element) - element.start).replace(element.name, 'path');
  const closing = element.closing;
  const words = `<${name} d="${d}"${kept.map((m) => m[0]).join('')}${closing ? '>' : '/>'}`;
  return [
    { start: element.start, end: element.end, words },
    ...(closing ? [{ start: closing[0], end: closing[1], words: `</${name}>` }] : []),
  ];
}
