import { cornersOf } from '../geometry/affine';
import { seededRng, standardNormal } from '../math/random';
import { AXES } from '../target/wedge';
import { covarianceAt, largestSd } from './point-covariance';
import { frontToBack, type FacePair } from './front-to-back';

const SPOTS = [...cornersOf(130, 190), { x: 0, y: 0 }];
const CORNERS = cornersOf(176, 236);
/** Back against front: a shift, a turn and a little growth. */
const TRUE = { tx: 0.4, ty: -0.25, xx: 0.0006, xy: -0.002, yx: 0.002, yy: 0.0006 };

function pairs(noiseMm: number, seed: number, cut: (x: number, y: number) => number): FacePair[] {
  const rng = seededRng(seed);
  return SPOTS.flatMap((at, i) =>
    AXES.map((axis): FacePair => {
      const back =
        axis === 'across' ? TRUE.tx + TRUE.xx * at.x + TRUE.xy * at.y : TRUE.ty + TRUE.yx * at.x + TRUE.yy * at.y;
      const front = cut(at.x, at.y);
      return {
        id: `${i} ${axis}`,
        axis,
        at,
        frontMm: front + noiseMm * standardNormal(rng),
        backMm: front - back + noiseMm * standardNormal(rng),
        frontUncertaintyMm: 0.07,
        backUncertaintyMm: 0.07,
      };
    }),
  );
}

it.each([
  ['a cut in its place', () => 0],
  ['a cut that is out', () => 0.6],
  ['a cut that is out differently everywhere', (x: number, y: number) => 0.4 + 0.004 * x - 0.003 * y + 0.00002 * x * y],
] as const)('exact readings give the back exactly, whatever the cut does: %s', (_, cut) => {
  const fit = frontToBack(pairs(0, 1, cut), CORNERS);
  if (!fit.ok) throw new Error(fit.error.kind);
  const { tx, ty, xx, xy, yx, yy } = fit.value.map;
  const got = [tx, ty, xx - 1, xy, yx, yy - 1];
  [TRUE.tx, TRUE.ty, TRUE.xx, TRUE.xy, TRUE.yx, TRUE.yy].forEach((want, i) => {
    expect(Math.abs((got[i] ?? NaN) - want)).toBeLessThan(1e-12);
  });
});

it('the error over its stated uncertainty at the middle is about one, over 2,000 sheets', () => {
  let sum = 0;
  const trials = 2000;
  for (let seed = 1; seed <= trials; seed++) {
    const fit = frontToBack(
      pairs(0.07, seed, () => 0.2),
      CORNERS,
    );
    if (!fit.ok) throw new Error(fit.error.kind);
    const sd = largestSd(covarianceAt(fit.value.covariance, { x: 0, y: 0 }));
    sum += ((fit.value.map.tx - TRUE.tx) / sd) ** 2 / trials;
  }
  expect(Math.sqrt(sum)).toBeGreaterThan(0.8);
  expect(Math.sqrt(sum)).toBeLessThan(1.1);
});

it('one face alone tells nothing', () => {
  expect(frontToBack([], CORNERS)).toEqual({ ok: false, error: { kind: 'no-readings' } });
});
