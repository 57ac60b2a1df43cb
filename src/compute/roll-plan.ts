import type { ComputeRollInput } from '@/contracts/compute';
import { bestSections } from '@/core/drift/best-sections';
import type { RollDrift } from '@/core/drift/roll-drift';
import { outSharesOfRoll, type RollSectionQuestion } from '@/core/drift/roll-section';
import {
  sectionCost,
  sectionTimes,
  spoiltPieces,
  type SectionCost,
  type SectionPrices,
  type SectionTimes,
} from '@/core/drift/section-plan';
import { rowsLengthMm, type SectionRows } from '@/core/drift/section-rows';

/** One way to cut a run into sections, and what it comes to. */
export interface SectionsWay {
  readonly sections: readonly number[];
  readonly spoilt: number;
  readonly cost: SectionCost;
  readonly times: readonly SectionTimes[];
  readonly wasteMm: number;
}

export interface SectionsPlanned {
  /** The longest sections that keep the tolerance, all alike but the last. */
  readonly even: SectionsWay;
  /** The cheapest that keep it: exact. */
  readonly best: SectionsWay;
  /** All in one, whatever the tolerance says. */
  readonly unsplit: SectionsWay;
}

interface Order {
  readonly run: NonNullable<ComputeRollInput['run']>;
  readonly prices: SectionPrices;
  readonly rows: SectionRows;
}

/** As many lengths are asked for; between them the shares go straight. */
const LOOKS = 40;

/** How likely a section is to have left the tolerance, by its length: asked at some, straight in between. */
function shareByLength(drift: RollDrift, question: RollSectionQuestion, mostMm: number): (mm: number) => number {
  const lengths = Array.from({ length: LOOKS + 1 }, (_, i) => (i * mostMm) / LOOKS);
  const shares = outSharesOfRoll(drift, { ...question, farthestMm: mostMm }, lengths);
  return (mm) => {
    const at = Math.min(LOOKS, (mm / mostMm) * LOOKS);
    const i = Math.min(LOOKS - 1, Math.floor(at));
    const [low = 0, high = 1] = [shares[i], shares[i + 1]];
    return low + (at - i) * (high - low);
  };
}

function wayOf(sections: readonly number[], { run, prices, rows }: Order, spoiltIn: readonly number[]): SectionsWay {
  const spoilt = sections.reduce((sum, k) => sum + (spoiltIn[k] ?? 0), 0);
  const one = sectionCost(prices, 0);
  const lost = spoilt * prices.pieceCost;
  const [setUp, waste] = [sections.length * one.setUp, sections.length * one.waste];
  return {
    sections,
    spoilt: Math.min(spoilt, rows.rows * rows.copiesAcross),
    cost: { setUp, waste, spoilt: lost, total: setUp + waste + lost },
    times: sectionTimes(run, prices, sections),
    wasteMm: sections.length * 2 * prices.endWasteMm,
  };
}

/** Rows of equal sections, the last one shorter. */
function evenSections({ rows, rowsPerSection }: SectionRows): readonly number[] {
  const whole = Math.floor(rows / rowsPerSection);
  const left = rows - whole * rowsPerSection;
  return [...Array.from({ length: whole }, () => rowsPerSection), ...(left > 0 ? [left] : [])];
}

/** The cheapest sections are looked for among so many choices: rows of the run times rows of the longest section. */
const MOST_CHOICES = 3e8;

/** Sections of a run by cost: the longest alike, the cheapest, and the run unsplit; null where there are too many rows to weigh. */
export function planSections(drift: RollDrift, question: RollSectionQuestion, order: Order): SectionsPlanned | null {
  const { rows, prices, run } = order;
  if (rows.rows * rows.rowsPerSection > MOST_CHOICES) return null;
  const share = shareByLength(drift, question, rowsLengthMm(run, rows.rows));
  const isBetweenMarks = question.registration.kind === 'both-ends';
  const spoilt = spoiltPieces({ ...run, copiesAcross: rows.copiesAcross, isBetweenMarks }, rows.rows, share);
  const allowed = spoilt.slice(0, rows.rowsPerSection + 1);
  const best = bestSections(rows.rows, { cost: allowed.map((lost) => sectionCost(prices, lost).total) });
  return {
    even: wayOf(evenSections(rows), order, spoilt),
    best: wayOf(best.ok ? best.value.sections : evenSections(rows), order, spoilt),
    unsplit: wayOf([rows.rows], order, spoilt),
  };
}
