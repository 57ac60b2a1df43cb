import fc from 'fast-check';
import { MOST_OF_ONE, nextMove, type NextMoveFacts } from './next-move';

const NEVER = { 'another-load': 0, 'more-looks': 0, 'correct-again': 0 };
const facts = (over: Partial<NextMoveFacts> = {}): NextMoveFacts => ({
  ...{ worstMm: 0.1, upperMm: 0.32, limitMm: 0.3, loads: 1, loadsInAll: 2, readingShare: 0.2, leftoverMm: null, done: NEVER },
  ...over,
});

describe('the next move after a verdict of cannot tell', () => {
  it.each<[string, Partial<NextMoveFacts>, string, number]>([
    ['loading is the larger doubt: another load', {}, 'another-load', 0.1 + 0.22 * Math.SQRT1_2],
    [
      'reading is all of it: looks at every figure',
      { readingShare: 1, loads: 3 },
      'more-looks',
      0.1 + 0.22 * Math.SQRT1_2,
    ],
    [
      'the estimate itself is near the limit: correct again',
      { worstMm: 0.28, upperMm: 0.4, leftoverMm: 0.02 },
      'correct-again',
      0.14,
    ],
    [
      'far beyond, and nothing reaches it: a wider limit',
      { worstMm: 0.5, upperMm: 0.55, loads: 2 },
      'wider-limit',
      0.55,
    ],
    [
      'two more loads were cut already',
      { done: { ...NEVER, 'another-load': 2, 'more-looks': 2 } },
      'wider-limit',
      0.32,
    ],
  ])('%s', (_, over, move, upperMm) => {
    const best = nextMove(facts(over));
    expect(best.move).toBe(move);
    expect(best.upperMm).toBeCloseTo(upperMm, 9);
  });

  it('following it ends: never the same more than twice, and a wider limit at last (property)', () => {
    const size = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(size, size, size, fc.option(size), (worstMm, doubt, readingShare, leftoverMm) => {
        const done: Record<string, number> = { ...NEVER };
        let loads = 1;
        for (let round = 0; round < 3 * MOST_OF_ONE + 1; round++) {
          const upperMm = worstMm + doubt / Math.sqrt(loads);
          const { move } = nextMove(
            facts({ worstMm, upperMm, loads, readingShare, leftoverMm, done: done as typeof NEVER }),
          );
          if (move === 'wider-limit') return;
          done[move] = (done[move] ?? 0) + 1;
          expect(done[move]).toBeLessThanOrEqual(MOST_OF_ONE);
          if (move === 'another-load') loads++;
        }
        throw new Error('it went round in a circle');
      }),
    );
  });
});
