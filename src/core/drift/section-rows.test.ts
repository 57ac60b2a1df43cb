import fc from 'fast-check';
import {
  type CopyOrder,
  copiesAcross,
  judgeTyped,
  marksBetween,
  rowsLengthMm,
  sectionsOfRows,
  sectionsWithin,
} from './section-rows';

/** Common practice, no published source: 50 pieces of 271.27 mm three across with gaps of 4. */
const PRACTICE: CopyOrder = { copies: 50, itemWidthMm: 190, itemLengthMm: 271.27, gapMm: 4, printableWidthMm: 600 };

describe('sections of whole rows', () => {
  it('fifty copies three across, three rows a section: 17 rows, six sections, nine in each and five in the last, 825 mm', () => {
    expect(sectionsOfRows(PRACTICE, 3)).toMatchObject({
      value: { copiesAcross: 3, rows: 17, copiesPerSection: 9, sections: 6, lastCopies: 5, typedMm: 825 },
    });
    // 825 mm typed as the longest that the drift allows comes to the same.
    expect(sectionsWithin(PRACTICE, 825)).toEqual(sectionsOfRows(PRACTICE, 3));
  });

  it('the example of the guide: 44 pieces four across, three rows a section', () => {
    const order = { copies: 44, itemWidthMm: 140, itemLengthMm: 183.4, gapMm: 5, printableWidthMm: 600 };
    expect(sectionsOfRows(order, 3)).toMatchObject({
      value: { copiesAcross: 4, rows: 11, copiesPerSection: 12, sections: 4, lastCopies: 8, typedMm: 565 },
    });
  });

  it('a slope of 1/16 in over 4500 mm is 0.0353 %, over 825 mm 0.1924 % (common practice)', () => {
    expect((100 * 1.5875) / 4500).toBeCloseTo(0.0353, 4);
    expect((100 * 1.5875) / 825).toBeCloseTo(0.1924, 4);
  });

  it('a typed length that breaks a row, or lets in one more, is told', () => {
    const sections = sectionsOfRows(PRACTICE, 3);
    if (!sections.ok) throw new Error(sections.error.kind);
    expect([820, 825, 1097, 1098].map((mm) => judgeTyped(sections.value, mm))).toEqual([
      'breaks-a-row',
      'right',
      'right',
      'takes-one-more',
    ]);
  });

  it('what does not fit is refused by name', () => {
    expect(sectionsOfRows({ ...PRACTICE, printableWidthMm: 189 }, 3)).toMatchObject({ error: { kind: 'too-wide' } });
    expect(sectionsWithin(PRACTICE, 271)).toMatchObject({ error: { kind: 'longer-than-section', neededMm: 271.27 } });
  });

  it('for any order: as many across as fit and no more, every copy in a section, and the typed length is right', () => {
    const orders = fc.record({
      copies: fc.integer({ min: 1, max: 100_000 }),
      itemWidthMm: fc.double({ min: 5, max: 500, noNaN: true }),
      itemLengthMm: fc.double({ min: 5, max: 900, noNaN: true }),
      gapMm: fc.double({ min: 0, max: 30, noNaN: true }),
      printableWidthMm: fc.double({ min: 500, max: 1600, noNaN: true }),
    });
    fc.assert(
      fc.property(orders, fc.integer({ min: 1, max: 40 }), (order, rows) => {
        const across = copiesAcross(order);
        const widthOf = (n: number): number => n * order.itemWidthMm + (n - 1) * order.gapMm;
        expect(widthOf(across)).toBeLessThanOrEqual(order.printableWidthMm + 1e-3);
        expect(widthOf(across + 1)).toBeGreaterThan(order.printableWidthMm - 1e-3);
        const made = sectionsOfRows(order, rows);
        if (!made.ok) throw new Error(made.error.kind);
        const { sections, copiesPerSection, lastCopies, typedMm, rowsPerSection } = made.value;
        expect((sections - 1) * copiesPerSection + lastCopies).toBe(order.copies);
        expect(lastCopies).toBeGreaterThan(0);
        expect(lastCopies).toBeLessThanOrEqual(copiesPerSection);
        expect(judgeTyped(made.value, typedMm)).toBe('right');
        expect(typedMm).toBeGreaterThanOrEqual(rowsLengthMm(order, rowsPerSection) - 1e-3);
      }),
      {
        examples: [
          [{ copies: 1486, itemWidthMm: 5, itemLengthMm: 5, gapMm: 6.666666697204469e-8, printableWidthMm: 500 }, 16],
        ],
      },
    );
  });

  it('pairs of marks in between: none further apart than holds, by hand', () => {
    expect(marksBetween(4000, 4000)).toBe(0);
    expect(marksBetween(4001, 4000)).toBe(1);
    expect(marksBetween(12_000, 4000)).toBe(2);
    expect(marksBetween(100, 4000)).toBe(0);
  });
});
