import type { Point } from '@/core/geometry/affine';
import { moveAllInto } from '@/core/geometry/move-all';
import { movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { fail, ok, type Result } from '@/core/result';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';
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
import { boxChange, extentRemark, groupsOf, growBox, isNear, linesOf, type Drawn } from '../cut-file/extent';
import { spliced, type Edit } from '../cut-file/splice';
import { readInstructions } from './hpgl-commands';
import { movedPoints, pointsOf, strokesOf, type HpglStroke } from './hpgl-strokes';

const isDrawn = (stroke: HpglStroke): boolean =>
  stroke.path.length > 0 && (stroke.isDown || stroke.instruction.name === 'CI');

/** What a plotter file draws, by pen. It has no page. */
export function surveyHpgl(text: string): Result<Survey, FileProblem> {
  const read = readInstructions(text);
  if (!read.ok) return read;
  const drawn = strokesOf(read.value)
    .filter(isDrawn)
    .map((s): Drawn => {
      const points = pointsOf(s);
      return { colour: s.pen, layer: s.pen, box: growBox(null, points), lines: () => [points] };
    });
  const size = { widthMm: null, heightMm: null };
  return ok({ format: 'hpgl', ...size, groups: groupsOf(drawn), lines: linesOf(drawn), remarks: [] });
}

const unit = (mm: number): number => Math.round(mm * PLOTTER_UNITS_PER_MM);
const pairs = (points: readonly Point<'page'>[]): string => points.map((p) => `${unit(p.x)},${unit(p.y)}`).join(',');

/** Absolute lines under an affine move, all at once: files of a million points are mostly these. */
function straightWords({ instruction: { name, values } }: HpglStroke, { affine }: PlaneMove): string {
  const places = Float64Array.from(values, (v) => v / PLOTTER_UNITS_PER_MM);
  moveAllInto(affine, places, places);
  return `${name}${Array.from(places, unit).join(',')};`;
}

const LINES: ReadonlySet<string> = new Set(['PU', 'PD', 'PA']);

/** Written in absolute places, and the file's own way taken up again afterwards. */
const inAbsolute = (stroke: HpglStroke, words: string): string => (stroke.isRelative ? `PA;${words}PR;` : words);

/** A moved circle: lifted to its rim, round it, and back to its middle. */
function circleWords(stroke: HpglStroke, { move }: MoveRequest): string {
  const [toRim, ...round] = stroke.path;
  const rim = toRim?.to ?? stroke.from;
  const drawn = pairs(movedPoints(rim, round, move));
  const lifted = (p: Point<'page'>): string => `PU${pairs([movePoint(move, p)])};`;
  return inAbsolute(stroke, `${lifted(rim)}PD${drawn};${lifted(stroke.from)}${stroke.isDown ? 'PD;' : ''}`);
}

/** A moved stroke in absolute places. */
function strokeWords(stroke: HpglStroke, request: MoveRequest): string {
  const { name } = stroke.instruction;
  if (name === 'CI') return circleWords(stroke, request);
  if (!request.move.bow && !stroke.isRelative && LINES.has(name)) return straightWords(stroke, request.move);
  const verb = LINES.has(name) ? name : 'PA';
  // A lifted tool may go straight: only where it comes down counts.
  const points = isDrawn(stroke)
    ? movedPoints(stroke.from, stroke.path, request.move)
    : stroke.path.map((p) => movePoint(request.move, p.to));
  return inAbsolute(stroke, `${verb}${pairs(points)};`);
}

/** Between a moved pen and one that stays, the tool must first go where the next stroke begins. */
function goTo(stroke: HpglStroke, from: Point<'page'>): string {
  return inAbsolute(stroke, `PU${pairs([from])};${stroke.isDown && stroke.instruction.name !== 'PD' ? 'PD;' : ''}`);
}

/** A stroke that begins with a lifted move to a stated place needs no way; a moved circle is written with its own. */
function goesThereItself(stroke: HpglStroke, isMoved: boolean): boolean {
  if (stroke.instruction.name === 'CI') return isMoved;
  return !stroke.isRelative && !stroke.isDown && stroke.path.every((p) => p.kind === 'line');
}

/** Pens go up and down a few times in a row at most. */
const LOOKED_AHEAD = 16;

interface Progress {
  readonly edits: Edit[];
  before: Box | null;
  after: Box | null;
  movedCount: number;
  /** Whether the tool stands where a moved stroke ended. */
  isAside: boolean;
}

function measureBoxes(stroke: HpglStroke, isMoved: boolean, { move }: MoveRequest, done: Progress): void {
  if (!isDrawn(stroke)) return;
  const points = pointsOf(stroke);
  done.before = growBox(done.before, points);
  done.after = growBox(done.after, isMoved ? points.map((p) => movePoint(move, p)) : points);
}

/** Lifted away with nothing drawn after it by the same pen: the tool is parked, not registered. */
function isParking(strokes: readonly HpglStroke[], i: number): boolean {
  const stroke = strokes[i];
  if (!stroke || isDrawn(stroke) || stroke.isRelative) return false;
  const next = strokes.slice(i + 1, i + 1 + LOOKED_AHEAD).find((s) => s.path.length > 0);
  return next?.pen !== stroke.pen;
}

function takeStroke(stroke: HpglStroke, isMoved: boolean, request: MoveRequest, done: Progress): void {
  measureBoxes(stroke, isMoved, request, done);
  if (stroke.path.length === 0) return;
  const { start, end } = stroke.instruction;
  const needsWay = done.isAside !== isMoved && !goesThereItself(stroke, isMoved);
  const way = needsWay ? goTo(stroke, isMoved ? movePoint(request.move, stroke.from) : stroke.from) : '';
  if (isMoved) {
    done.edits.push({ start, end, words: way + strokeWords(stroke, request) });
    if (isDrawn(stroke)) done.movedCount += 1;
  } else if (needsWay) done.edits.push({ start, end: start, words: way });
  done.isAside = isMoved;
}

function negativeRemark({ before, after }: Progress): readonly Remark[] {
  if (!before || !after || before.left < 0 || before.bottom < 0) return [];
  if (after.left >= 0 && after.bottom >= 0) return [];
  const words =
    'Some lines now lie before the origin. Many cutters shift such a drawing as a whole: leave a margin at the origin in the drawing first.';
  return [{ kind: 'negative', words }];
}

/** Moves what the chosen pens draw, in whole plotter units; every instruction of other pens stays as its bytes are. */
export function moveHpgl(
  text: string,
  request: MoveRequest,
  options: ReadOptions = {},
): Result<MovedFile, FileProblem> {
  const read = readInstructions(text);
  if (!read.ok) return read;
  const done: Progress = { edits: [], before: null, after: null, movedCount: 0, isAside: false };
  const strokes = strokesOf(read.value);
  for (const [i, stroke] of strokes.entries()) {
    tellProgress(options, i, strokes.length);
    const { name, start } = stroke.instruction;
    if (!isNear(stroke.path.map((p) => p.to))) return fail(tooFar(`${name} at character ${start + 1}`));
    takeStroke(stroke, request.names.includes(stroke.pen) && !isParking(strokes, i), request, done);
  }
  if (done.movedCount === 0)
    return fail(problem('nothing-to-move', 'choice', 'Nothing in the file is drawn with the chosen pens.'));
  return ok({
    text: spliced(text, done.edits),
    movedCount: done.movedCount,
    remarks: [...negativeRemark(done), ...extentRemark(boxChange(done.before, done.after))],
  });
}
