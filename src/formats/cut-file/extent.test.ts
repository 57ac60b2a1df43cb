import fc from 'fast-check';
import type { Point } from '@/core/geometry/affine';
import { movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import {
  boxChange,
  boxOf,
  emptyExtent,
  extentOf,
  extentRemark,
  gatherer,
  growBy,
  isNear,
  labelOf,
  measureLine,
  noBoxes,
  type Drawn,
} from './extent';

const mm = fc.double({ min: -500, max: 500, noNaN: true });
const places = fc.array(fc.record({ x: mm, y: mm }), { minLength: 1, maxLength: 20 });
const each = (points: readonly Point<'page'>[]) => (visit: (p: Point<'page'>) => void) => {
  points.forEach(visit);
};

describe('boxes of a drawing', () => {
  it('hold every place and touch the outermost (property)', () => {
    fc.assert(
      fc.property(places, (points) => {
        const xs = points.map((p) => p.x);
        const ys = points.map((p) => p.y);
        expect(boxOf(extentOf(each(points)))).toEqual({
          left: Math.min(...xs),
          bottom: Math.min(...ys),
          right: Math.max(...xs),
          top: Math.max(...ys),
        });
      }),
    );
  });
  it('of two lines is the box of all their places (property)', () => {
    fc.assert(
      fc.property(places, places, (one, two) => {
        const both = extentOf(each(one));
        growBy(both, extentOf(each(two)));
        expect(both).toEqual(extentOf(each([...one, ...two])));
      }),
    );
  });
  it('of nothing there is none, and it adds nothing', () => {
    const some = extentOf(each([{ x: 1, y: 2 }]));
    growBy(some, emptyExtent());
    expect(boxOf(emptyExtent())).toBeNull();
    expect(boxOf(some)).toEqual({ left: 1, bottom: 2, right: 1, top: 2 });
    expect(isNear(emptyExtent())).toBe(true);
  });
  it.each([
    ['a place beyond every machine', 1e6, false],
    ['no place', NaN, false],
    ['an endless one', Infinity, false],
    ['the far end of a roll', 99_000, true],
  ])('%s', (_name, x, wanted) => {
    expect(isNear(extentOf(each([{ x, y: 0 }])))).toBe(wanted);
  });
  it('before and after a move: only what moves moves (property)', () => {
    const move: PlaneMove = {
      affine: { xx: 1.01, xy: 0.02, yx: -0.01, yy: 0.99, tx: 3, ty: -2 },
      bow: { perMm: 1e-4, along: 'y', pivot: { x: 0, y: 10 } },
    };
    fc.assert(
      fc.property(places, places, (moved, still) => {
        const outer = noBoxes();
        expect(measureLine(outer, each(moved), move)).toEqual(extentOf(each(moved)));
        measureLine(outer, each(still), null);
        expect(outer.before).toEqual(extentOf(each([...moved, ...still])));
        expect(outer.after).toEqual(extentOf(each([...moved.map((p) => movePoint(move, p)), ...still])));
      }),
    );
  });
  it('the change of the outer box is its farthest side, and rounding is no change', () => {
    const before = { left: 0, bottom: 0, right: 10, top: 10 };
    expect(boxChange({ before, after: { ...before, right: 10.4, bottom: -0.1 } })).toBeCloseTo(0.4, 12);
    expect(boxChange({ before: emptyExtent(), after: before })).toBe(0);
    expect(extentRemark(0.001)).toEqual([]);
    expect(extentRemark(0.4)[0]?.words).toContain('0.40 mm');
  });
});

describe('what is drawn, gathered', () => {
  const line = (colour: string, layer: string, points: number): Drawn => {
    const own = Array.from({ length: points }, (_, i) => ({ x: i, y: 0 }));
    return { colour, layer, count: 1, extent: extentOf(each(own)), lines: () => [own] };
  };
  it('by colour, then by layer, in the order of first use, with the box of each', () => {
    const { take, gathered } = gatherer();
    take(line('red', 'cut', 3));
    take(line('blue', 'art', 5));
    take({ ...line('red', 'art', 9), count: 4 });
    expect(gathered().groups.map((g) => [g.by, g.name, g.count, g.box?.right])).toEqual([
      ['colour', 'red', 5, 8],
      ['colour', 'blue', 1, 4],
      ['layer', 'cut', 1, 2],
      ['layer', 'art', 5, 8],
    ]);
  });
  it('of a very long line only as much is shown as a picture can', () => {
    const { take, gathered } = gatherer();
    take(line('red', 'cut', 60_000));
    take(line('red', 'cut', 5));
    expect(gathered().lines.map((l) => l.points.length)).toEqual([40_000]);
    expect(gathered().groups[0]).toMatchObject({ count: 2 });
  });
  it('a name is shown as its writer meant it, whatever its encoding', () => {
    expect(labelOf('K\u00c3\u00b6rper')).toBe('K\u00f6rper');
    expect(labelOf('K\u00f6rper')).toBe('K\u00f6rper');
  });
});
