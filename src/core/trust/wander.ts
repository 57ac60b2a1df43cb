import { assumedJumpMm } from './event-doubt';

/** One look at the shift between cut and print: a confirmation, or a daily check. */
export interface ShiftLook {
  /** Days since any fixed moment. */
  readonly day: number;
  readonly acrossMm: number;
  readonly alongMm: number;
  /** Of each direction, from reading and from one load, mm2. */
  readonly varianceMm2: number;
  /** What happened between this look and the one before it. */
  readonly events: readonly string[];
  /** The machine was set anew before this look: it says nothing of the ones before. */
  readonly isFresh: boolean;
}

/** How a setup wanders by itself and by events. */
export interface Wander {
  /** SD of the shift that one day adds, each direction, mm; n days add sqrt(n) times as much. */
  readonly perRootDayMm: number;
  /** SD of the shift that an event adds. */
  readonly jumpMm: (kind: string) => number;
  /** Pairs of looks that this rests on; none: all of it is assumed. */
  readonly pairs: number;
}

/** What is assumed until a setup's own record tells it. Common practice, no published source: a tenth of a mm in a hundred days. */
export const ASSUMED_WANDER_MM = 0.01;

/** The assumed figure is thought right within this factor, one SD either way. */
const PRIOR_FACTOR = 3;
const GRID = 41;
/** Of the grid: so many factors to either side. */
const REACH = 3;
/** An assumed jump weighs as much as so many that were seen. */
const PRIOR_JUMPS = 4;

const variance = (sdMm: number): number => sdMm * sdMm;

/** Looks as plain numbers, worked out once for every wander that is tried. */
interface Steps {
  readonly across: Float64Array;
  readonly along: Float64Array;
  readonly noise: Float64Array;
  /** Days since the look before, and what its events add; minus one where a state begins. */
  readonly days: Float64Array;
  readonly jumps: Float64Array;
}

function stepsOf(looks: readonly ShiftLook[], jumpMm2: (kind: string) => number): Steps {
  const numbers = (of: (look: ShiftLook, i: number) => number): Float64Array => new Float64Array(looks.map(of));
  return {
    across: numbers((l) => l.acrossMm),
    along: numbers((l) => l.alongMm),
    noise: numbers((l) => l.varianceMm2),
    days: numbers((l, i) => (l.isFresh || i === 0 ? -1 : l.day - (looks[i - 1]?.day ?? l.day))),
    jumps: numbers((l) => l.events.reduce((sum, kind) => sum + jumpMm2(kind), 0)),
  };
}

/** Of both directions: local levels observed at uneven times, every state by itself, diffuse at its start; doubts are alike. */
function likelihoodOf({ across, along, noise, days, jumps }: Steps, perDayMm2: number): number {
  let logLikelihood = 0;
  let levelAcross = 0;
  let levelAlong = 0;
  let doubt = 0;
  for (let i = 0; i < days.length; i++) {
    if (days[i]! < 0) {
      levelAcross = across[i]!;
      levelAlong = along[i]!;
      doubt = noise[i]!;
      continue;
    }
    doubt += perDayMm2 * days[i]! + jumps[i]!;
    const spread = doubt + noise[i]!;
    const surpriseAcross = across[i]! - levelAcross;
    const surpriseAlong = along[i]! - levelAlong;
    const squares = surpriseAcross * surpriseAcross + surpriseAlong * surpriseAlong;
    logLikelihood -= Math.log(spread) + squares / (2 * spread);
    const gain = doubt / spread;
    levelAcross += gain * surpriseAcross;
    levelAlong += gain * surpriseAlong;
    doubt *= 1 - gain;
  }
  return logLikelihood;
}

/**
 * Log likelihood of the looks for a wander of `perDayMm2`, both directions.
 * Source: Durbin and Koopman, Time Series Analysis by State Space Methods, 2nd ed. 2012, 2.2 and 2.9 (from memory; held
 * against their Nile example).
 */
export function wanderLikelihood(
  looks: readonly ShiftLook[],
  perDayMm2: number,
  jumpMm2: (kind: string) => number,
): number {
  return likelihoodOf(stepsOf(looks, jumpMm2), perDayMm2);
}

