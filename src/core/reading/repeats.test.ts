import fc from 'fast-check';
import { seededRng, standardNormal } from '../math/random';
import { assumedLookSd, combineLooks, lookSd, looksUncertainty, repeatabilityOf, type FigureLook } from './repeats';
import { readingUncertainty, type ReadingConditions } from './uncertainty';

const conditions: ReadingConditions = { stepMm: 0.05, operatorSdMm: 0.04, printerDotMm: 0.0423, isPlotterFile: false };
const SD = assumedLookSd(conditions);
const looks = (...values: number[]): FigureLook[] => values.map((valueMm, i) => ({ id: `look ${i + 1}`, valueMm }));

describe('several looks at one figure', () => {
  it.each([
    ['one look', [0.3], { valueMm: 0.3, count: 1, oddIds: [], disputeMm: 0 }],
    ['two that agree', [0.3, 0.4], { valueMm: 0.35, count: 2, oddIds: [], disputeMm: 0 }],
    ['two that do not: both count, with half their distance as doubt', [0.3, 0.9], { count: 2, disputeMm: 0.3 }],
    ['three, the second misread by half a mm: it is named', [0.3, 0.8, 0.35], { count: 2, oddIds: ['look 2'] }],
    ['three that all differ: nothing is named', [-0.6, 0, 0.7], { count: 3, oddIds: [], disputeMm: 0.65 }],
  ] as const)('%s', (_name, values, wanted) => {
    const { valueMm, ...rest } = combineLooks(looks(...values), SD);
    const { valueMm: wantedMm = valueMm, ...others } = wanted as { valueMm?: number };
    expect(valueMm).toBeCloseTo(wantedMm, 12);
    for (const [key, value] of Object.entries(others)) {
      const got = rest[key as keyof typeof rest];
      if (typeof value === 'number') expect(got).toBeCloseTo(value, 12);
      else expect(got).toEqual(value);
    }
  });

  it('the order of looks changes nothing, and a shift of all shifts the mean (property)', () => {
    const steps = fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(steps, fc.integer({ min: -20, max: 20 }), (given, by) => {
        const values = given.map((n) => n * 0.05);
        const one = combineLooks(looks(...values), SD);
        const turned = combineLooks(looks(...values).reverse(), SD);
        const moved = combineLooks(looks(...values.map((v) => v + by * 0.05)), SD);
        expect(turned.valueMm).toBeCloseTo(one.valueMm, 9);
        expect(turned.count).toBe(one.count);
        expect(moved.count).toBe(one.count);
        expect(moved.valueMm).toBeCloseTo(one.valueMm + by * 0.05, 9);
      }),
    );
  });

  it('pools the scatter of pairs: a worked example by hand', () => {
    // Differences 0.1, 0.05, 0: squares of halves twice, (2 x 0.0025 + 2 x 0.000625) / 3 degrees.
    const known = repeatabilityOf([looks(0, 0.1), looks(0.2, 0.25), looks(-0.3, -0.3), looks(0.7)], SD);
    expect(known?.degrees).toBe(3);
    expect(known?.sdMm).toBeCloseTo(Math.sqrt(0.00625 / 3), 12);
    // Chi-square quantiles of 3 degrees: 0.2158 and 9.3484 (handbook table, NIST/SEMATECH 1.3.6.7.4).
    expect(known?.lowerMm).toBeCloseTo(Math.sqrt(0.00625 / 9.3484), 5);
    expect(known?.upperMm).toBeCloseTo(Math.sqrt(0.00625 / 0.2158), 4);
  });

  it('a single look is as doubtful as before; two halve the eye alone, never dot and file', () => {
    const once = { count: 1, disputeMm: 0 };
    expect(looksUncertainty(conditions, null, once)).toBeCloseTo(readingUncertainty(conditions), 12);
    const common = 0.0423 / Math.sqrt(12);
    expect(looksUncertainty(conditions, null, { count: 2, disputeMm: 0 })).toBeCloseTo(
      Math.hypot(SD / Math.SQRT2, common),
      12,
    );
    expect(looksUncertainty(conditions, null, { count: 1e9, disputeMm: 0 })).toBeCloseTo(common, 6);
  });

  it('an eye steadier than the step keeps the rounding whole', () => {
    const still = { sdMm: 0, degrees: 18, lowerMm: 0, upperMm: 0 };
    expect(looksUncertainty(conditions, still, { count: 2, disputeMm: 0 })).toBeCloseTo(
      Math.hypot(0.05 / Math.sqrt(12), 0.0423 / Math.sqrt(12)),
      12,
    );
  });

  it('few repeats are not trusted yet', () => {
    const few = { sdMm: 0.01, degrees: 9, lowerMm: 0, upperMm: 1 };
    expect(lookSd(conditions, few)).toBe(SD);
    expect(lookSd(conditions, { ...few, degrees: 10 })).toBeCloseTo(0.01 * Math.sqrt(10 / 8), 12);
  });

  it('what is claimed is what comes: 4,000 figures read twice in whole steps, eye SD 0.05', () => {
    const rng = seededRng(20261125);
    const rounded = (mm: number): number => Math.round(mm / 0.05) * 0.05;
    let [squares, claimed, lines] = [0, 0, 0];
    for (let sheet = 0; sheet < 220; sheet++) {
      const figures = Array.from({ length: 18 }, () => {
        const truth = 2 * rng() - 1;
        return { truth, looks: looks(...[1, 2].map(() => rounded(truth + 0.05 * standardNormal(rng)))) };
      });
      const known = repeatabilityOf(
        figures.map((f) => f.looks),
        SD,
      );
      for (const { truth, looks: two } of figures) {
        const combined = combineLooks(two, lookSd(conditions, known));
        squares += (combined.valueMm - truth) ** 2;
        claimed += looksUncertainty({ ...conditions, printerDotMm: 0 }, known, combined) ** 2;
        lines += 1;
      }
    }
    expect(lines).toBe(3960);
    expect(Math.sqrt(squares / claimed)).toBeGreaterThan(0.9);
    expect(Math.sqrt(squares / claimed)).toBeLessThan(1.05);
  });
});
