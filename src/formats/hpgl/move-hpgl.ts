import type { Point } from '@/core/geometry/affine';
import { movePoint } from '@/core/geometry/plane-move';
import { fail, ok, type Result } from '@/core/result';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';
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
  extentOf,
  extentRemark,
  gatherer,
  isNear,
  measureLine,
  noBoxes,
  type Drawn,
  type EachPlace,
  type Extent,
  type OuterBoxes,
} from '../cut-file/extent';
import { joiner, splicer, type Splicer } from '../cut-file/splice';
import { eachInstruction } from './hpgl-commands';
import { eachPlaceOf, follower, movedEnds, movedPlaces, type HpglStroke, type Places } from './hpgl-strokes';

const isDrawn = (stroke: HpglStroke): boolean =>
  stroke.path.length > 0 && (stroke.isDown || stroke.instruction.name === 'CI');

function linePlaces(stroke: HpglStroke): readonly Point<'page'>[] {
  const places: Point<'page'>[] = [];
  eachPlaceOf(stroke, (place) => places.push(place));
  return places;
}

function drawnOf(stroke: HpglStroke): Drawn {
  const extent = extentOf((visit) => {
    eachPlaceOf(stroke, visit);
  });
  return { colour: stroke.pen, layer: stroke.pen, count: 1, extent, lines: () => [linePlaces(stroke)] };
}

/** What a plotter file draws, by pen. It has no page. */
export function surveyHpgl(text: string): Result<Survey, FileProblem> {
  const follow = follower();
  const { take, gathered } = gatherer();
  const wrong = eachInstruction(text, (instruction) => {
    const stroke = follow(instruction);
    if (stroke && isDrawn(stroke)) take(drawnOf(stroke));
    return null;
  });
  if (wrong) return fail(wrong);
  return ok({ format: 'hpgl', widthMm: null, heightMm: null, ...gathered(), remarks: [] });
}

const unit = (mm: number): number => Math.round(mm * PLOTTER_UNITS_PER_MM);
const pair = (p: Point<'page'>): string => `${unit(p.x)},${unit(p.y)}`;

/** Places in plotter units, as an instruction has them. */
function placeWords(places: Places): string {
  const out = joiner();
  for (const [i, mm] of places.entries()) out.take(i === 0 ? `${unit(mm)}` : `,${unit(mm)}`);
  return out.joined();
}

const LINES: ReadonlySet<string> = new Set(['PU', 'PD', 'PA']);

/** Written in absolute places, and the file's own way taken up again afterwards. */
const inAbsolute = (stroke: HpglStroke, words: string): string => (stroke.isRelative ? `PA;${words}PR;` : words);

/** A moved circle: lifted to its rim, round it, and back to its middle. */
function circleWords(stroke: HpglStroke, { move }: MoveRequest, left: PiecesLeft): string {
  const [toRim, ...round] = stroke.path;
  const [x = stroke.from.x, y = stroke.from.y] = toRim?.kind === 'lines' ? toRim.places : [];
  const drawn = placeWords(movedPlaces({ x, y }, round, move, left));
  const lifted = (p: Point<'page'>): string => `PU${pair(movePoint(move, p))};`;
  return inAbsolute(stroke, `${lifted({ x, y })}PD${drawn};${lifted(stroke.from)}${stroke.isDown ? 'PD;' : ''}`);
}

/** A moved stroke in absolute places. */
function strokeWords(stroke: HpglStroke, request: MoveRequest, left: PiecesLeft): string {
  const { name } = stroke.instruction;
  if (name === 'CI') return circleWords(stroke, request, left);
  const verb = LINES.has(name) ? name : 'PA';
  const [first] = stroke.path;
  // A lifted tool may go straight: only where it comes down counts.
  const isFree = first?.kind === 'lines' && !isDrawn(stroke);
  const places = isFree
    ? movedEnds(first.places, request.move)
    : movedPlaces(stroke.from, stroke.path, request.move, left);
  return inAbsolute(stroke, `${verb}${placeWords(places)};`);
}

