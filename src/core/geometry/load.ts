import { inverseOf, then, type Affine } from './affine';

export const TURNS = [0, 90, 180, 270] as const;
/** Counter-clockwise turn from the machine frame to the sheet's arrow, seen from the machine's top; 0: arrow to the leading edge. */
export type TurnDeg = (typeof TURNS)[number];
export const FACES = ['ink-up', 'ink-down'] as const;
export type Face = (typeof FACES)[number];
/** Mat-fed sheets go in away from the operator, rolls come out towards. */
export type FeedDirection = 'away' | 'towards';

export interface Load {
  readonly turnDeg: TurnDeg;
  readonly face: Face;
}

/** The turn a quarter further, counter-clockwise. */
export const nextTurn = (turnDeg: TurnDeg): TurnDeg => ((turnDeg + 90) % 360) as TurnDeg;

const COSINE: Record<TurnDeg, number> = { 0: 1, 90: 0, 180: -1, 270: 0 };
const SINE: Record<TurnDeg, number> = { 0: 0, 90: 1, 180: 0, 270: -1 };

/** Exact quarter-turn matrix, counter-clockwise. */
export function quarterTurn(turnDeg: TurnDeg): { readonly c: number; readonly s: number } {
  return { c: COSINE[turnDeg], s: SINE[turnDeg] };
}

/** p_machine = R(phi) F p_sheet, F = diag(-1, 1) when loaded ink side down. */
export function sheetToMachine(load: Load): Affine<'sheet', 'machine'> {
  const { c, s } = quarterTurn(load.turnDeg);
  const f = load.face === 'ink-down' ? -1 : 1;
  return { xx: c * f, xy: 0 - s, yx: s * f + 0, yy: c, tx: 0, ty: 0 };
}

/** A map of sheet points seen in the machine: A_m = R F A F R^T, d_m = R F d_s. */
export function mapInMachine(map: Affine, load: Load): Affine<'machine', 'machine'> {
  const toMachine = sheetToMachine(load);
  return then(then(inverseOf(toMachine), map), toMachine);
}

/** The opposite of mapInMachine. */
export function mapOnSheet(map: Affine<'machine', 'machine'>, load: Load): Affine {
  const toMachine = sheetToMachine(load);
  return then(then(toMachine, map), inverseOf(toMachine));
}

/** Machine frame as the operator sees it from the front: the same for mats fed away, half a turn for rolls fed towards. */
export function machineToView(feed: FeedDirection): Affine<'machine', 'view'> {
  const sign = feed === 'away' ? 1 : -1;
  return { xx: sign, xy: 0, yx: 0, yy: sign, tx: 0, ty: 0 };
}

/** The sheet in the hand, turned so that the arrow points `turnDeg` counter-clockwise from away. */
export function sheetToView(turnDeg: TurnDeg): Affine<'sheet', 'view'> {
  const { c, s } = quarterTurn(turnDeg);
  return { xx: c, xy: -s, yx: s, yy: c, tx: 0, ty: 0 };
}

/** The turn under which the sheet lay in the machine as the operator sees it: the natural view when it comes off. */
export function viewTurnOf(load: Load, feed: FeedDirection): TurnDeg {
  return feed === 'away' ? load.turnDeg : (((load.turnDeg + 180) % 360) as TurnDeg);
}

/** The load's turn when, in the operator's view, the arrow points `viewTurnDeg` counter-clockwise from away. */
export function loadTurnOf(viewTurnDeg: TurnDeg, feed: FeedDirection): TurnDeg {
  return viewTurnOf({ turnDeg: viewTurnDeg, face: 'ink-up' }, feed);
}
