import ClipperLib from 'clipper-lib';
import fc from 'fast-check';
import { cornersOf } from '@/core/geometry/affine';
import {
  ARC_UNITS,
  areaOf,
  lostParts,
  offsetOf,
  ringArea,
  ringsBox,
  sliversOf,
  SLIVER_MM,
  unionOf,
  type Ring,
} from './outline';

/** A circle by so many corners on it. */
const circle = (r: number, n = 720, x = 0, y = 0): Ring =>
  Array.from({ length: n }, (_, i) => ({
    x: x + r * Math.cos((2 * Math.PI * i) / n),
    y: y + r * Math.sin((2 * Math.PI * i) / n),
  }));
const reversed = (ring: Ring): Ring => [...ring].reverse();
const rectangle = (w: number, h: number): Ring => cornersOf<'page'>(w, h);

/** Distance of a point from a rectangle about the origin. */
const fromRectangle = (p: { x: number; y: number }, w: number, h: number): number =>
  Math.hypot(Math.max(0, Math.abs(p.x) - w / 2), Math.max(0, Math.abs(p.y) - h / 2));

describe('offset against the closed form, within 0.01 mm', () => {
  it.each([0.05, 0.5, 1, 3.175, 10])('a circle of 20 mm, %p mm outward and inward', (d) => {
    for (const sign of [1, -1]) {
      const [ring, ...rest] = offsetOf([circle(20)], sign * d);
      expect(rest).toEqual([]);
      for (const p of ring ?? []) expect(Math.abs(Math.hypot(p.x, p.y) - (20 + sign * d))).toBeLessThan(0.01);
      // Between its points as well: the middle of each chord.
      for (const [i, p] of (ring ?? []).entries()) {
        const q = ring![(i + 1) % ring!.length]!;
        expect(Math.abs(Math.hypot((p.x + q.x) / 2, (p.y + q.y) / 2) - (20 + sign * d))).toBeLessThan(0.01);
      }
    }
  });
  it.each([0.05, 1.27, 5])('a rectangle, %p mm outward: its sides and its round corners', (d) => {
    const [ring, ...rest] = offsetOf([rectangle(90, 40)], d);
    expect(rest).toEqual([]);
    for (const p of ring ?? []) expect(Math.abs(fromRectangle(p, 90, 40) - d)).toBeLessThan(0.01);
    // Chords of the round corners lie at most 5 um inside their arcs.
    const lack = 90 * 40 + 2 * d * (90 + 40) + Math.PI * d * d - areaOf(ring ? [ring] : []);
    expect(Math.abs(lack)).toBeLessThan(2 * Math.PI * d * 0.005 + 0.06);
  });
  it('a rectangle inward is the smaller rectangle', () => {
    const rings = offsetOf([rectangle(90, 40)], -3);
    expect(ringsBox(rings)).toEqual({ left: -42, bottom: -17, width: 84, height: 34 });
    expect(areaOf(rings)).toBeCloseTo(84 * 34, 6);
  });
  it('holes are kept: a ring outward grows outside and closes inside', () => {
    const rings = offsetOf([circle(20), reversed(circle(8))], 2);
    expect(rings).toHaveLength(2);
    const [outer, hole] = [...rings].sort((a, b) => ringArea(b) - ringArea(a));
    for (const p of outer ?? []) expect(Math.abs(Math.hypot(p.x, p.y) - 22)).toBeLessThan(0.01);
    for (const p of hole ?? []) expect(Math.abs(Math.hypot(p.x, p.y) - 6)).toBeLessThan(0.01);
    expect(ringArea(hole ?? [])).toBeLessThan(0);
  });
  it('out and in again is a convex outline itself (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 80, noNaN: true }),
        fc.double({ min: 5, max: 80, noNaN: true }),
        fc.double({ min: 0.05, max: 10, noNaN: true }),
        (w, h, d) => {
          const back = offsetOf(offsetOf([rectangle(w, h)], d), -d);
          expect(Math.abs(areaOf(back) - w * h)).toBeLessThan(0.02 * (w + h) + 0.01);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('offset against another polygon package (clipper-lib 6.4.2)', () => {
  const lengthOf = (rings: readonly Ring[]): number =>
    rings
      .flatMap((ring) => ring.map((p, i) => Math.hypot(p.x - ring.at(i - 1)!.x, p.y - ring.at(i - 1)!.y)))
      .reduce((a, b) => a + b, 0);

  // Half a micrometre of rounding each, and arcs that begin their chords elsewhere: at most 1.1 um in 40,000 stars.
  it('agrees on stars: the outlines lie 2 um apart at most, on average (property)', () => {
    const star = (points: number, inner: number): Ring =>
      Array.from({ length: 2 * points }, (_, i) => {
        const r = i % 2 === 0 ? 30 : inner;
        return { x: r * Math.cos((Math.PI * i) / points), y: r * Math.sin((Math.PI * i) / points) };
      });
    const other = (ring: Ring, d: number): number => {
      const offset = new ClipperLib.ClipperOffset(2, ARC_UNITS);
      const path = ring.map((p) => ({ X: Math.round(p.x * 1000), Y: Math.round(p.y * 1000) }));
      offset.AddPath(path, ClipperLib.JoinType.jtRound, ClipperLib.EndType.etClosedPolygon);
      const solution = new ClipperLib.Paths();
      offset.Execute(solution, d * 1000);
      return solution.reduce((sum, p) => sum + ClipperLib.Clipper.Area(p), 0) / 1e6;
    };
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 12 }),
        fc.double({ min: 10, max: 25, noNaN: true }),
        fc.double({ min: -3, max: 5, noNaN: true }),
        (points, inner, d) => {
          const ring = star(points, inner);
          const mine = offsetOf([ring], d);
          expect(Math.abs(areaOf(mine) - other(ring, d))).toBeLessThan(0.002 * lengthOf(mine));
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe('what covers what', () => {
  it('joins overlapping shapes into one outline', () => {
    const joined = unionOf([rectangle(40, 10), rectangle(10, 40)]);
    expect(joined).toHaveLength(1);
    expect(areaOf(joined)).toBeCloseTo(400 + 400 - 100, 6);
  });
  it('keeps a hole by either rule where the rings run against each other, by even-odd where they do not', () => {
    expect(areaOf(unionOf([circle(10), reversed(circle(5))]))).toBeCloseTo(
      areaOf([circle(10)]) - areaOf([circle(5)]),
      1,
    );
    expect(areaOf(unionOf([circle(10), circle(5)], 'evenodd'))).toBeCloseTo(
      areaOf([circle(10)]) - areaOf([circle(5)]),
      1,
    );
    expect(areaOf(unionOf([circle(10), circle(5)]))).toBeCloseTo(areaOf([circle(10)]), 1);
  });
});

describe('slivers', () => {
  it('a bridge of 0.3 mm is reported where it is, plain shapes are not', () => {
    const dumbbell = unionOf([circle(10, 200, -15), circle(10, 200, 15), rectangle(30, 0.3)]);
    const [sliver, ...rest] = sliversOf(dumbbell);
    expect(rest).toEqual([]);
    expect(sliver?.box.left).toBeCloseTo(-5, 0);
    expect((sliver?.box.left ?? 0) + (sliver?.box.width ?? 0)).toBeCloseTo(5, 0);
    for (const plain of [[circle(3)], [rectangle(20, 5)], unionOf([rectangle(40, 10), rectangle(10, 40)])])
      expect(sliversOf(plain)).toEqual([]);
  });
  it('are thinner than half a mm (common practice, no published source)', () => {
    expect(SLIVER_MM).toBe(0.5);
    expect(sliversOf([rectangle(20, 0.45)])).toHaveLength(1);
    expect(sliversOf([rectangle(20, 0.55)])).toEqual([]);
  });
  it('parts that an inward offset leaves nothing of are named', () => {
    const parts = [circle(10, 200, -15), circle(1, 200, 15)];
    expect(lostParts(parts, -1.5)).toHaveLength(1);
    expect(lostParts(parts, -0.5)).toEqual([]);
    expect(lostParts(parts, 2)).toEqual([]);
  });
});
