import type { Point } from '@/core/geometry/affine';
import { asChords } from '@/core/geometry/bulge';
import { moveAllInto } from '@/core/geometry/move-all';
import { bowHeight, movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';
import { BEND_TOLERANCE_MM, type PiecesLeft } from '../cut-file/cut-file';
import { EIGHTHS } from '../cut-file/extent';
import { DRAWS, type HpglInstruction } from './hpgl-commands';

type At = Point<'page'>;

/** Places in mm, x and y in turn: files of a million points are mostly these. */
export type Places = readonly number[] | Float64Array;

/** Straight pieces through places, or an arc. */
export type Piece =
  { readonly kind: 'lines'; readonly places: Places } | { readonly kind: 'arc'; readonly at: (share: number) => At };

/** One drawing instruction with the state it is met in; places in mm. */
export interface HpglStroke {
  readonly instruction: HpglInstruction;
  readonly pen: string;
  readonly isDown: boolean;
  readonly isRelative: boolean;
  readonly from: At;
  /** Empty when the tool stays where it is. */
  readonly path: readonly Piece[];
  /** Where the tool stands afterwards. */
  readonly to: At;
}

const mm = (units: number): number => units / PLOTTER_UNITS_PER_MM;

interface State {
  pen: string;
  isDown: boolean;
  isRelative: boolean;
  here: At;
}

function linesOf({ values }: HpglInstruction, { isRelative, here }: State): readonly Piece[] {
  if (values.length === 0) return [];
  if (!isRelative) return [{ kind: 'lines', places: values.map(mm) }];
  const places: number[] = [];
  let { x, y } = here;
  for (let i = 0; i + 1 < values.length; i += 2) {
    x += mm(values[i] ?? 0);
    y += mm(values[i + 1] ?? 0);
    places.push(x, y);
  }
  return [{ kind: 'lines', places }];
}

function arcAbout(centre: At, from: At, angleRad: number): Piece {
  const start = Math.atan2(from.y - centre.y, from.x - centre.x);
  const radius = Math.hypot(from.x - centre.x, from.y - centre.y);
  const at = (share: number): At => ({
    x: centre.x + radius * Math.cos(start + share * angleRad),
    y: centre.y + radius * Math.sin(start + share * angleRad),
  });
  return { kind: 'arc', at };
}

function arcOf({ name, values }: HpglInstruction, here: At): Piece {
  const [a = 0, b = 0, c = 0] = values;
  const centre = name === 'AR' ? { x: here.x + mm(a), y: here.y + mm(b) } : { x: mm(a), y: mm(b) };
  return arcAbout(centre, here, (c * Math.PI) / 180);
}

/** A circle about where the tool stands: it goes there, round, and back. */
function circleOf({ values }: HpglInstruction, here: At): readonly Piece[] {
  const rim = { x: here.x + mm(values[0] ?? 0), y: here.y };
  return [{ kind: 'lines', places: [rim.x, rim.y] }, arcAbout(here, rim, 2 * Math.PI)];
}

function pathOf(instruction: HpglInstruction, state: State): readonly Piece[] {
  const { name } = instruction;
  if (name === 'CI') return circleOf(instruction, state.here);
  return name === 'AA' || name === 'AR' ? [arcOf(instruction, state.here)] : linesOf(instruction, state);
}

/** Where a piece ends. */
export function endOf(piece: Piece): At {
  if (piece.kind === 'arc') return piece.at(1);
  return { x: piece.places.at(-2) ?? 0, y: piece.places.at(-1) ?? 0 };
}

function follow(instruction: HpglInstruction, state: State): HpglStroke {
  const { name } = instruction;
  if (name === 'PA' || name === 'PR') state.isRelative = name === 'PR';
  if (name === 'PU' || name === 'PD') state.isDown = name === 'PD';
  const { pen, isDown, isRelative, here: from } = state;
  const path = pathOf(instruction, state);
  const last = path.at(-1);
  const to = name === 'CI' || !last ? from : endOf(last);
  state.here = to;
  return { instruction, pen, isDown, isRelative, from, path, to };
}

/** Follows instruction after instruction: which pen, up or down, absolute or relative, where. Null: it neither moves nor draws. */
export function follower(): (instruction: HpglInstruction) => HpglStroke | null {
  const state: State = { pen: 'pen 1', isDown: false, isRelative: false, here: { x: 0, y: 0 } };
  return (instruction) => {
    if (DRAWS.has(instruction.name)) return follow(instruction, state);
    if (instruction.name === 'SP') state.pen = `pen ${instruction.values[0] ?? 0}`;
    else if (instruction.name === 'IN' || instruction.name === 'DF') {
      state.isRelative = false;
      if (instruction.name === 'IN') state.isDown = false;
    }
    return null;
  };
}

/** Visits the places of a stroke: where it begins, the ends of its pieces, and for arcs points round them. */
export function eachPlaceOf({ from, path }: HpglStroke, visit: (place: At) => void): void {
  visit(from);
  for (const piece of path) {
    if (piece.kind === 'arc') for (const share of EIGHTHS) visit(piece.at(share));
    else
      for (let i = 0; i + 1 < piece.places.length; i += 2)
        visit({ x: piece.places[i] ?? 0, y: piece.places[i + 1] ?? 0 });
  }
}

/** Each quarter of an arc on its own: over a full turn its quarter points would lie on its chord. */
const QUARTERS: readonly (readonly [number, number])[] = [0, 0.25, 0.5, 0.75].map((t) => [t, t + 0.25] as const);

const along = (a: At, b: At, t: number): At => ({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });

interface Bending {
  readonly move: PlaneMove;
  readonly left: PiecesLeft;
  readonly moved: number[];
}

function pushChords(
  { move, left, moved }: Bending,
  curve: (share: number) => At,
  part?: readonly [number, number],
): void {
  const chords = asChords((t) => movePoint(move, curve(t)), BEND_TOLERANCE_MM, part);
  left.pieces -= chords.length;
  for (const { x, y } of chords) moved.push(x, y);
}

function moveLines(from: At, places: Places, bending: Bending): void {
  const { move, left, moved } = bending;
  let here = from;
  for (let i = 0; i + 1 < places.length && left.pieces > 0; i += 2) {
    const start = here;
    const end = { x: places[i] ?? 0, y: places[i + 1] ?? 0 };
    here = end;
    if (bowHeight(move, start, end) > BEND_TOLERANCE_MM / 2) pushChords(bending, (t) => along(start, end, t));
    else {
      const { x, y } = movePoint(move, end);
      moved.push(x, y);
    }
  }
}

/** Places after a move, straight from one to the next; an affine move takes all at once. */
export function movedEnds(places: Places, move: PlaneMove): Places {
  const moved = Float64Array.from(places);
  if (!move.bow) moveAllInto(move.affine, moved, moved);
  else
    for (let i = 0; i + 1 < moved.length; i += 2) {
      const { x, y } = movePoint(move, { x: moved[i] ?? 0, y: moved[i + 1] ?? 0 });
      moved[i] = x;
      moved[i + 1] = y;
    }
  return moved;
}

/**
 * Places of pieces after a move: lines stay lines under an affine map, all else becomes chords within 5 um. Cut short when
 * no pieces are left.
 */
export function movedPlaces(from: At, path: readonly Piece[], move: PlaneMove, left: PiecesLeft): Places {
  const [first] = path;
  if (!move.bow && path.length === 1 && first?.kind === 'lines') return movedEnds(first.places, move);
  const bending: Bending = { move, left, moved: [] };
  let here = from;
  for (const piece of path) {
    if (piece.kind === 'lines') moveLines(here, piece.places, bending);
    else for (const part of QUARTERS) pushChords(bending, piece.at, part);
    here = endOf(piece);
  }
  return bending.moved;
}
