import type { Point } from '@/core/geometry/affine';
import { fail, ok, type Result } from '@/core/result';
import {
  MOST_PIECES,
  problem,
  tellProgress,
  tooFar,
  tooManyPieces,
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
  EIGHTHS,
  emptyExtent,
  extentOf,
  extentRemark,
  gatherer,
  isNear,
  measureLine,
  noBoxes,
  type Drawn,
  type OuterBoxes,
} from '../cut-file/extent';
import { splicer, type Splicer } from '../cut-file/splice';
import { readDxfFile, valueAt, valueOf, type DxfFile, type DxfRecord } from './dxf-groups';
import { eachLooseCorner, frameOf, itemsOf, outlineOfItem, type DxfItem } from './dxf-items';
import { LOOSE, moveInUnits, writeMoved } from './dxf-edits';
import { shownBy, type Shown } from './dxf-blocks';

/** mm of the unit codes. Source: DXF reference, header variable $INSUNITS, from memory; 0 is "no unit". */
const MM_PER: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 0.0000254,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};

interface Unit {
  readonly mm: number;
  readonly remarks: readonly Remark[];
}

function unitOf(file: DxfFile, options: ReadOptions): Unit {
  const stated = MM_PER[file.unitCode];
  if (stated !== undefined) return { mm: stated, remarks: [] };
  const { mmPerUnit = 1 } = options;
  const words = `The drawing states no unit: one unit is taken as ${mmPerUnit} mm.`;
  return { mm: mmPerUnit, remarks: [{ kind: 'unit-not-stated', words }] };
}

/** Visits the places of an item on the page; mirrored frames are turned back. */
function eachPlaceOf(item: DxfItem, mm: number, visit: (place: Point<'page'>) => void): void {
  const side = frameOf(item) === 'mirrored' ? -mm : mm;
  const onPage = (p: Point<'file'>): void => {
    visit({ x: p.x * side, y: p.y * mm });
  };
  const outline = outlineOfItem(item);
  if (!outline) {
    if (LOOSE.has(item.record.type)) eachLooseCorner(item, onPage);
    return;
  }
  for (const piece of outline.pieces())
    for (const share of piece.isStraight ? [0, 1] : EIGHTHS) onPage(piece.at(share));
}

function drawnOf(item: DxfItem, mm: number): Drawn {
  const { colour, layer } = item;
  const extent = extentOf((visit) => {
    eachPlaceOf(item, mm, visit);
  });
  const lines = (): readonly (readonly Point<'page'>[])[] => {
    const places: Point<'page'>[] = [];
    eachPlaceOf(item, mm, (place) => places.push(place));
    return [places];
  };
  return { colour, layer, count: 1, extent, lines };
}

/** What a block shows has no place of its own that is followed. */
const drawnInBlock = ({ colour, layer, count }: Shown): Drawn => ({
  colour,
  layer,
  count,
  extent: emptyExtent(),
  lines: () => [],
});

/** What a DXF draws, by colour and by layer. It has no page. */
export function surveyDxf(text: string, options: ReadOptions = {}): Result<Survey, FileProblem> {
  const read = readDxfFile(text);
  if (!read.ok) return read;
  const wrong = firstNotFinite(read.value);
  if (wrong) return fail(wrong);
  const unit = unitOf(read.value, options);
  const { take, gathered } = gatherer();
  const shown = shownBy(read.value);
  for (const item of itemsOf(read.value, read.value.entities)) {
    if (item.record.type === 'INSERT') for (const inside of shown(item)) take(drawnInBlock(inside));
    else take(drawnOf(item, unit.mm));
  }
  return ok({ format: 'dxf', widthMm: null, heightMm: null, ...gathered(), remarks: unit.remarks });
}

const isNumberCode = (code: number): boolean => (code >= 10 && code <= 59) || (code >= 210 && code <= 239);

/** The first coordinate that is no number, or beyond any machine: named by its line. */
function firstNotFinite(file: DxfFile): FileProblem | null {
  for (const { type, groups, from, to } of file.entities) {
    for (let i = from; i < to; i++) {
      if (!isNumberCode(groups.codes[i] ?? 0)) continue;
      const value = valueAt(groups, i);
      if (value !== '' && Math.abs(Number(value)) < 1e9) continue;
      return problem(
        'not-finite',
        `line ${2 * i + 2}, ${type}`,
        `"${value.slice(0, 40)}" is no number that a place can have.`,
      );
    }
  }
  return null;
}

