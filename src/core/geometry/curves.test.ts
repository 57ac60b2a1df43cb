import fc from 'fast-check';
import { apply, inverseOf, type Affine } from './affine';
import { arcAsCubics, arcByCentre, arcPoint } from './arc';
import { asBulges, asChords, bulgePoint, bulgeThrough, circleOf } from './bulge';
import { cubicAt, lineAsCubic, moveCubic, quadraticAsCubic, splitCubic, type Cubic } from './cubic';
import { moveAllInto } from './move-all';
import { movePoint, moveTangent, type PlaneMove } from './plane-move';

const place = fc.record({
  x: fc.double({ min: -200, max: 200, noNaN: true }),
  y: fc.double({ min: -200, max: 200, noNaN: true }),
});
const cubic = fc.tuple(place, place, place, place).map((c): Cubic<'page'> => c);
const GENERAL: Affine<'page', 'page'> = { xx: 1.004, xy: -0.003, yx: 0.002, yy: 0.997, tx: 3, ty: -2 };
const BOWED: PlaneMove = {
  affine: GENERAL,
  bow: { perMm: 2e-5, alongPerMm: -1e-5, along: 'y', pivot: { x: 0, y: 10 } },
};
const near = (a: { x: number; y: number }, b: { x: number; y: number }): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Distance from a line of chords. */
function distanceTo(chords: readonly { x: number; y: number }[], p: { x: number; y: number }): number {
  return chords.slice(1).reduce((least, b, i) => {
    const a = chords[i]!;
    const length = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    const along = length === 0 ? 0 : ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / length;
    const t = Math.min(1, Math.max(0, along));
    return Math.min(least, near(p, { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) }));
  }, Infinity);
}

describe('arcs', () => {
  it('as cubics of 30 degrees err by less than 4e-7 of the radius', () => {
    const arc = {
      centre: { x: 0, y: 0 },
      radiusX: 100,
      radiusY: 100,
      turnRad: 0,
      startRad: 0.3,
      sweepRad: 2 * Math.PI,
    };
    for (const piece of arcAsCubics(arc))
      for (const t of [0, 0.1, 0.2, 0.35, 0.5, 0.7, 0.9, 1]) {
        const p = cubicAt(piece, t);
        expect(Math.abs(Math.hypot(p.x, p.y) - 100)).toBeLessThan(4e-5);
      }
  });
  it('of each of the four ways between two ends begin and end there, and turn as told (property)', () => {
    fc.assert(
      fc.property(place, place, fc.boolean(), fc.boolean(), (from, to, isLarge, isCounterClockwise) => {
        fc.pre(near(from, to) > 1);
        const arc = arcByCentre({ from, to, radiusX: 150, radiusY: 90, turnRad: 0.4, isLarge, isCounterClockwise });
        if (!arc) throw new Error('no arc');
        expect(near(arcPoint(arc, arc.startRad), from)).toBeLessThan(1e-6);
        expect(near(arcPoint(arc, arc.startRad + arc.sweepRad), to)).toBeLessThan(1e-6);
        expect(arc.sweepRad > 0).toBe(isCounterClockwise);
        // Radii too small are enlarged until the arc is just half a turn.
        const isEnlarged = arc.radiusX > 150 + 1e-9;
        if (!isEnlarged && Math.abs(Math.abs(arc.sweepRad) - Math.PI) > 1e-6)
          expect(Math.abs(arc.sweepRad) > Math.PI).toBe(isLarge);
      }),
    );
  });
  it('are nothing where both ends are one, and straight where a radius is nothing', () => {
    const at = { x: 1, y: 1 };
    const rest = { turnRad: 0, isLarge: false, isCounterClockwise: true };
    expect(arcByCentre({ from: at, to: at, radiusX: 5, radiusY: 5, ...rest })).toBeNull();
    expect(arcByCentre({ from: at, to: { x: 2, y: 2 }, radiusX: 0, radiusY: 5, ...rest })).toBeNull();
  });
});