/** Mean of the wander's variance over what the looks leave likely, a lognormal about the assumed figure before them. */
function learnedWander(looks: readonly ShiftLook[], jumpMm2: (kind: string) => number): number {
  const steps = stepsOf(looks, jumpMm2);
  const grid = Array.from({ length: GRID }, (_, i) => {
    const factor = REACH * ((2 * i) / (GRID - 1) - 1);
    const perDayMm2 = variance(ASSUMED_WANDER_MM * PRIOR_FACTOR ** factor);
    return { perDayMm2, weight: likelihoodOf(steps, perDayMm2) - factor ** 2 / 2 };
  });
  const most = Math.max(...grid.map((g) => g.weight));
  const weights = grid.map((g) => Math.exp(g.weight - most));
  const total = weights.reduce((a, b) => a + b, 0);
  return grid.reduce((sum, g, i) => sum + (g.perDayMm2 * (weights[i] ?? 0)) / total, 0);
}

/** Squares of the shifts across events of one kind, noise and wander taken off. */
function jumpsSeen(looks: readonly ShiftLook[], kind: string, perDayMm2: number): readonly number[] {
  return looks.flatMap((look, i) => {
    const before = looks[i - 1];
    if (!before || look.isFresh || look.events.length !== 1 || look.events[0] !== kind) return [];
    const noise = look.varianceMm2 + before.varianceMm2 + perDayMm2 * (look.day - before.day);
    return [(look.acrossMm - before.acrossMm) ** 2 - noise, (look.alongMm - before.alongMm) ** 2 - noise];
  });
}

/**
 * What a setup's own looks say of its wander and of each kind of event, the assumed figures weighing in while there are few.
 * @param looks in the order in which they were made.
 */
export function learnWander(looks: readonly ShiftLook[]): Wander {
  const assumed = (kind: string): number => variance(assumedJumpMm(kind));
  const pairs = looks.filter((look, i) => i > 0 && !look.isFresh).length;
  const perDayMm2 = pairs === 0 ? variance(ASSUMED_WANDER_MM) : learnedWander(looks, assumed);
  const learnJump = (kind: string): number => {
    const seen = jumpsSeen(looks, kind, perDayMm2);
    const sum = seen.reduce((a, b) => a + b, 0);
    // Two directions of one event: its mean square. Never less than a twenty-fifth of what is assumed.
    const learned = (PRIOR_JUMPS * assumed(kind) + sum / 2) / (PRIOR_JUMPS + seen.length / 2);
    return Math.sqrt(Math.max(learned, assumed(kind) / 25));
  };
  const known = new Map<string, number>();
  const jumpMm = (kind: string): number => {
    const mm = known.get(kind) ?? learnJump(kind);
    known.set(kind, mm);
    return mm;
  };
  return { perRootDayMm: Math.sqrt(perDayMm2), jumpMm, pairs };
}

/** What is thought of the shift since a confirmation, each direction. */
export interface ShiftNow {
  readonly acrossMm: number;
  readonly alongMm: number;
  readonly sdMm: number;
}

/**
 * How far the shift may have gone since the last confirmation: nothing at first, its doubt growing with every day and event,
 * and pulled in again by every daily check since. @param looks since then, as differences from the confirmed shift, `day`
 * counted from the confirmation. @param until day and events of now.
 */
export function shiftSince(
  looks: readonly ShiftLook[],
  wander: Wander,
  until: { readonly day: number; readonly events: readonly string[] },
): ShiftNow {
  const grown = (days: number, events: readonly string[]): number =>
    variance(wander.perRootDayMm) * Math.max(0, days) +
    events.reduce((sum, kind) => sum + variance(wander.jumpMm(kind)), 0);
  let now = { acrossMm: 0, alongMm: 0, doubt: 0, day: 0 };
  for (const look of looks) {
    const doubt = now.doubt + grown(look.day - now.day, look.events);
    const gain = doubt / (doubt + look.varianceMm2);
    now = {
      acrossMm: now.acrossMm + gain * (look.acrossMm - now.acrossMm),
      alongMm: now.alongMm + gain * (look.alongMm - now.alongMm),
      doubt: doubt * (1 - gain),
      day: look.day,
    };
  }
  const doubt = now.doubt + grown(until.day - now.day, until.events);
  return { acrossMm: now.acrossMm, alongMm: now.alongMm, sdMm: Math.sqrt(doubt) };
}