interface Progress {
  readonly out: Splicer;
  /** Chosen things that are no lines to cut, by their type. */
  readonly notCut: Map<string, number>;
  readonly left: PiecesLeft;
  readonly outer: OuterBoxes;
  movedCount: number;
}

interface Work {
  readonly file: DxfFile;
  readonly request: MoveRequest;
  readonly mm: number;
  readonly shown: (insert: DxfItem) => Iterable<Shown>;
  readonly done: Progress;
}

const isChosen = (item: Pick<DxfItem, 'layer' | 'colour'>, { by, names }: MoveRequest): boolean =>
  names.includes(by === 'layer' ? item.layer : item.colour);

const whereOf = ({ type, from }: DxfRecord): string => `line ${2 * from + 2}, ${type}`;

function takeInsert({ shown, request }: Work, item: DxfItem): FileProblem | null {
  for (const inside of shown(item)) {
    if (!isChosen(inside, request)) continue;
    const words = `The block "${valueOf(item.record, 2) ?? ''}" holds lines to be moved: explode blocks in the drawing program first.`;
    return problem('mixed-use', whereOf(item.record), words);
  }
  return null;
}

function takeItem(work: Work, item: DxfItem): FileProblem | null {
  const { file, request, mm, done } = work;
  const { record } = item;
  if (record.type === 'INSERT') return takeInsert(work, item);
  // What is no line to cut has no places, so that its box counts for nothing either way.
  const isMoved = isChosen(item, request);
  const own = measureLine(
    done.outer,
    (visit) => {
      eachPlaceOf(item, mm, visit);
    },
    isMoved ? request.move : null,
  );
  if (!isMoved) return null;
  if (!isNear(own)) return tooFar(whereOf(record));
  if (frameOf(item) === 'tilted')
    return problem('not-understood', whereOf(record), 'It is tilted out of the plane: flatten the drawing first.');
  const isMirrored = frameOf(item) === 'mirrored';
  const move = moveInUnits(request.move, mm, isMirrored);
  const written = writeMoved(item, { version: file.version, mm, move, isMirrored, left: done.left }, done.out);
  if (done.left.pieces <= 0) return tooManyPieces(whereOf(record));
  if (written === 'cannot-bend')
    return problem('cannot-bend', whereOf(record), 'It cannot follow a bow: turn it into plain lines first.');
  if (written === 'not-cut') done.notCut.set(record.type, (done.notCut.get(record.type) ?? 0) + 1);
  else done.movedCount += 1;
  return null;
}

function leftRemark(left: ReadonlyMap<string, number>): readonly Remark[] {
  if (left.size === 0) return [];
  const list = [...left].map(([type, count]) => `${count} ${type}`).join(', ');
  return [
    { kind: 'not-moved', words: `Among the chosen lines these are not lines to cut, and stay as they are: ${list}.` },
  ];
}

/** Moves the chosen entities of a DXF and nothing else; every other byte stays. */
export function moveDxf(text: string, request: MoveRequest, options: ReadOptions = {}): Result<MovedFile, FileProblem> {
  const read = readDxfFile(text);
  if (!read.ok) return read;
  const file = read.value;
  const wrong = firstNotFinite(file);
  if (wrong) return fail(wrong);
  const unit = unitOf(file, options);
  const done: Progress = {
    out: splicer(text),
    notCut: new Map(),
    left: { pieces: MOST_PIECES },
    outer: noBoxes(),
    movedCount: 0,
  };
  const work: Work = { file, request, mm: unit.mm, shown: shownBy(file), done };
  let count = 0;
  for (const item of itemsOf(file, file.entities)) {
    count += 1;
    tellProgress(options, count, item.record.to / file.groups.count);
    const refused = takeItem(work, item);
    if (refused) return fail(refused);
  }
  if (done.movedCount === 0)
    return fail(problem('nothing-to-move', 'choice', 'No line in the drawing has the chosen colours or layers.'));
  return ok({
    text: done.out.finished(),
    movedCount: done.movedCount,
    remarks: [...unit.remarks, ...leftRemark(done.notCut), ...extentRemark(boxChange(done.outer))],
  });
}
