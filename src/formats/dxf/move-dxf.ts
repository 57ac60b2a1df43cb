import type { Point } from '@/core/geometry/affine';
import { movePoint } from '@/core/geometry/plane-move';
import { fail, ok, type Result } from '@/core/result';
import {
  problem,
  tellProgress,
  tooFar,
  type Box,
  type FileProblem,
  type MovedFile,
  type MoveRequest,
  type ReadOptions,
  type Remark,
  type Survey,
} from '../cut-file/cut-file';
import { boxChange, EIGHTHS, extentRemark, groupsOf, growBox, isNear, linesOf, type Drawn } from '../cut-file/extent';
import { spliced, type Edit } from '../cut-file/splice';
import { readDxfFile, valueOf, type DxfFile } from './dxf-groups';
import { frameOf, itemsOf, looseCorners, outlineOfItem, type DxfItem } from './dxf-items';
import { editsOf, moveInUnits } from './dxf-edits';

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

type At = Point<'file'>;

/** Places of an item in the drawing's units, mirrored frames turned back. */
function placesOf(item: DxfItem): readonly At[] {
  const outline = outlineOfItem(item);
  const own = outline
    ? outline.pieces.flatMap((p) => (p.isStraight ? [p.at(0), p.at(1)] : EIGHTHS.map(p.at)))
    : item.record.type === 'SPLINE' || item.record.type === 'POINT'
      ? looseCorners(item)
      : [];
  return frameOf(item) === 'mirrored' ? own.map((p) => ({ x: -p.x, y: p.y })) : own;
}

const onPage = (places: readonly At[], mm: number): readonly Point<'page'>[] =>
  places.map((p) => ({ x: p.x * mm, y: p.y * mm }));

const MOST_DEEP = 8;
const MOST_SHOWN = 100_000;

/** Everything that blocks show, by the names of what is in them: where it lies is not followed. */
function shownByBlock(file: DxfFile, insert: DxfItem, deep = 0, out: DxfItem[] = []): readonly DxfItem[] {
  if (deep >= MOST_DEEP || out.length > MOST_SHOWN) return out;
  for (const item of itemsOf(file, file.blocks.get(valueOf(insert.record, 2) ?? '') ?? [])) {
    if (item.record.type === 'INSERT') shownByBlock(file, item, deep + 1, out);
    // What lies on layer 0 of a block takes the layer it is inserted on.
    else out.push(item.layer === '0' ? { ...item, layer: insert.layer } : item);
  }
  return out;
}

function drawnOf(file: DxfFile, mm: number): readonly Drawn[] {
  return itemsOf(file, file.entities).flatMap((item): readonly Drawn[] => {
    if (item.record.type === 'INSERT')
      return shownByBlock(file, item).map(({ colour, layer }) => ({ colour, layer, box: null, lines: () => [] }));
    const places = onPage(placesOf(item), mm);
    return [{ colour: item.colour, layer: item.layer, box: growBox(null, places), lines: () => [places] }];
  });
}

/** What a DXF draws, by colour and by layer. It has no page. */
export function surveyDxf(text: string, options: ReadOptions = {}): Result<Survey, FileProblem> {
  const read = readDxfFile(text);
  if (!read.ok) return read;
  const wrong = firstNotFinite(read.value);
  if (wrong) return fail(wrong);
  const unit = unitOf(read.value, options);
  const drawn = drawnOf(read.value, unit.mm);
  const size = { widthMm: null, heightMm: null };
  return ok({ format: 'dxf', ...size, groups: groupsOf(drawn), lines: linesOf(drawn), remarks: unit.remarks });
}

const isNumberCode = (code: number): boolean => (code >= 10 && code <= 59) || (code >= 210 && code <= 239);

const lineOf = (file: DxfFile, at: number): number => file.text.slice(0, at).split(/\r\n|\n|\r/).length;

/** The first coordinate that is no number, or beyond any machine: named by its line. */
function firstNotFinite(file: DxfFile): FileProblem | null {
  for (const { type, groups } of file.entities) {
    for (const { code, value, start } of groups) {
      if (!isNumberCode(code) || (value !== '' && Math.abs(Number(value)) < 1e9)) continue;
      return problem(
        'not-finite',
        `line ${lineOf(file, start)}, ${type}`,
        `"${value.slice(0, 40)}" is no number that a place can have.`,
      );
    }
  }
  return null;
}

interface Progress {
  readonly edits: Edit[];
  readonly left: Map<string, number>;
  before: Box | null;
  after: Box | null;
  movedCount: number;
}

interface Work {
  readonly file: DxfFile;
  readonly request: MoveRequest;
  readonly mm: number;
  readonly done: Progress;
}

const isChosen = (item: Pick<DxfItem, 'layer' | 'colour'>, { by, names }: MoveRequest): boolean =>
  names.includes(by === 'layer' ? item.layer : item.colour);

function whereOf(file: DxfFile, { record }: DxfItem): string {
  return `line ${lineOf(file, record.groups[0]?.start ?? 0)}, ${record.type}`;
}

function takeInsert({ file, request }: Work, item: DxfItem): FileProblem | null {
  if (!shownByBlock(file, item).some((shown) => isChosen(shown, request))) return null;
  const words = `The block "${valueOf(item.record, 2) ?? ''}" holds lines to be moved: explode blocks in the drawing program first.`;
  return problem('mixed-use', whereOf(file, item), words);
}

function takeItem(work: Work, item: DxfItem): FileProblem | null {
  const { file, request, mm, done } = work;
  if (item.record.type === 'INSERT') return takeInsert(work, item);
  const places = onPage(placesOf(item), mm);
  done.before = growBox(done.before, places);
  if (!isChosen(item, request)) {
    done.after = growBox(done.after, places);
    return null;
  }
  if (!isNear(places)) return tooFar(whereOf(file, item));
  if (frameOf(item) === 'tilted')
    return problem('not-understood', whereOf(file, item), 'It is tilted out of the plane: flatten the drawing first.');
  const isMirrored = frameOf(item) === 'mirrored';
  const move = moveInUnits(request.move, mm, isMirrored);
  const edits = editsOf(item, { version: file.version, mm, move, isMirrored });
  if (edits === 'cannot-bend')
    return problem('cannot-bend', whereOf(file, item), 'It cannot follow a bow: turn it into plain lines first.');
  done.after = growBox(done.after, edits ? places.map((p) => movePoint(request.move, p)) : places);
  if (!edits) {
    done.left.set(item.record.type, (done.left.get(item.record.type) ?? 0) + 1);
    return null;
  }
  for (const edit of edits) done.edits.push(edit);
  done.movedCount += 1;
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
  const done: Progress = { edits: [], left: new Map(), before: null, after: null, movedCount: 0 };
  const items = itemsOf(file, file.entities);
  for (const [i, item] of items.entries()) {
    tellProgress(options, i, items.length);
    const refused = takeItem({ file, request, mm: unit.mm, done }, item);
    if (refused) return fail(refused);
  }
  if (done.movedCount === 0)
    return fail(problem('nothing-to-move', 'choice', 'No line in the drawing has the chosen colours or layers.'));
  return ok({
    text: spliced(text, done.edits),
    movedCount: done.movedCount,
    remarks: [...unit.remarks, ...leftRemark(done.left), ...extentRemark(boxChange(done.before, done.after))],
  });
}
