import type { ShiftLook } from './wander';

/** A shift that was measured at a moment, ms since 1970. */
export interface DatedShift extends Omit<ShiftLook, 'day' | 'events' | 'isFresh'> {
  readonly atMs: number;
}

export interface DatedEvent {
  readonly atMs: number;
  readonly kind: string;
}

export const DAY_MS = 86_400_000;
const NONE: readonly string[] = [];

/**
 * Measured shifts as looks: each with what happened since the one before it, and whether the machine was set anew meanwhile.
 * @param shifts of one setup and one material, oldest first. @param setAnewMs moments at which the machine got other
 * values; these and the events ascending.
 */
export function looksOf(
  shifts: readonly DatedShift[],
  { setAnewMs, events }: { readonly setAnewMs: readonly number[]; readonly events: readonly DatedEvent[] },
): readonly ShiftLook[] {
  let nextEvent = 0;
  let nextAnew = 0;
  return shifts.map(({ atMs, acrossMm, alongMm, varianceMm2 }, i) => {
    const fromEvent = nextEvent;
    const fromAnew = nextAnew;
    while ((events[nextEvent]?.atMs ?? Infinity) <= atMs) nextEvent += 1;
    while ((setAnewMs[nextAnew] ?? Infinity) <= atMs) nextAnew += 1;
    return {
      day: atMs / DAY_MS,
      acrossMm,
      alongMm,
      varianceMm2,
      events: i === 0 || nextEvent === fromEvent ? NONE : events.slice(fromEvent, nextEvent).map((e) => e.kind),
      isFresh: i === 0 || nextAnew > fromAnew,
    };
  });
}
