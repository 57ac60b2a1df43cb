import fc from 'fast-check';
import { pointsWithin, thinnedOut } from './thin-out';

describe('a chart with fewer points', () => {
  const points = fc
    .array(
      fc.record({
        atMm: fc.double({ min: 0, max: 1000, noNaN: true }),
        valueMm: fc.double({ min: -5, max: 5, noNaN: true }),
      }),
      {
        minLength: 1,
        maxLength: 400,
      },
    )
    .map((all) => all.sort((a, b) => a.atMm - b.atMm));

  it('keeps the least and the most of every column, two points a column at most, in order; all where they are few', () => {
    fc.assert(
      fc.property(points, fc.integer({ min: 1, max: 60 }), (all, columns) => {
        const kept = thinnedOut(all, { fromMm: 0, toMm: 1000, columns });
        expect(kept.length).toBeLessThanOrEqual(Math.min(all.length, 2 * columns));
        if (all.length <= 2 * columns) expect(kept).toEqual(all);
        const places = kept.map((p) => all.indexOf(p));
        expect(places).toEqual([...places].sort((a, b) => a - b));
        for (let k = 0; k < columns; k++) {
          const inColumn = (p: { atMm: number }): boolean =>
            Math.min(columns - 1, Math.floor(p.atMm * (columns / 1000))) === k;
          const [before, after] = [all.filter(inColumn), kept.filter(inColumn)].map((list) =>
            list.map((p) => p.valueMm),
          );
          if (!before || before.length === 0) continue;
          expect(Math.min(...(after ?? []))).toBe(Math.min(...before));
          expect(Math.max(...(after ?? []))).toBe(Math.max(...before));
        }
      }),
    );
  });

  it('leaves out what lies beside the chart', () => {
    const all = [
      { atMm: 10, valueMm: 9 },
      { atMm: 60, valueMm: 1 },
      { atMm: 200, valueMm: 8 },
    ];
    expect(thinnedOut(all, { fromMm: 50, toMm: 100, columns: 10 })).toEqual([all[1]]);
  });
});

it('points from one place to another are all those and no others, several at one place too (property)', () => {
  const places = fc.array(fc.integer({ min: 0, max: 30 }), { maxLength: 60 });
  const edge = fc.integer({ min: -2, max: 33 });
  fc.assert(
    fc.property(places, edge, edge, (all, a, b) => {
      const points = all.toSorted((x, y) => x - y).map((atMm, valueMm) => ({ atMm, valueMm }));
      const [fromMm, toMm] = [Math.min(a, b), Math.max(a, b)];
      expect(pointsWithin(points, fromMm, toMm)).toEqual(points.filter((p) => p.atMm >= fromMm && p.atMm <= toMm));
    }),
  );
});
