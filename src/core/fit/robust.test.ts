import { seededRng, standardNormal } from '../math/random';
import type { Observation } from '../reading/observation';
import { misfits } from './robust';

/** Readings of one axis with a plane under them; every `wrongEvery`th is a whole millimetre off. */
function readings(n: number, wrongEvery: number): { readonly all: Observation[]; readonly wrong: number[] } {
  const rng = seededRng(n);
  const wrong: number[] = [];
  const all = Array.from({ length: n }, (_, i) => {
    const at = { x: (rng() - 0.5) * 180, y: (rng() - 0.5) * 260 };
    const isWrong = i % wrongEvery === 0;
    if (isWrong) wrong.push(i);
    const off = isWrong ? (rng() < 0.5 ? 1 : -1) : 0;
    return {
      ...{ id: String(i), axis: 'across' as const, at, loadKey: 'load 1', standardUncertaintyMm: 0.05 },
      valueMm: 0.3 + 0.002 * at.x - 0.001 * at.y + 0.05 * standardNormal(rng) + off,
    };
  });
  return { all, wrong };
}

// Above a thousand, planes are first compared on some of the readings: the same must come out as below.
it.each([
  [60, 6],
  [900, 6],
  [1100, 6],
  [5000, 5],
])('of %i readings every %ith is a millimetre off: all of those are found, and hardly another', (n, wrongEvery) => {
  const { all, wrong } = readings(n, wrongEvery);
  const found = new Set(misfits(all));
  expect(wrong.filter((i) => !found.has(i))).toEqual([]);
  // Beyond four standard deviations lie 6 in 100,000 of a normal sample.
  expect(found.size - wrong.length).toBeLessThanOrEqual(2);
});

it('the same readings give the same answer', () => {
  const { all } = readings(3000, 7);
  expect(misfits(all)).toEqual(misfits(all));
});
