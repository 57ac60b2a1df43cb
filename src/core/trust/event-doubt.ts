import { DESCRIBED_ANEW, EVENT_KINDS, SETTING_CHANGED } from './event-kinds';

/**
 * How far an event may have moved the cut against the print, mm, one SD each way, until a setup's own record tells it.
 * Common practice, no published source: a machine set up anew is out by some tenths, a new blade by less than one.
 */
const ASSUMED_MM: Readonly<Record<string, number>> = {
  moved: 0.3,
  power_cut: 0.1,
  new_blade: 0.08,
  firmware: 0.3,
  rollers: 0.1,
  long_idle: 0.1,
  program_updated: 0.3,
  reinstalled: 0.5,
  other_computer: 0.5,
  driver: 0.3,
  new_material: 0.1,
  larger_page: 0.15,
  seen_out: 0.5,
  [SETTING_CHANGED]: 0.5,
  [DESCRIBED_ANEW]: 0.3,
};

/** Kinds of events that a figure is assumed for: all of them. */
export const DOUBTFUL_KINDS: readonly string[] = [...EVENT_KINDS.map((e) => e.kind), SETTING_CHANGED, DESCRIBED_ANEW];

export const assumedJumpMm = (kind: string): number => ASSUMED_MM[kind] ?? 0.1;
