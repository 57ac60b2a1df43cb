import {
  longestSection,
  outShares,
  type SectionAnswer,
  type SectionQuestion,
  type SectionRegistration,
} from './section-length';
import type { RollDrift } from './roll-drift';
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
type Direction = (typeof DIRECTIONS)[number];

/**
 * The longest section whose both edges keep the tolerance across and along. Each direction is asked for half of what may go
 * wrong, so that both together keep the confidence.
 */
export function sectionOfRoll(drift: RollDrift, question: RollSectionQuestion): RollSection {
  const answers = DIRECTIONS.flatMap((direction) =>
    EDGES.map((edge) => longestSection(drift[direction].belief, questionAt(drift, question, direction, edge))),
  );
  const shortest = answers.reduce((least, answer) => (answer.longestMm < least.longestMm ? answer : least));
  return { ...shortest, isBeyondStrip: shortest.longestMm > drift.lengthMm };
}

/** One direction at one edge of the work; each direction has half of what may go wrong. */
function questionAt(
  drift: RollDrift,
  { halfWidthMm, confidence, ...rest }: RollSectionQuestion,
  direction: Direction,
  edge: number,
): SectionQuestion {
  return {
    ...rest,
    confidence: 1 - (1 - confidence) / 2,
    rowAt: (atMm) => drift[direction].rowAt(atMm, edge * halfWidthMm),
  };
}

/**
 * How likely sections of several lengths are to leave the tolerance at either edge, across or along: the worse edge of each
 * direction, both directions added, so that it is rather said too high.
 */
export function outSharesOfRoll(
  drift: RollDrift,
  question: RollSectionQuestion,
  lengthsMm: readonly number[],
): readonly number[] {
  const shares = DIRECTIONS.map((direction) =>
    EDGES.map((edge) => outShares(drift[direction].belief, questionAt(drift, question, direction, edge), lengthsMm)),
  );
  return lengthsMm.map((_, i) =>
    Math.min(
      1,
      shares.reduce((sum, edges) => sum + Math.max(...edges.map((edge) => edge[i]!)), 0),
    ),
  );
}

/** How far off a cut may be at a place, both edges looked at, if nothing is changed: 95 % of the time it is less, mm. */
export function errorAtMm(
  drift: RollDrift,
  atMm: number,
  halfWidthMm: number,
): { readonly across: number; readonly along: number } {
  const worst = (direction: Direction): number =>
    Math.max(
      ...EDGES.flatMap((edge) => {
        const told = foretellError(drift[direction].belief, atMm, drift[direction].rowAt(atMm, edge * halfWidthMm));
        return [-foretoldQuantile(told, 0.025), foretoldQuantile(told, 0.975)];
      }),
    );
  return { across: worst('across'), along: worst('along') };
}
