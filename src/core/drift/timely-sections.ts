import { fail, ok, type Result } from '../result';
import { bestSections, leastOf, type NoPlan, type SectionPlan } from './best-sections';

/** What a section of so many rows costs and how long it is printed, cut and finished, in one unit of time throughout; index 0 is not used. */
export interface TimedSections {
  /** Infinite where such a section is not allowed. */
  readonly cost: readonly number[];
  readonly printTime: readonly number[];
  /** With its set-up. */
  readonly cutTime: readonly number[];
  readonly finishTime: number;
}

/** When the run is wanted, counted from the beginning of printing, and what every unit of time later costs. */
export interface DueTime {
  readonly dueTime: number;
  readonly lateCost: number;
}

/** Some first rows of the run cut into sections: what that has cost, when they are printed, cut and finished. */
interface Begun {
  readonly cost: number;
  readonly printed: number;
  readonly cut: number;
  readonly finished: number;
  readonly rows: number;
  readonly before: Begun | null;
}

const NOTHING: Begun = { cost: 0, printed: 0, cut: 0, finished: 0, rows: 0, before: null };

/** No dearer and in nothing later: whatever follows, the other one cannot come out better. */
const isNoWorse = (a: Begun, b: Begun): boolean =>
  a.cost <= b.cost && a.printed <= b.printed && a.cut <= b.cut && a.finished <= b.finished;

/** Keeps what none of the others is no worse than. */
function keep(all: Begun[], one: Begun): void {
  if (all.some((other) => isNoWorse(other, one))) return;
  let kept = 0;
  for (const other of all) if (!isNoWorse(one, other)) all[kept++] = other;
  all.length = kept;
  all.push(one);
}

function withOneMore(before: Begun, rows: number, costs: TimedSections): Begun {
  const printed = before.printed + costs.printTime[rows]!;
  const cut = Math.max(printed, before.cut) + costs.cutTime[rows]!;
  const finished = Math.max(cut, before.finished) + costs.finishTime;
  return { cost: before.cost + costs.cost[rows]!, printed, cut, finished, rows, before };
}

function sectionsOf(last: Begun): readonly number[] {
  const sections: number[] = [];
  for (let at: Begun | null = last; at && at.rows > 0; at = at.before) sections.unshift(at.rows);
  return sections;
}

/** What a way comes to with its lateness. */
const totalOf = ({ cost, finished }: Begun, { dueTime, lateCost }: DueTime): number =>
  cost + lateCost * Math.max(0, finished - dueTime);

/** What the rows that are left cost at least, and how long each step of them takes at least. */
interface Bounds {
  readonly cost: Float64Array;
  readonly print: Float64Array;
  readonly cut: Float64Array;
  readonly count: Float64Array;
}

function boundsOf(rows: number, { cost, printTime, cutTime }: TimedSections): Bounds {
  const allowed = (of: (k: number) => number) => cost.map((c, k) => (Number.isFinite(c) ? of(k) : Infinity));
  const least = (of: (k: number) => number): Float64Array => leastOf(rows, allowed(of)).sum;
  return {
    cost: least((k) => cost[k]!),
    print: least((k) => printTime[k]!),
    cut: least((k) => cutTime[k]!),
    count: least(() => 1),
  };
}

/** The least that any way can come to that goes on from here. */
function atLeast(begun: Begun, left: number, bounds: Bounds, { costs, due }: Asked): number {
  if (left === 0) return totalOf(begun, due);
  const { finishTime } = costs;
  const finished = Math.max(
    begun.printed + bounds.print[left]! + finishTime,
    begun.cut + bounds.cut[left]! + finishTime,
    begun.finished + bounds.count[left]! * finishTime,
  );
  return totalOf({ ...begun, cost: begun.cost + bounds.cost[left]!, finished }, due);
}

interface Asked {
  readonly costs: TimedSections;
  readonly due: DueTime;
}

const begunBy = (sections: readonly number[], costs: TimedSections): Begun =>
  sections.reduce((begun, k) => withOneMore(begun, k, costs), NOTHING);

/** Something that can be had for sure: the cheapest without regard to time, either way round, or all alike with the rest at either end. */
function firstGuess(rows: number, { costs, due }: Asked): Begun | null {
  const guesses: (readonly number[])[] = [];
  const cheapest = bestSections(rows, costs);
  if (cheapest.ok) guesses.push(cheapest.value.sections, cheapest.value.sections.toReversed());
  for (let k = 1; k < costs.cost.length; k++) {
    const rest = rows % k;
    const alike = Array<number>(Math.floor(rows / k)).fill(k);
    guesses.push(rest === 0 ? alike : [...alike, rest], rest === 0 ? alike : [rest, ...alike]);
  }
  const ways = guesses.map((guess) => begunBy(guess, costs)).filter(({ cost }) => Number.isFinite(cost));
  return ways.reduce<Begun | null>((a, b) => (a && totalOf(a, due) <= totalOf(b, due) ? a : b), null);
}

/** Two sums of the same numbers in another order may differ by so much. */
const ROUNDING = 1e-9;

/**
 * The cheapest way to cut a run into sections where lateness costs as well: a section is cut once it is printed and the one
 * before it is cut, and finished likewise, so that their order counts. Exact: of every number of rows all ways are kept that
 * no other one equals in cost and all three times (dynamic programming over labels that do not dominate each other), but for
 * those that cannot come out below a way that is known already (branch and bound); both are textbook.
 * @param rows rows of the run, 1 and more.
 * @returns sections in the order of printing, the cost of lateness in their cost.
 */
export function timelySections(rows: number, costs: TimedSections, due: DueTime): Result<SectionPlan, NoPlan> {
  const asked = { costs, due };
  const guess = firstGuess(rows, asked);
  if (!guess) return fail({ kind: 'no-section-allowed' });
  const bounds = boundsOf(rows, costs);
  const known = totalOf(guess, due);
  const most = costs.cost.length - 1;
  const ways: Begun[][] = [[NOTHING]];
  for (let n = 1; n <= rows; n++) {
    const here: Begun[] = [];
    for (let k = 1; k <= most && k <= n; k++) {
      if (!Number.isFinite(costs.cost[k]!)) continue;
      for (const before of ways[n - k]!) {
        const one = withOneMore(before, k, costs);
        if (atLeast(one, rows - n, bounds, asked) < known - ROUNDING) keep(here, one);
      }
    }
    ways.push(here);
  }
  const best = ways[rows]!.reduce((a, b) => (totalOf(b, due) < totalOf(a, due) ? b : a), guess);
  return ok({ sections: sectionsOf(best), cost: totalOf(best, due) });
}
