import fc from 'fast-check';
import { sectionCost, sectionTimes, spoiltPieces, type SectionPrices } from './section-plan';

const ORDER = { itemLengthMm: 96, gapMm: 4 };
const PRICES: SectionPrices = {
  ...{ setUpMinutes: 6, printMetresPerHour: 10, cutMetresPerHour: 20, finishMinutes: 3, endWasteMm: 52 },
  ...{ hourCost: 20, metreCost: 3, pieceCost: 1 },
};

const BY_START = { ...ORDER, copiesAcross: 3, isBetweenMarks: false };

describe('sections side by side', () => {
  it('the second is printed while the first is cut: 1 m each, by hand', () => {
    // 9 rows: 9 x 96 + 8 x 4 + 2 x 52 = 1000 mm: 0.1 h printing, 0.1 h set-up + 0.05 h cutting, 0.05 h finishing.
    const [first, second] = sectionTimes(ORDER, PRICES, [9, 9]);
    expect(first?.print.toHours).toBeCloseTo(0.1, 9);
    expect(first?.cut.toHours).toBeCloseTo(0.25, 9);
    expect(first?.finish.toHours).toBeCloseTo(0.3, 9);
    expect(second?.print.fromHours).toBeCloseTo(0.1, 9);
    expect(second?.cut.fromHours).toBeCloseTo(0.25, 9);
    expect(second?.finish.toHours).toBeCloseTo(0.45, 9);
  });

  it('nothing is cut before it is printed, nor two at once; splitting never makes the first piece later', () => {
    const sections = fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(sections, (rows) => {
        const times = sectionTimes(ORDER, PRICES, rows);
        for (const [i, { print, cut, finish }] of times.entries()) {
          expect(cut.fromHours).toBeGreaterThanOrEqual(print.toHours);
          expect(finish.fromHours).toBeGreaterThanOrEqual(cut.toHours);
          expect(cut.fromHours).toBeGreaterThanOrEqual(times[i - 1]?.cut.toHours ?? 0);
        }
        const all = rows.reduce((sum, r) => sum + r, 0);
        const [whole] = sectionTimes(ORDER, PRICES, [all]);
        expect(times[0]?.finish.toHours).toBeLessThanOrEqual((whole?.finish.toHours ?? 0) + 1e-9);
      }),
    );
  });

  it('pieces lost: all of those after the place where the tolerance is left', () => {
    const last = (outShare: (mm: number) => number): number | undefined => spoiltPieces(BY_START, 10, outShare).at(-1);
    expect(last(() => 0)).toBe(0);
    expect(last(() => 1)).toBe(30);
    // Out for sure after 500 mm: rows 6 to 10, the fifth ends at 496 mm.
    expect(last((mm) => (mm > 500 ? 1 : 0))).toBe(15);
    expect(spoiltPieces(BY_START, 3, () => 0.5)).toEqual([0, 1.5, 3, 4.5]);
  });

  it('between marks a section that leaves the tolerance is lost as a whole, and a short one is not made worse by that', () => {
    const between = { ...BY_START, isBetweenMarks: true };
    // Rows 6 and more are longer than 500 mm: a section of six is lost, one of five is not.
    const lost = spoiltPieces(between, 7, (mm) => (mm > 500 ? 1 : 0));
    expect(lost).toEqual([0, 0, 0, 0, 0, 0, 18, 21]);
    expect(spoiltPieces(between, 3, () => 0.5)).toEqual([0, 1.5, 3, 4.5]);
  });

  it('cost by hand: nine minutes at 20 an hour, 104 mm at 3 a metre, two pieces', () => {
    const cost = sectionCost(PRICES, 2);
    expect(cost.setUp).toBeCloseTo(3, 9);
    expect(cost.waste).toBeCloseTo(0.312, 9);
    expect(cost.total).toBeCloseTo(5.312, 9);
  });
});
