import type { ComputeRollInput } from '@/contracts/compute';
import { bestSections } from '@/core/drift/best-sections';
import type { RollDrift } from '@/core/drift/roll-drift';
import { outSharesOfRoll, type RollSectionQuestion } from '@/core/drift/roll-section';
import {
  sectionCost,
  sectionHours,
  sectionTimes,
  spoiltPieces,
  type SectionCost,
  type SectionPrices,
  type SectionTimes,
} from '@/core/drift/section-plan';
import { timelySections, type DueTime, type TimedSections } from '@/core/drift/timely-sections';
import { rowsLengthMm, type SectionRows } from '@/core/drift/section-rows';

/** One way to cut a run into sections, and what it comes to. */
export interface SectionsWay {
  readonly sections: readonly number[];
  readonly spoilt: number;
  readonly cost: SectionCost & { readonly late: number };
  readonly times: readonly SectionTimes[];
  readonly wasteMm: number;
}

export interface SectionsPlanned {
  /** The longest sections that keep the tolerance, all alike but the last. */
  readonly even: SectionsWay;
  /** The cheapest that keep it: exact, lateness to the minute where it is weighed. */
  readonly best: SectionsWay;
  /** False where there are too many rows to weigh when the run is wanted: its lateness is only told. */
  readonly isDueWeighed: boolean;
  /** All in one, whatever the tolerance says. */
  readonly unsplit: SectionsWay;
}

type Due = NonNullable<NonNullable<NonNullable<ComputeRollInput['run']>['prices']>['due']>;

interface Order {
  readonly run: NonNullable<ComputeRollInput['run']>;
  readonly prices: SectionPrices & { readonly due?: Due | undefined };
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

const NEVER_DUE: Due = { dueHours: Infinity, lateHourCost: 0 };

function wayOf(sections: readonly number[], { run, prices, rows }: Order, spoiltIn: readonly number[]): SectionsWay {
  const spoilt = sections.reduce((sum, k) => sum + (spoiltIn[k] ?? 0), 0);
  const one = sectionCost(prices, 0);
  const lost = spoilt * prices.pieceCost;
  const [setUp, waste] = [sections.length * one.setUp, sections.length * one.waste];
  const times = sectionTimes(run, prices, sections);
  const { dueHours, lateHourCost } = prices.due ?? NEVER_DUE;
  const late = lateHourCost * Math.max(0, (times.at(-1)?.finish.toHours ?? 0) - dueHours);
  return {
    sections,
    spoilt: Math.min(spoilt, rows.rows * rows.copiesAcross),
    cost: { setUp, waste, spoilt: lost, late, total: setUp + waste + lost + late },
    times,
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

/** It is weighed when they are done, too, for so many rows: below a second. */
const MOST_TIMED_ROWS = 200;
const MINUTES_PER_HOUR = 60;

/** Whole minutes, rounded up: fewer times that differ, and nobody plans closer. */
const wholeMinutes = (hours: number): number => Math.ceil(MINUTES_PER_HOUR * hours - 1e-9);

function timed(cost: readonly number[], { run, prices }: Order): TimedSections {
  const hours = cost.map((_, rows) => sectionHours(run, prices, rows));
  return {
    cost,
    printTime: hours.map(({ print }) => wholeMinutes(print)),
    cutTime: hours.map(({ cut }) => wholeMinutes(cut)),
    finishTime: wholeMinutes(sectionHours(run, prices, 0).finish),
  };
}

const inMinutes = ({ dueHours, lateHourCost }: Due = NEVER_DUE): DueTime => ({
  dueTime: MINUTES_PER_HOUR * dueHours,
  lateCost: lateHourCost / MINUTES_PER_HOUR,
});

/** Sections of a run by cost: the longest alike, the cheapest, and the run unsplit; null where there are too many rows to weigh. */
export function planSections(drift: RollDrift, question: RollSectionQuestion, order: Order): SectionsPlanned | null {
  const { rows, prices, run } = order;
  if (rows.rows * rows.rowsPerSection > MOST_CHOICES) return null;
  const share = shareByLength(drift, question, rowsLengthMm(run, rows.rows));
  const isBetweenMarks = question.registration.kind === 'both-ends';
  const spoilt = spoiltPieces({ ...run, copiesAcross: rows.copiesAcross, isBetweenMarks }, rows.rows, share);
  const allowed = spoilt.slice(0, rows.rowsPerSection + 1);
  const cost = allowed.map((lost) => sectionCost(prices, lost).total);
  const isDueWeighed = prices.due !== undefined && rows.rows <= MOST_TIMED_ROWS;
  const [even, cheapest] = [evenSections(rows), bestSections(rows.rows, { cost })];
  const timely = isDueWeighed ? timelySections(rows.rows, timed(cost, order), inMinutes(prices.due)) : cheapest;
  const found = [cheapest, timely].flatMap((plan) => (plan.ok ? [wayOf(plan.value.sections, order, spoilt)] : []));
  const evenWay = wayOf(even, order, spoilt);
  return {
    even: evenWay,
    best: found.reduce((a, b) => (b.cost.total < a.cost.total ? b : a), evenWay),
    unsplit: wayOf([rows.rows], order, spoilt),
    isDueWeighed,
  };
}
