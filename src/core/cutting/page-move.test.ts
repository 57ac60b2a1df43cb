import fc from 'fast-check';
import { apply, displacement, inverseOf, type Affine } from '../geometry/affine';
import { FILE_DIRECTIONS, isPerpendicular } from '../geometry/file-axes';
import { mapInMachine, TURNS } from '../geometry/load';
import { fromParameters } from '../geometry/error-parameters';
import { correctionOnPage } from './page-move';

const error = fc
  .tuple(
    fc.double({ min: -8, max: 8, noNaN: true }),
    fc.double({ min: -8, max: 8, noNaN: true }),
    fc.double({ min: -0.003, max: 0.003, noNaN: true }),
    fc.double({ min: -0.005, max: 0.005, noNaN: true }),
  )
  .map(([x, y, r, s]) =>
    fromParameters({
      offsetAcrossMm: x,
      offsetAlongMm: y,
      rotationRad: r,
      scaleAcross: s,
      scaleAlong: -s / 2,
      squareness: r / 3,
    }),
  );
const centre = { x: 105, y: 148 };

describe('a correction moved onto a page', () => {
  it('cut with the same error lands where it should, however the sheet lay and whichever face (property)', () => {
    fc.assert(
      fc.property(error, fc.constantFrom(...TURNS), fc.constantFrom('ink-up', 'ink-down'), (onSheet, turnDeg, face) => {
        const load = { turnDeg, face } as const;
        const correction = inverseOf(mapInMachine(onSheet, load));
        const move = correctionOnPage(correction, { kind: 'on-sheet', load }, centre);
        const p = { x: 20, y: 270 };
        const moved = apply(move, p);
        // What the machine then does to it, told about the middle of the page.
        const d = displacement(onSheet, { x: moved.x - centre.x, y: moved.y - centre.y });
        expect(moved.x + d.x).toBeCloseTo(p.x, 9);
        expect(moved.y + d.y).toBeCloseTo(p.y, 9);
      }),
    );
  });
  it('by a cut file\u2019s own axes: a move across goes along the axis that lies across', () => {
    const across: Affine<'machine', 'machine'> = { xx: 1, xy: 0, yx: 0, yy: 1, tx: 2, ty: 0 };
    const wanted = { '+x': [2, 0], '-x': [-2, 0], '+y': [0, 2], '-y': [0, -2] } as const;
    for (const direction of FILE_DIRECTIONS)
      for (const along of FILE_DIRECTIONS) {
        const axes = { across: direction, along };
        if (!isPerpendicular(axes)) continue;
        const d = displacement(correctionOnPage(across, { kind: 'by-axes', axes }, centre), { x: 3, y: 4 });
        expect([Math.round(d.x), Math.round(d.y)].map((v) => v + 0)).toEqual(wanted[direction]);
      }
  });
});
