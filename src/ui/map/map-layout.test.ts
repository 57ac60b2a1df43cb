import { fromParameters, NO_ERROR } from '@/core/geometry/error-parameters';
import { arrowAt, ellipseAt, magnificationFor } from './map-layout';

const map = fromParameters({ ...NO_ERROR, offsetAcrossMm: 0.5, offsetAlongMm: -0.25 });

it('the worst arrow is drawn at most 26 mm long, at a round magnification', () => {
  expect(magnificationFor(0.57)).toBe(20);
  expect(magnificationFor(0.1)).toBe(200);
  expect(magnificationFor(40)).toBe(1);
  expect(magnificationFor(0)).toBe(500);
});

it('an arrow starts at the print and ends where the cut went', () => {
  expect(arrowAt(map, { x: 10, y: 20 }, 20)).toMatchObject({ from: { x: 10, y: 20 }, to: { x: 20, y: 15 } });
});

it('an ellipse has the radii of its covariance, longest along the larger variance', () => {
  const covariance = new Float64Array(36);
  covariance[0] = 0.01 ** 2;
  covariance[7] = 0.02 ** 2;
  const e = ellipseAt(map, covariance, { x: 0, y: 0 }, 10);
  expect(e.radiusLongMm).toBeCloseTo(2.4477 * 0.02 * 10, 9);
  expect(e.radiusShortMm).toBeCloseTo(2.4477 * 0.01 * 10, 9);
  expect(Math.abs(e.turnDeg)).toBeCloseTo(90, 9);
});
