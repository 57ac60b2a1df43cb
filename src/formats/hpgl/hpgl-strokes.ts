import type { Point } from '@/core/geometry/affine';
import { asChords } from '@/core/geometry/bulge';
import { movePoint, type Bow, type PlaneMove } from '@/core/geometry/plane-move';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';
import { BEND_TOLERANCE_MM } from '../cut-file/cut-file';
import { EIGHTHS } from '../cut-file/extent';
import { DRAWS, type HpglInstruction } from './hpgl-commands';

type At = Point<'page'>;

/** One drawing instruction with the state it is met in; places in mm. */
export interface HpglStroke {
  readonly instruction: HpglInstruction;
  readonly pen: string;
  readonly isDown: boolean;
  readonly isRelative: boolean;
  readonly from: At;
  readonly path: readonly Piece[];
  /** Where the tool stands afterwards. */
  readonly to: At;
}

export type Piece =
  | { readonly kind: 'line'; readonly to: At }
  | { readonly kind: 'arc'; readonly to: At; readonly at: (share: number) => At };

const mm = (units: number): number => units / PLOTTER_UNITS_PER_MM;

interface State {
  pen: string;
  isDown: boolean;
  isRelative: boolean;
  here: At;
}

function linesOf({ values }: HpglInstruction, state: State): readonly Piece[] {
  const pieces: Piece[] = [];
  let here = state.here;
  for (let i = 0; i + 1 < values.length; i += 2) {
    const x = mm(values[i] ?? 0);
    const y = mm(values[i + 1] ?? 0);
    here = state.isRelative ? { x: here.x + x, y: here.y + y } : { x, y };
    pieces.push({ kind: 'line', to: here });
  }
  return pieces;
}

function arcAbout(centre: At, from: At, angleRad: number): Piece {
  const start = Math.atan2(from.y - centre.y, from.x - centre.x);
  const radius = Math.hypot(from.x - centre.x, from.y - centre.y);
  const at = (share: number): At => ({
    x: centre.x + radius * Math.cos(start + share * angleRad),
    y: centre.y + radius * Math.sin(start + share * angleRad),
  });
  return { kind: 'arc', at, to: at(1) };
}

function arcOf({ name, values }: HpglInstruction, here: At): Piece {
  const [a = 0, b = 0, c = 0] = values;
  const centre = name === 'AR' ? { x: here.x + mm(a), y: here.y + mm(b) } : { x: mm(a), y: mm(b) };
  return arcAbout(centre, here, (c * Math.PI) / 180);
}

/** A circle about where the tool stands: it goes there, round, and back. */
function circleOf({ values }: HpglInstruction, here: At): readonly Piece[] {
  const rim = { x: here.x + mm(values[0] ?? 0), y: here.y };
  return [{ kind: 'line', to: rim }, arcAbout(here, rim, 2 * Math.PI)];
}

function follow(instruction: HpglInstruction, state: State): HpglStroke {
  const { name } = instruction;
  if (name === 'PA' || name === 'PR') state.isRelative = name === 'PR';
  if (name === 'PU' || name === 'PD') state.isDown = name === 'PD';
  const from = state.here;
  let path: readonly Piece[];
  if (name === 'CI') path = circleOf(instruction, from);
  else path = name === 'AA' || name === 'AR' ? [arcOf(instruction, from)] : linesOf(instruction, state);
  const to = name === 'CI' ? from : (path.at(-1)?.to ?? from);
  state.here = to;
  return { instruction, pen: state.pen, isDown: state.isDown, isRelative: state.isRelative, from, path, to };
}

/** Follows the instructions: which pen, up or down, absolute or relative, where. */
export function strokesOf(instructions: readonly HpglInstruction[]): readonly HpglStroke[] {
  const state: State = { pen: 'pen 1', isDown: false, isRelative: false, here: { x: 0, y: 0 } };
  const strokes: HpglStroke[] = [];
  for (const instruction of instructions) {
    if (instruction.name === 'SP') state.pen = `pen ${instruction.values[0] ?? 0}`;
    else if (instruction.name === 'IN' || instruction.name === 'DF') {
      state.isRelative = false;
      if (instruction.name === 'IN') state.isDown = false;
    } else if (DRAWS.has(instruction.name)) strokes.push(follow(instruction, state));
  }
  return strokes;
}

/** Places of a stroke: where it begins, the ends of its pieces, and for arcs points round them. */
export function pointsOf({ from, path }: HpglStroke): readonly At[] {
  const points = [from];
  for (const piece of path) {
    if (piece.kind === 'line') points.push(piece.to);
    else for (const share of EIGHTHS) points.push(piece.at(share));
  }
  return points;
}

/** Each quarter of an arc on its own: over a full turn its quarter points would lie on its chord. */
const QUARTERS: readonly (readonly [number, number])[] = [0, 0.25, 0.5, 0.75].map((t) => [t, t + 0.25] as const);

const along = (a: At, b: At, t: number): At => ({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });

/** How far a straight piece leaves its chord under a bow: an eighth of the square of its length along the run. */
function bendsBy({ perMm, along: axis }: Bow, a: At, b: At): number {
  const s = b[axis] - a[axis];
  return (Math.abs(perMm) * s * s) / 8;
}

/** Places of pieces after a move: lines stay lines under an affine map, all else becomes chords within 5 um. */
export function movedPoints(from: At, path: readonly Piece[], move: PlaneMove): readonly At[] {
  const moved: At[] = [];
  let here = from;
  for (const piece of path) {
    const start = here;
    here = piece.to;
    if (piece.kind === 'arc') {
      for (const part of QUARTERS)
        moved.push(...asChords((t) => movePoint(move, piece.at(t)), BEND_TOLERANCE_MM, part));
    } else if (move.bow && bendsBy(move.bow, start, piece.to) > BEND_TOLERANCE_MM / 2) {
      moved.push(...asChords((t) => movePoint(move, along(start, piece.to, t)), BEND_TOLERANCE_MM));
    } else moved.push(movePoint(move, piece.to));
  }
  return moved;
}