/** Between a moved pen and one that stays, the tool must first go where the next stroke begins. */
function goTo(stroke: HpglStroke, from: Point<'page'>): string {
  return inAbsolute(stroke, `PU${pair(from)};${stroke.isDown && stroke.instruction.name !== 'PD' ? 'PD;' : ''}`);
}

/** A stroke that begins with a lifted move to a stated place needs no way; a moved circle is written with its own. */
function goesThereItself(stroke: HpglStroke, isMoved: boolean): boolean {
  if (stroke.instruction.name === 'CI') return isMoved;
  return !stroke.isRelative && !stroke.isDown && stroke.path.every((p) => p.kind === 'lines');
}

interface Progress {
  readonly out: Splicer;
  readonly left: PiecesLeft;
  readonly outer: OuterBoxes;
  movedCount: number;
  /** Whether the tool stands where a moved stroke ended. */
  isAside: boolean;
}

/** Takes what is drawn into the outer boxes; false when the stroke lies beyond every machine. */
function measured(stroke: HpglStroke, isMoved: boolean, { move }: MoveRequest, done: Progress): boolean {
  const each: EachPlace = (visit) => {
    eachPlaceOf(stroke, visit);
  };
  return isNear(isDrawn(stroke) ? measureLine(done.outer, each, isMoved ? move : null) : extentOf(each));
}

function takeStroke(stroke: HpglStroke, isMoved: boolean, request: MoveRequest, done: Progress): FileProblem | null {
  const { name, start, end } = stroke.instruction;
  if (!measured(stroke, isMoved, request, done)) return tooFar(`${name} at character ${start + 1}`);
  const needsWay = done.isAside !== isMoved && !goesThereItself(stroke, isMoved);
  const way = needsWay ? goTo(stroke, isMoved ? movePoint(request.move, stroke.from) : stroke.from) : '';
  if (isMoved) {
    done.out.take({ start, end, words: way + strokeWords(stroke, request, done.left) });
    if (done.left.pieces <= 0) return tooManyPieces(`${name} at character ${start + 1}`);
    if (isDrawn(stroke)) done.movedCount += 1;
  } else if (needsWay) done.out.take({ start, end: start, words: way });
  done.isAside = isMoved;
  return null;
}

/** Lifted away with nothing drawn after it by the same pen: the tool is parked, not registered. */
const isParking = (stroke: HpglStroke, next: HpglStroke | null): boolean =>
  !isDrawn(stroke) && !stroke.isRelative && next?.pen !== stroke.pen;

function negativeRemark({ before, after }: OuterBoxes): readonly Remark[] {
  const isBelow = ({ left, bottom }: Extent): boolean => left < 0 || bottom < 0;
  if (isBelow(before) || !isBelow(after)) return [];
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
  const done: Progress = {
    out: splicer(text),
    left: { pieces: MOST_PIECES },
    outer: noBoxes(),
    movedCount: 0,
    isAside: false,
  };
  const follow = follower();
  let count = 0;
  // Whether a stroke only parks the tool is known when the next one has been seen.
  let held: HpglStroke | null = null;
  const release = (next: HpglStroke | null): FileProblem | null => {
    const stroke = held;
    held = next;
    if (!stroke) return null;
    return takeStroke(stroke, request.names.includes(stroke.pen) && !isParking(stroke, next), request, done);
  };
  const wrong =
    eachInstruction(text, (instruction) => {
      count += 1;
      tellProgress(options, count, instruction.end / text.length);
      const stroke = follow(instruction);
      return stroke && stroke.path.length > 0 ? release(stroke) : null;
    }) ?? release(null);
  if (wrong) return fail(wrong);
  if (done.movedCount === 0)
    return fail(problem('nothing-to-move', 'choice', 'Nothing in the file is drawn with the chosen pens.'));
  return ok({
    text: done.out.finished(),
    movedCount: done.movedCount,
    remarks: [...negativeRemark(done.outer), ...extentRemark(boxChange(done.outer))],
  });
}
