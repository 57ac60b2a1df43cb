import fc from 'fast-check';
import type { Point } from './affine';
import { chordsOf } from './curve';

const at = (c: readonly Point[], t: number): Point => {
  const [a, b, d, e] = c as [Point, Point, Point, Point];
  const s = 1 - t;
  const mix = (k: 'x' | 'y') => s * s * s * a[k] + 3 * s * s * t * b[k] + 3 * s * t * t * d[k] + t * t * t * e[k];
  return { x: mix('x'), y: mix('y') };
};

function gapTo(p: Point, from: Point, to: Point): number {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const length2 = dx * dx + dy * dy;
  const t = length2 === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - from.x) * dx + (p.y - from.y) * dy) / length2));
  return Math.hypot(p.x - from.x - t * dx, p.y - from.y - t * dy);
}

it('chords end at the curve\u2019s end and lie within 0.01 mm of it everywhere (property)', () => {
  const place = fc.record({
    x: fc.double({ min: -20, max: 20, noNaN: true }),
    y: fc.double({ min: -20, max: 20, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.tuple(place, place, place, place), (controls) => {
      const chords = [controls[0], ...chordsOf<'sheet'>(controls)];
      expect(chords.at(-1)).toEqual(controls[3]);
      const parts = chords.length - 1;
      for (let i = 0; i < parts; i++) {
        for (const inside of [0.25, 0.5, 0.75]) {
          expect(gapTo(at(controls, (i + inside) / parts), chords[i]!, chords[i + 1]!)).toBeLessThan(0.0101);
        }
      }
    }),
  );
});

it('a straight curve needs one chord', () => {
  expect(
    chordsOf<'sheet'>([
      { x: 0, y: 0 },
      { x: 1, y: 1 },
      { x: 2, y: 2 },
    ]),
  ).toEqual([{ x: 2, y: 2 }]);
});
