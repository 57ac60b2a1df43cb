import fc from 'fast-check';
import { fisherExact, wilsonInterval } from './proportion';

/** Chance of k hits of m where hits of m + n fell by chance, by products. */
function hypergeometric(k: number, m: number, n: number, hits: number): number {
  const choose = (of: number, take: number): number => {
    let product = 1;
    for (let i = 1; i <= take; i++) product *= (of - take + i) / i;
    return product;
  };
  return (choose(m, k) * choose(n, hits - k)) / choose(m + n, hits);
}

describe('share of hits', () => {
  // Newcombe 1998, Statistics in Medicine 17, 857-872, table I, method 3 (score without correction); from memory.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%d of %d', (hits, trials, lower, upper) => {
    const found = wilsonInterval(hits, trials);
    expect(found.lower).toBeCloseTo(lower, 4);
    expect(found.upper).toBeCloseTo(upper, 4);
  });
  // The lady tasting tea (Fisher 1935), and an example of the manual of SciPy; from memory.
  it.each([
    { a: 3, m: 4, b: 1, n: 4, p: 0.485714 },
    { a: 4, m: 4, b: 0, n: 4, p: 0.028571 },
    { a: 8, m: 10, b: 1, n: 6, p: 0.034965 },
    { a: 1, m: 10, b: 11, n: 14, p: 0.002759 },
  ])('$a of $m against $b of $n: p is $p', ({ a, m, b, n, p }) => {
    expect(fisherExact({ hits: a, trials: m }, { hits: b, trials: n })).toBeCloseTo(p, 6);
  });
  it('two shares that are the same are told apart no oftener than said (property)', () => {
    const count = fc.integer({ min: 1, max: 60 });
    fc.assert(
      fc.property(count, count, fc.double({ min: 0, max: 1, noNaN: true }), (m, n, part) => {
        // Every way in which the hits may fall: those told apart at 5 % add up to at most 5 %.
        const hits = Math.round(part * (m + n));
        const ways = Array.from({ length: m + 1 }, (_, k) => k).filter((k) => hits - k >= 0 && hits - k <= n);
        const chance = (k: number): number => hypergeometric(k, m, n, hits);
        const told = ways.filter((k) => fisherExact({ hits: k, trials: m }, { hits: hits - k, trials: n }) <= 0.05);
        expect(told.reduce((sum, k) => sum + chance(k), 0)).toBeLessThanOrEqual(0.05 + 1e-9);
      }),
    );
  });
  it('holds the share, and misses mirror hits (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.double({ min: 0, max: 1, noNaN: true }), (trials, part) => {
        const hits = Math.round(part * trials);
        const [a, b] = [wilsonInterval(hits, trials), wilsonInterval(trials - hits, trials)];
        expect(a.lower).toBeLessThanOrEqual(a.share + 1e-12);
        expect(a.upper).toBeGreaterThanOrEqual(a.share - 1e-12);
        expect(a.lower).toBeCloseTo(1 - b.upper, 12);
      }),
    );
  });
});
