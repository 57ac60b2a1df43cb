import fc from 'fast-check';
import { cameraLens, homographyThrough, placeOf, seemingMiddle, tiltOf, viewAt, type Lens } from './lens';
import { fromView, inView } from './local-view';

const SIZE = { width: 3000, height: 4000 };
const GRID = [-2, -1, 0, 1, 2].flatMap((i) => [-3, -1, 0, 1, 3].map((j) => ({ x: 38 * i, y: 40 * j })));

const lensWith = (far: readonly [number, number], turn: number, radial: number): Lens => ({
  homography: [
    ...[9 * Math.cos(turn), -9 * Math.sin(turn), 1480],
    ...[-9 * Math.sin(turn), -9 * Math.cos(turn), 2030],
    ...[far[0], far[1], 1],
  ],
  radial,
  middle: { x: 1500, y: 2000 },
  halfDiagonalPx: 2500,
});

describe('a camera\u2019s view', () => {
  const slope = fc.double({ min: -6e-4, max: 6e-4, noNaN: true });
  it('is found again from places seen through it, to 1e-9 of a pixel', () => {
    fc.assert(
      fc.property(
        slope,
        slope,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -0.08, max: 0.08, noNaN: true }),
        (a, b, turn, radial) => {
          const lens = lensWith([a, b], turn, radial);
          const found = cameraLens(
            GRID.map((at) => ({ at, seen: placeOf(lens, at) })),
            SIZE,
          );
          expect(Math.abs((found?.radial ?? NaN) - radial)).toBeLessThan(1e-7);
          for (const at of [
            { x: 60, y: 110 },
            { x: -71, y: -3 },
          ]) {
            const [p, q] = [placeOf(found!, at), placeOf(lens, at)];
            expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-5);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('a circle\u2019s middle seems to lie elsewhere by an amount that goes with its radius squared', () => {
    const lens = lensWith([1e-4, 4e-4], 0.1, 0.05);
    const at = { x: 70, y: 100 };
    const [small, large] = [seemingMiddle(lens, at, 2), seemingMiddle(lens, at, 6)];
    expect(large.x / small.x).toBeCloseTo(9, 1);
    expect(large.y / small.y).toBeCloseTo(9, 1);
    expect(Math.hypot(large.x, large.y)).toBeGreaterThan(0.003);
  });

  it('a local view and its inverse are each other\u2019s', () => {
    const view = viewAt(lensWith([1e-4, -2e-4], 1, 0.03), { x: 20, y: -60 });
    const p = { x: view.centre.x + 7, y: view.centre.y - 11 };
    const q = inView(view, p);
    expect(fromView(view, q).x).toBeCloseTo(p.x, 9);
    expect(fromView(view, q).y).toBeCloseTo(p.y, 9);
  });

  it('four places on a line, or fewer, tell no view; straight above there is no tilt', () => {
    const onLine = [0, 1, 2, 3].map((i) => ({ at: { x: i, y: 2 * i }, seen: { x: 10 * i, y: 5 * i } }));
    expect(homographyThrough(onLine)).toBeNull();
    expect(cameraLens(onLine, SIZE)).toBeNull();
    expect(tiltOf(lensWith([0, 0], 0.4, 0)).tiltRad).toBeLessThan(1e-6);
  });
});
