import cusumBook from '../../../test-data/worked/handbook_cusum.json';
import ewmaBook from '../../../test-data/worked/handbook_ewma.json';
import individualsBook from '../../../test-data/worked/handbook_individuals.json';
import { seededRng, standardNormal } from '../math/random';
import { controlChart, FALSE_SIGNAL_EVERY, SCHOOLS } from './control-chart';
import { cusum } from './cusum';
import { ewma, ewmaHalfWidth } from './ewma';
import { averageRunLength, chartRun, cusumRun, ewmaRun } from './run-length.testing';
import { individualsLimits, movingRanges } from './individuals';
import { deviation, FULL_COUNT, usualLimits, usualOf } from './usual';

const normals = (seed: number, count: number, shift = 0): readonly number[] => {
  const rng = seededRng(seed);
  return Array.from({ length: count }, () => shift + standardNormal(rng));
};

describe('charts against the worked examples of the NIST/SEMATECH e-Handbook', () => {
  it('individuals (6.3.2.2): mean, moving ranges and limits', () => {
    const { x, mr, stated } = individualsBook;
    movingRanges(x).forEach((range, i) => {
      expect(range).toBeCloseTo(mr[i] ?? NaN, 10);
    });
    const limits = individualsLimits(x, stated.d2);
    expect(limits.centre).toBeCloseTo(stated.mean, 2);
    expect(limits.upper).toBeCloseTo(stated.ucl, 3);
    expect(limits.lower).toBeCloseTo(stated.lcl, 3);
  });
  it('EWMA (6.3.2.4): every average to its printed digits, and the limits', () => {
    const { x, lambda_, target, s, L, stated, recomputed } = ewmaBook;
    // The book prints the target itself first.
    expect(stated.ewma[0]).toBe(target);
    ewma(x, target, lambda_).forEach((value, i) => {
      expect(Math.abs(value - (stated.ewma[i + 1] ?? NaN))).toBeLessThan(0.0051);
    });
    const half = ewmaHalfWidth(s, { lambda: lambda_, width: L });
    expect(target + half).toBeCloseTo(recomputed.ucl, 10);
    expect(target - half).toBeCloseTo(recomputed.lcl, 10);
  });
  it('CUSUM (6.3.2.3): both sums of every group, and the group that signals first', () => {
    const { x, target, k, h, expected } = cusumBook;
    const sums = cusum(x, target, k);
    sums.forEach(({ high, low }, i) => {
      expect(high).toBeCloseTo(expected.S_hi[i] ?? NaN, 10);
      expect(low).toBeCloseTo(expected.S_lo[i] ?? NaN, 10);
    });
    expect(sums.findIndex(({ high, low }) => Math.max(high, low) > h) + 1).toBe(expected.first_signal_group);
  });
});

/** Fifty normal numbers at which no chart signals. */
const QUIET_SEED = 21;

describe('what is usual', () => {
  it('makes of any normal values standard normal ones, from the third on (self-starting)', () => {
    // 3,000 charts of eight points at some level and spread: mean 0, SD 1, and 0.27 % beyond three at every place.
    const sums = Array.from({ length: 8 }, () => ({ sum: 0, squares: 0, beyond: 0 }));
    const CHARTS = 3000;
    for (let c = 0; c < CHARTS; c++) {
      const values = normals(c, 8).map((z) => 50 + 0.07 * z);
      values.forEach((value, i) => {
        const usual = usualOf(values.slice(0, i));
        const place = sums[i];
        if (!usual || !place) return;
        const z = deviation(value, usual);
        place.sum += z;
        place.squares += z * z;
        place.beyond += Math.abs(z) > 2 ? 1 : 0;
      });
    }
    for (const { sum, squares, beyond } of sums.slice(2)) {
      expect(Math.abs(sum / CHARTS)).toBeLessThan(4 / Math.sqrt(CHARTS));
      expect(Math.abs(squares / CHARTS - 1)).toBeLessThan(4 * Math.sqrt(2 / CHARTS));
      // Beyond two: 4.55 of 100.
      expect(Math.abs(beyond / CHARTS - 0.0455)).toBeLessThan(4 * Math.sqrt((0.0455 * 0.9545) / CHARTS));
    }
  });
  it('its limits are where a deviation is three', () => {
    const usual = usualOf(normals(4, 12));
    if (!usual) throw new Error('twelve points are enough');
    const { lower, upper } = usualLimits(usual);
    expect(deviation(upper, usual)).toBeCloseTo(3, 6);
    expect(deviation(lower, usual)).toBeCloseTo(-3, 6);
  });
  it('of fifty points is what the handbook\u2019s individuals chart has', () => {
    const values = normals(3, FULL_COUNT + 5);
    const usual = usualOf(values);
    const limits = individualsLimits(values.slice(0, FULL_COUNT));
    expect(usual).toMatchObject({ mean: limits.centre, sd: limits.sd, count: FULL_COUNT });
    if (usual) expect(usualLimits(usual)).toEqual({ lower: limits.lower, upper: limits.upper });
  });
  it('is not known from one point, nor from points that are all alike', () => {
    expect([usualOf([]), usualOf([1]), usualOf([1, 1, 1])]).toEqual([null, null, null]);
  });
});

