import fc from 'fast-check';
import { apply, inverseOf, type Affine, type Point } from '../geometry/affine';
import { machineToFileAxes, type FileAxes } from '../geometry/file-axes';
import { movePoint } from '../geometry/plane-move';
import { leadingEdge, rollMove, type RollError } from './roll-move';

const BOX = { left: 0, bottom: 0, right: 300, top: 4000 };
const LYING = { left: 0, bottom: 0, right: 4000, top: 300 };

const errors = fc
  .record({
    shift: fc.double({ min: -2, max: 2, noNaN: true }),
    feed: fc.double({ min: -0.003, max: 0.003, noNaN: true }),
    walk: fc.double({ min: -0.0005, max: 0.0005, noNaN: true }),
    turn: fc.double({ min: -0.001, max: 0.001, noNaN: true }),
    bowPerMm: fc.double({ min: -5e-8, max: 5e-8, noNaN: true }),
    alongBowPerMm: fc.double({ min: -3e-8, max: 3e-8, noNaN: true }),
  })
  .map(({ shift, feed, walk, turn, ...bows }): RollError => ({
    affine: { xx: 1 + turn, xy: walk, yx: turn, yy: 1 + feed, tx: shift, ty: -shift },
    ...bows,
  }));

/** Where a roll's error puts a place told from the middle of its leading edge: affine first, then the bow of what came out. */
function erred({ affine, bowPerMm, alongBowPerMm }: RollError, p: Point<'machine'>): Point<'machine'> {
  const q = apply(affine, p);
  const half = (q.y * q.y) / 2;
  return { x: q.x + bowPerMm * half, y: q.y + alongBowPerMm * half };
}

// The bow along is taken out but for 3e-8 squared times half the cube of 4 m, 0.03 um, and as much across.
describe('a cut file moved against a roll\u2019s drift', () => {
  it('lands where it was drawn, upright with the leading edge below', () => {
    const centre = leadingEdge(BOX, null);
    expect(centre).toEqual({ x: 150, y: 0 });
    fc.assert(
      fc.property(
        errors,
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 4000, noNaN: true }),
        (error, x, y) => {
          const moved = movePoint(rollMove(error, null, centre), { x, y });
          const cut = erred(error, { x: moved.x - centre.x, y: moved.y - centre.y });
          expect(cut.x + centre.x).toBeCloseTo(x, 3.3);
          expect(cut.y + centre.y).toBeCloseTo(y, 3.3);
        },
      ),
    );
  });

  it('and in every way that a cutter\u2019s file axes may lie', () => {
    const axes: readonly FileAxes[] = [
      { across: '+x', along: '-y' },
      { across: '-x', along: '+y' },
      { across: '+y', along: '+x' },
      { across: '-y', along: '-x' },
    ];
    fc.assert(
      fc.property(
        errors,
        fc.constantFrom(...axes),
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 4000, noNaN: true }),
        (error, own, across, along) => {
          const isLying = own.along.endsWith('x');
          const centre = leadingEdge(isLying ? LYING : BOX, own);
          const toFile = machineToFileAxes(own) as unknown as Affine<'machine', 'page'>;
          const place = apply(toFile, { x: across - 150, y: along });
          const drawn = { x: centre.x + place.x, y: centre.y + place.y };
          const moved = movePoint(rollMove(error, own, centre), drawn);
          const onRoll = apply(inverseOf(toFile), { x: moved.x - centre.x, y: moved.y - centre.y });
          const cut = erred(error, onRoll);
          expect(cut.x).toBeCloseTo(across - 150, 3.3);
          expect(cut.y).toBeCloseTo(along, 3.3);
        },
      ),
    );
  });
});
