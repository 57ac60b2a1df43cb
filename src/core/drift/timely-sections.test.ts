import fc from 'fast-check';
import { bestSections } from './best-sections';
import { sectionTimes } from './section-plan';
import { timelySections, type DueTime, type TimedSections } from './timely-sections';

/** Cost of one way in its order, by the times that a run is told to take. */
function costOf(sections: readonly number[], costs: TimedSections, { dueTime, lateCost }: DueTime): number {
  let [printed, cut, finished, cost] = [0, 0, 0, 0];
  for (const k of sections) {
    printed += costs.printTime[k]!;
    cut = Math.max(cut, printed) + costs.cutTime[k]!;
    finished = Math.max(finished, cut) + costs.finishTime;
    cost += costs.cost[k]!;
  }
  return cost + lateCost * Math.max(0, finished - dueTime);
}

/** Every way in every order. */
function everyWay(rows: number, most: number): readonly (readonly number[])[] {
  if (rows === 0) return [[]];
  return Array.from({ length: Math.min(rows, most) }, (_, i) => i + 1).flatMap((k) =>
    everyWay(rows - k, most).map((rest) => [k, ...rest]),
  );
}

const whole = (most: number) => fc.integer({ min: 0, max: most });

describe('the cheapest sections where lateness costs', () => {
  it('are those that trying every way in every order finds, on all small cases', () => {
    const one = fc.record({ cost: whole(30), print: whole(9), cut: whole(9) });
    const costs = fc.array(one, { minLength: 1, maxLength: 6 });
    const due = fc.record({ dueTime: whole(60), lateCost: whole(12) });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10 }), costs, whole(9), due, (rows, list, finishTime, asked) => {
        const timed: TimedSections = {
          cost: [0, ...list.map((c) => c.cost)],
          printTime: [0, ...list.map((c) => c.print)],
          cutTime: [0, ...list.map((c) => c.cut)],
          finishTime,
        };
        const plan = timelySections(rows, timed, asked);
        if (!plan.ok) throw new Error(plan.error.kind);
        const all = everyWay(rows, list.length).map((way) => costOf(way, timed, asked));
        expect(plan.value.cost).toBe(Math.min(...all));
        expect(costOf(plan.value.sections, timed, asked)).toBe(plan.value.cost);
        expect(plan.value.sections.reduce((sum, k) => sum + k, 0)).toBe(rows);
      }),
      { numRuns: 300 },
    );
  });

  it('are the cheapest ones where there is time enough', () => {
    const cost = Array.from({ length: 13 }, (_, k) => 7 + 0.02 * k ** 3);
    const hours = cost.map((_, k) => k / 10);
    const timed = { cost, printTime: hours, cutTime: hours, finishTime: 0.1 };
    for (const rows of [1, 12, 40, 97]) {
      const plain = bestSections(rows, { cost });
      const plan = timelySections(rows, timed, { dueTime: 1000, lateCost: 50 });
      expect(plan.ok && plain.ok && Math.abs(plan.value.cost - plain.value.cost) < 1e-9).toBe(true);
    }
  });

  it('a run that is due soon is cut short at its end: the cutter waits less for the last section', () => {
    const order = { itemLengthMm: 1000, gapMm: 0 };
    const prices = {
      ...{ setUpMinutes: 6, printMetresPerHour: 10, cutMetresPerHour: 10, finishMinutes: 0 },
      ...{ endWasteMm: 0, hourCost: 0, metreCost: 0, pieceCost: 0 },
    };
    const timed = {
      cost: Array.from({ length: 13 }, () => 1),
      printTime: Array.from({ length: 13 }, (_, k) => k / 10),
      cutTime: Array.from({ length: 13 }, (_, k) => 0.1 + k / 10),
      finishTime: 0,
    };
    const plan = timelySections(12, timed, { dueTime: 0, lateCost: 100 });
    if (!plan.ok) throw new Error(plan.error.kind);
    const doneAfter = (sections: readonly number[]): number =>
      sectionTimes(order, prices, sections).at(-1)?.finish.toHours ?? 0;
    expect(doneAfter(plan.value.sections)).toBeLessThan(doneAfter([6, 6]));
    expect(doneAfter(plan.value.sections)).toBeLessThan(doneAfter([12]));
    expect(plan.value.cost).toBeCloseTo(plan.value.sections.length + 100 * doneAfter(plan.value.sections), 9);
  });

  it('where no section is allowed, that is said', () => {
    const timed = { cost: [0, Infinity], printTime: [0, 1], cutTime: [0, 1], finishTime: 0 };
    expect(timelySections(3, timed, { dueTime: 1, lateCost: 1 })).toMatchObject({
      error: { kind: 'no-section-allowed' },
    });
  });
});