describe('cubics', () => {
  it('split are the same curve, and raised quadratics and lines are themselves (property)', () => {
    fc.assert(
      fc.property(cubic, fc.double({ min: 0, max: 1, noNaN: true }), (c, t) => {
        const [first, second] = splitCubic(c, 0.3);
        const wanted = cubicAt(c, t);
        const got = t <= 0.3 ? cubicAt(first, t / 0.3) : cubicAt(second, (t - 0.3) / 0.7);
        expect(near(wanted, got)).toBeLessThan(1e-9);
        const [a, b, , d] = c;
        const quadratic = {
          x: (1 - t) ** 2 * a.x + 2 * t * (1 - t) * b.x + t * t * d.x,
          y: (1 - t) ** 2 * a.y + 2 * t * (1 - t) * b.y + t * t * d.y,
        };
        expect(near(cubicAt(quadraticAsCubic(a, b, d), t), quadratic)).toBeLessThan(1e-9);
        expect(
          near(cubicAt(lineAsCubic(a, d), t), { x: a.x + t * (d.x - a.x), y: a.y + t * (d.y - a.y) }),
        ).toBeLessThan(1e-9);
      }),
    );
  });
  it('under an affine move are moved exactly; under a bow every point lies within 5 um (property)', () => {
    fc.assert(
      fc.property(cubic, (c) => {
        const [whole] = moveCubic({ affine: GENERAL }, c, 0.005);
        for (const t of [0.2, 0.5, 0.8])
          expect(near(cubicAt(whole!, t), apply(GENERAL, cubicAt(c, t)))).toBeLessThan(1e-9);
        const pieces = moveCubic(BOWED, c, 0.005);
        // The pieces lie on the moved curve, walked in chords of its own.
        const walk = Array.from({ length: 2001 }, (_, i) => movePoint(BOWED, cubicAt(c, i / 2000)));
        for (const piece of pieces) {
          for (const t of [0.3, 0.5, 0.8]) expect(distanceTo(walk, cubicAt(piece, t))).toBeLessThan(0.006);
        }
        expect(near(pieces[0]![0], walk[0]!)).toBeLessThan(1e-9);
        expect(near(pieces.at(-1)![3], walk.at(-1)!)).toBeLessThan(1e-9);
      }),
      { numRuns: 30 },
    );
  });
});

describe('a move of the plane', () => {
  it('has the derivative that small steps show (property)', () => {
    fc.assert(
      fc.property(place, place, (p, v) => {
        const h = 1e-4;
        const a = movePoint(BOWED, { x: p.x - h * v.x, y: p.y - h * v.y });
        const b = movePoint(BOWED, { x: p.x + h * v.x, y: p.y + h * v.y });
        const told = moveTangent(BOWED, p, v);
        expect(near(told, { x: (b.x - a.x) / (2 * h), y: (b.y - a.y) / (2 * h) })).toBeLessThan(1e-6);
      }),
    );
  });
  it('takes out an error that is affine first and then bows, exactly (property)', () => {
    const error: PlaneMove = { affine: GENERAL };
    const bow = { perMm: 4e-6, along: 'x', pivot: { x: 5, y: -3 } } as const;
    const still: PlaneMove = { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 }, bow };
    const correction: PlaneMove = { affine: inverseOf(GENERAL), bow: { ...bow, perMm: -bow.perMm } };
    fc.assert(
      fc.property(place, (p) => {
        const cut = movePoint(still, movePoint(error, movePoint(correction, p)));
        expect(near(cut, p)).toBeLessThan(1e-10);
      }),
    );
  });
  it('an affine one undone is the identity (property)', () => {
    const back: PlaneMove = { affine: inverseOf(GENERAL) };
    fc.assert(
      fc.property(place, (p) => {
        expect(near(movePoint(back, movePoint({ affine: GENERAL }, p)), p)).toBeLessThan(1e-10);
      }),
    );
  });
});

it('many points at once are moved as one by one, also in place (property)', () => {
  fc.assert(
    fc.property(fc.array(place), (points) => {
      const xy = Float64Array.from(points.flatMap((p) => [p.x, p.y]));
      moveAllInto(GENERAL, xy, xy);
      for (const [i, p] of points.entries()) {
        const q = apply(GENERAL, p);
        expect([xy[2 * i], xy[2 * i + 1]]).toEqual([q.x, q.y]);
      }
    }),
  );
});

describe('circular pieces', () => {
  it('the bulge of a half turn is 1, of a quarter tan(22.5 degrees), of a straight line 0', () => {
    expect(bulgeThrough({ x: 1, y: 0 }, { x: 0, y: 1 }, { x: -1, y: 0 })).toBeCloseTo(1, 12);
    const s = Math.SQRT1_2;
    expect(bulgeThrough({ x: 1, y: 0 }, { x: s, y: s }, { x: 0, y: 1 })).toBeCloseTo(Math.tan(Math.PI / 8), 12);
    expect(bulgeThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 })).toBe(0);
    expect(circleOf({ x: 1, y: 0 }, { to: { x: 0, y: 1 }, bulge: Math.tan(Math.PI / 8) })?.radius).toBeCloseTo(1, 12);
  });
  it('follow an ellipse within the tolerance, and chords do', () => {
    const curve = (t: number) => ({ x: 50.2 * Math.cos((t * Math.PI) / 2), y: 49.9 * Math.sin((t * Math.PI) / 2) });
    const onEllipse = (p: { x: number; y: number }): number => Math.abs(Math.hypot(p.x / 50.2, p.y / 49.9) - 1) * 50;
    let from = curve(0);
    const pieces = asBulges(curve, 0.0002);
    for (const piece of pieces) {
      for (const t of [0.1, 0.3, 0.6, 0.9]) expect(onEllipse(bulgePoint(from, piece, t))).toBeLessThan(0.0003);
      from = piece.to;
    }
    expect(pieces.length).toBeLessThan(17);
    from = curve(0);
    for (const to of asChords(curve, 0.005)) {
      expect(onEllipse({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 })).toBeLessThan(0.005);
      from = to;
    }
  });
});