describe('a control chart', () => {
  const shifted = [...normals(QUIET_SEED, FULL_COUNT), ...normals(10, 30, 2)];
  it.each(SCHOOLS)('%s: a shift of two SDs signals within a dozen points, and is not learned as usual', (school) => {
    const chart = controlChart(shifted, school);
    expect(chart.points.slice(0, FULL_COUNT).every((p) => p.signal === null)).toBe(true);
    const first = chart.points.findIndex((p) => p.signal !== null);
    expect(first).toBeGreaterThanOrEqual(FULL_COUNT);
    expect(first).toBeLessThan(FULL_COUNT + 12);
    expect(chart.isProvisional).toBe(false);
    expect(chart.usual).toEqual(controlChart(shifted.slice(0, FULL_COUNT), school).usual);
  });
  it.each(SCHOOLS)('%s: provisional until fifty points; too few points draw nothing', (school) => {
    expect(controlChart(normals(2, FULL_COUNT - 1), school).isProvisional).toBe(true);
    expect(controlChart([0.1, 0.2], school).points.map((p) => p.drawn)).toEqual([null, null]);
    expect(controlChart([], school)).toMatchObject({ points: [], usual: null });
  });
  it('individuals: eight in a row on one side signal though none lies beyond', () => {
    const walk = [...normals(QUIET_SEED, FULL_COUNT), ...Array.from({ length: 9 }, () => 0.8)];
    const rules = controlChart(walk, 'individuals').points.map((p) => p.signal);
    expect(rules.filter((rule) => rule === 'beyond')).toEqual([]);
    expect(rules).toContain('run');
  });
});

describe('average run lengths, simulated', () => {
  // Within four standard errors of the simulation, and half a unit of the printed figure.
  const holds = (
    measured: { readonly mean: number; readonly standardError: number },
    wanted: number,
    printed = 0.5,
  ) => {
    expect(Math.abs(measured.mean - wanted)).toBeLessThan(4 * measured.standardError + printed);
  };
  it.each([
    [0.05, 2.615],
    [0.1, 2.814],
    [0.2, 2.962],
    [0.25, 2.998],
    [0.4, 3.054],
  ])('EWMA %p with limits at %p: 500 (Lucas and Saccucci 1990, from memory)', (lambda, width) => {
    const found = averageRunLength(seededRng(1), 4000, ewmaRun({ lambda, width }));
    // The printed widths have four digits: they make 498 to 502.
    holds(found, 500, 3);
    expect(found.standardError).toBeLessThan(10);
  });
  it('CUSUM .5 and 5: 465.4 in control, 10.38 at one SD (same source)', () => {
    holds(averageRunLength(seededRng(2), 4000, cusumRun({ slack: 0.5, limit: 5 })), 465.4, 0.1);
    holds(averageRunLength(seededRng(3), 20_000, cusumRun({ slack: 0.5, limit: 5 }, 1)), 10.38, 0.01);
  });
  it.each(SCHOOLS)('%s as it is kept here: as often as the page says', (school) => {
    // Individuals with eight in a row: 152.73 (Champ and Woodall, Technometrics 29, 1987, from memory).
    holds(averageRunLength(seededRng(4), 6000, chartRun(school)), FALSE_SIGNAL_EVERY[school], 3);
  });
});
