import { seededRng, standardNormal } from '../math/random';
import { leastSquares, matrix } from '../math/qr';
import { changeKind, type ChangeKind } from './change-kind';

const days = (count: number): readonly number[] => Array.from({ length: count }, (_, i) => i);

/** How often each answer is given for noise of one SD on a shape. */
function answers(shape: (day: number) => number, trials = 400, count = 30): Record<ChangeKind, number> {
  const told: Record<ChangeKind, number> = { jump: 0, walk: 0, 'cannot-tell': 0 };
  const rng = seededRng(11);
  for (let i = 0; i < trials; i++) {
    const values = days(count).map((d) => shape(d) + standardNormal(rng));
    told[changeKind(values, days(count), 1).kind] += 1 / trials;
  }
  return told;
}

describe('a jump is told from a slow walk', () => {
  it('without noise: where, and how much', () => {
    const jump = changeKind(
      days(20).map((d) => (d >= 12 ? 0.3 : 0)),
      days(20),
      0.02,
    );
    expect(jump).toMatchObject({ kind: 'jump', at: 12 });
    expect(jump.size).toBeCloseTo(0.3, 12);
    const walk = changeKind(
      days(20).map((d) => Math.max(0, d - 8) * 0.04),
      days(20),
      0.02,
    );
    expect(walk).toMatchObject({ kind: 'walk', at: 8 });
    expect(walk.size).toBeCloseTo(0.44, 12);
  });
  it('a jump of four SDs, ten checks old, is known as one; hardly ever as a walk', () => {
    const told = answers((d) => (d >= 20 ? 4 : 0));
    expect(told.jump).toBeGreaterThan(0.85);
    expect(told.walk).toBeLessThan(0.03);
  });
  it('a walk of a third of an SD a day, over the last fifteen, is known as one; hardly ever as a jump', () => {
    const told = answers((d) => Math.max(0, d - 15) / 3);
    expect(told.walk).toBeGreaterThan(0.4);
    expect(told.jump).toBeLessThan(0.07);
    const long = answers((d) => Math.max(0, d - 15) / 3, 400, 45);
    expect(long.walk).toBeGreaterThan(0.98);
  });
  it('a walk begins where, and is as steep as, least squares by the triangle of every bent line say', () => {
    const rng = seededRng(5);
    let walks = 0;
    for (let trial = 0; trial < 60; trial++) {
      const times = days(24).map((d) => 20_000 + d + 0.8 * rng());
      const values = times.map((_, i) => 3 + Math.max(0, i - 9) * 0.5 + standardNormal(rng));
      const told = changeKind(values, times, 1);
      if (told.kind !== 'walk') continue;
      walks += 1;
      const bent = times.slice(0, -2).map((begin, at) => {
        const since = times.map((t) => Math.max(0, t - begin));
        const fit = leastSquares(
          matrix(24, 2, (row, column) => (column === 0 ? 1 : since[row]!)),
          values,
        );
        if (!fit.ok) throw new Error('no fit');
        return { at, misfit: fit.value.residualSumOfSquares, size: fit.value.parameters[1]! * since.at(-1)! };
      });
      const first = bent.reduce((a, b) => (b.misfit < a.misfit ? b : a));
      expect(told.at).toBe(first.at);
      expect(told.size).toBeCloseTo(first.size, 6);
    }
    expect(walks).toBeGreaterThan(30);
  });
  it('ten thousand checks cost no more each than ten', () => {
    const rng = seededRng(6);
    const values = days(10_000).map((d) => Math.max(0, d - 5000) / 1000 + standardNormal(rng));
    const told = changeKind(values, days(10_000), 1);
    expect(told.kind).toBe('walk');
    expect(Math.abs(told.at - 5000)).toBeLessThan(400);
  });
  it('of a jump in the very last point neither is said with too few points', () => {
    expect(changeKind([0, 0, 5], [0, 1, 2], 1).kind).toBe('cannot-tell');
  });
  it('times count, not the number of points: a walk seen at uneven times', () => {
    const times = [0, 1, 2, 10, 11, 12, 30, 31, 32, 60];
    const walk = changeKind(
      times.map((t) => Math.max(0, t - 2) * 0.01),
      times,
      0.01,
    );
    expect(walk.kind).toBe('walk');
    expect(walk.size).toBeCloseTo(0.58, 10);
  });
});
