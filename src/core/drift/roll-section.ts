import { longestSection, type SectionAnswer, type SectionRegistration } from './section-length';
import { driftRow, type RollDrift } from './roll-drift';
import { foretellError, foretoldQuantile } from './slip-belief';

export interface RollSectionQuestion {
  readonly registration: SectionRegistration;
  readonly toleranceMm: number;
  readonly confidence: number;
  readonly farthestMm: number;
  /** Half of the width of the work, mm: both of its edges must keep the tolerance. */
  readonly halfWidthMm: number;
  readonly isCorrected: boolean;
}

export interface RollSection extends SectionAnswer {
  /** It is longer than the strip that was read: nothing was seen there. */
  readonly isBeyondStrip: boolean;
}

const EDGES = [-1, 1] as const;
const DIRECTIONS = ['across', 'along'] as const;

/**
 * The longest section whose both edges keep the tolerance across and along. Each direction is asked for half of what may go
 * wrong, so that both together keep the confidence.
 */
export function sectionOfRoll(drift: RollDrift, question: RollSectionQuestion): RollSection {
  const { halfWidthMm, confidence, ...rest } = question;
  const answers = DIRECTIONS.flatMap((direction) =>
    EDGES.map((edge) =>
      longestSection(drift[direction].belief, {
        ...rest,
        confidence: 1 - (1 - confidence) / 2,
        rowAt: (atMm) => driftRow(atMm, edge * halfWidthMm),
      }),
    ),
  );
  const shortest = answers.reduce((least, answer) => (answer.longestMm < least.longestMm ? answer : least));
  return { ...shortest, isBeyondStrip: shortest.longestMm > drift.lengthMm };
}

/** How far off a cut may be at a place, both edges looked at, if nothing is changed: 95 % of the time it is less, mm. */
export function errorAtMm(
  drift: RollDrift,
  atMm: number,
  halfWidthMm: number,
): { readonly across: number; readonly along: number } {
  const worst = (direction: (typeof DIRECTIONS)[number]): number =>
    Math.max(
      ...EDGES.flatMap((edge) => {
        const told = foretellError(drift[direction].belief, atMm, driftRow(atMm, edge * halfWidthMm));
        return [-foretoldQuantile(told, 0.025), foretoldQuantile(told, 0.975)];
      }),
    );
  return { across: worst('across'), along: worst('along') };
}
