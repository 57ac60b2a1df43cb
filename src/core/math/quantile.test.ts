import { readFileSync } from 'node:fs';
import normalOracle from '@stdlib/stats-base-dists-normal-quantile';
import tOracle from '@stdlib/stats-base-dists-t-quantile';
import { chiSquareQuantile, fisherQuantile, normalProbability, studentProbability, studentQuantile } from './quantile';
import { normalQuantile } from './normal-quantile';

interface Tables {
  t: { nu: number; p: number; t: number }[];
  chi2: { nu: number; p: number; q: number }[];
  F: { nu1: number; nu2: number; p: number; q: number }[];
}
const tables = JSON.parse(readFileSync('test-data/worked/t_chi2_F_quantiles.json', 'utf8')) as Tables;
const relative = (got: number, wanted: number) => Math.abs(got / wanted - 1);

describe('quantiles against tables computed to full precision (test-data/worked/t_chi2_F_quantiles.json)', () => {
  it('Student t, two-sided p, every row to 1e-10', () => {
    for (const row of tables.t) expect(relative(studentQuantile(0.5 + row.p / 2, row.nu), row.t)).toBeLessThan(1e-10);
  });
  it('chi-square, every row to 1e-9', () => {
    for (const row of tables.chi2) expect(relative(chiSquareQuantile(row.p, row.nu), row.q)).toBeLessThan(1e-9);
  });
  it('F, every row to 1e-9', () => {
    for (const row of tables.F) expect(relative(fisherQuantile(row.p, row.nu1, row.nu2), row.q)).toBeLessThan(1e-9);
  });
  it('GUM Table G.2: t for 95 % and 10 degrees is 2.23 (JCGM 100:2008, from memory)', () => {
    expect(studentQuantile(0.975, 10)).toBeCloseTo(2.23, 2);
  });
});

describe('quantiles against the @stdlib distributions', () => {
  it.each([1e-5, 0.001, 0.05, 0.0749, 0.0751, 0.3, 0.5, 0.8, 0.975, 0.9999])('normal at p = %s', (p) => {
    // The oracle takes p from one and so loses digits far out.
    expect(Math.abs(normalQuantile(p) - normalOracle(p, 0, 1))).toBeLessThan(1e-12);
    expect(normalProbability(normalQuantile(p))).toBeCloseTo(p, 12);
  });
  it.each([
    [0.25, -0.6744897501960817],
    [0.001, -3.090232306167814],
    [1e-20, -9.262340089798408],
  ])('normal at p = %s is the printed check value of Algorithm AS 241 (from memory)', (p, z) => {
    expect(relative(normalQuantile(p), z)).toBeLessThan(1e-15);
  });
  it.each([1, 4, 12, 40])('Student t with %s degrees at several p', (nu) => {
    for (const p of [0.02, 0.4, 0.95, 0.995])
      expect(Math.abs(studentQuantile(p, nu) - tOracle(p, nu))).toBeLessThan(1e-8);
  });
  it('Student t probability is the quantile undone', () => {
    for (const nu of [1, 3, 18, 200])
      for (const p of [0.001, 0.3, 0.5, 0.975])
        expect(studentProbability(studentQuantile(p, nu), nu)).toBeCloseTo(p, 11);
  });
  it('takes infinite degrees as the normal', () => {
    expect(studentQuantile(0.95, Infinity)).toBe(normalQuantile(0.95));
    expect(fisherQuantile(0.9875, 2, Infinity)).toBeCloseTo(chiSquareQuantile(0.9875, 2) / 2, 12);
  });
});
