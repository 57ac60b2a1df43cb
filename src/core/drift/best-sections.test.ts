import fc from 'fast-check';
import { bestSections } from './best-sections';

/** Every way to cut so many rows into sections, the cheapest of them. */
function bruteForce(rows: number, cost: readonly number[]): number {
  if (rows === 0) return 0;
  let best = Infinity;
  for (let k = 1; k < cost.length && k <= rows; k++) best = Math.min(best, cost[k]! + bruteForce(rows - k, cost));
  return best;
}

describe('the cheapest sections', () => {
  it('are those that trying every way finds, on all small cases', () => {
    const costs = fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 13 }), costs, (rows, cost) => {
        const plan = bestSections(rows, { cost });
        if (!plan.ok) throw new Error(plan.error.kind);
        expect(plan.value.cost).toBe(bruteForce(rows, cost));
        expect(plan.value.sections.reduce((sum, k) => sum + k, 0)).toBe(rows);
        expect(plan.value.sections.reduce((sum, k) => sum + cost[k]!, 0)).toBe(plan.value.cost);
      }),
      { numRuns: 300 },
    );
  });

  it('few sections where setting up is dear, short ones where drift spoils the far end', () => {
    const costOf = (setUp: number, spoilt: number): number[] =>
      Array.from({ length: 11 }, (_, k) => (k === 0 ? 0 : setUp + spoilt * k ** 3));
    expect(bestSections(20, { cost: costOf(50, 0.001) })).toMatchObject({ value: { sections: [10, 10] } });
    // A row costs (2 + 0.1 k^3) / k: 1.4 in pairs, 1.6 in threes.
    expect(bestSections(20, { cost: costOf(2, 0.1) })).toMatchObject({
      value: { sections: Array<number>(10).fill(2) },
    });
  });

  it('a length that is not allowed is not used; where none is, that is said', () => {
    const plan = bestSections(7, { cost: [0, Infinity, 1, 1, Infinity] });
    expect(plan).toMatchObject({ value: { sections: [3, 2, 2], cost: 3 } });
    expect(bestSections(1, { cost: [0, Infinity, 1] })).toMatchObject({ error: { kind: 'no-section-allowed' } });
  });
});
