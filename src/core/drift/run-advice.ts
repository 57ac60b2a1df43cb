import { rollDrift, halfWidthOf, LEAST_STATION_READINGS, type StationValue } from './roll-drift';
import { errorAtMm } from './roll-section';

export interface RunQuestion {
  readonly values: readonly StationValue[];
  readonly toleranceMm: number;
  /** Where the next piece is looked at, and where the run ends, mm. */
  readonly nextMm: number;
  readonly endMm: number;
  /** All pieces that were due are measured. */
  readonly isOver: boolean;
}

/** What a run is told after each look, and why. */
export type RunAdvice =
  | { readonly kind: 'go-on'; readonly reason: 'foretold'; readonly errorAtEndMm: number }
  | { readonly kind: 'go-on'; readonly reason: 'too-early'; readonly wanted: number }
  | { readonly kind: 'watch'; readonly reason: 'foretold'; readonly outAtMm: number; readonly errorAtEndMm: number }
  | { readonly kind: 'watch'; readonly reason: 'near'; readonly worstMm: number }
  | { readonly kind: 'stop'; readonly reason: 'out'; readonly worstMm: number }
  | { readonly kind: 'stop'; readonly reason: 'foretold'; readonly errorAtNextMm: number }
  | { readonly kind: 'over'; readonly isHeld: boolean; readonly worstMm: number; readonly firstOutMm: number | null }
  | { readonly kind: 'nothing-read' };

/** Before anything can be foretold, a look that takes so much of the tolerance calls for the next one soon. */
const NEAR_SHARE = 0.7;
const HALVINGS = 24;

/** The largest of what was read at the last place that was looked at, mm. */
function lastWorstMm(values: readonly StationValue[]): number {
  const lastMm = values.reduce((most, { atMm }) => Math.max(most, atMm), 0);
  // Figures of one station stand a little way apart.
  return values
    .filter(({ atMm }) => lastMm - atMm < SAME_STATION_MM)
    .reduce((most, { valueMm }) => Math.max(most, Math.abs(valueMm)), 0);
}

const SAME_STATION_MM = 60;

/** Where an error that grows past the tolerance passes it, between two places, by halving. */
function passesAt(errorAt: (atMm: number) => number, toleranceMm: number, fromMm: number, toMm: number): number {
  let [low, high] = [fromMm, toMm];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (errorAt(middle) > toleranceMm) high = middle;
    else low = middle;
  }
  return low;
}

/** What a run came to whose pieces are all measured: whether each was within what is allowed, and from where on not. */
function judgeRun(values: readonly StationValue[], toleranceMm: number): RunAdvice {
  const out = values.filter(({ valueMm }) => Math.abs(valueMm) > toleranceMm).map(({ atMm }) => atMm);
  const worstMm = values.reduce((most, { valueMm }) => Math.max(most, Math.abs(valueMm)), 0);
  return {
    ...{ kind: 'over', isHeld: out.length === 0, worstMm },
    firstOutMm: out.length === 0 ? null : out.reduce((least, mm) => Math.min(least, mm)),
  };
}

/**
 * Whether a run may go on, from what was read of it so far: stop when a piece is out, or may be before the next look
 * (95 %); watch when it may be out before the end. When it is over, whether it held.
 */
export function adviseRun({ values, toleranceMm, nextMm, endMm, isOver }: RunQuestion): RunAdvice {
  if (values.length === 0) return { kind: 'nothing-read' };
  if (isOver) return judgeRun(values, toleranceMm);
  const worstMm = lastWorstMm(values);
  if (worstMm > toleranceMm) return { kind: 'stop', reason: 'out', worstMm };
  const drift = rollDrift(values);
  if (!drift.ok) {
    if (worstMm > NEAR_SHARE * toleranceMm) return { kind: 'watch', reason: 'near', worstMm };
    const fewest = Math.min(
      ...(['across', 'along'] as const).map((axis) => values.filter((v) => v.axis === axis).length),
    );
    return { kind: 'go-on', reason: 'too-early', wanted: Math.max(1, LEAST_STATION_READINGS - fewest) };
  }
  const halfWidthMm = halfWidthOf(values);
  const errorAt = (atMm: number): number => {
    const { across, along } = errorAtMm(drift.value, atMm, halfWidthMm);
    return Math.max(across, along);
  };
  const errorAtNextMm = errorAt(Math.min(nextMm, endMm));
  if (errorAtNextMm > toleranceMm) return { kind: 'stop', reason: 'foretold', errorAtNextMm };
  const errorAtEndMm = errorAt(endMm);
  if (errorAtEndMm <= toleranceMm) return { kind: 'go-on', reason: 'foretold', errorAtEndMm };
  return { kind: 'watch', reason: 'foretold', outAtMm: passesAt(errorAt, toleranceMm, nextMm, endMm), errorAtEndMm };
}
