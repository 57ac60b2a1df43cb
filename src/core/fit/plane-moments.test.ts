import fc from 'fast-check';
import { leastSquares, matrix } from '../math/qr';
import type { Observation } from '../reading/observation';
import { AXES } from '../target/wedge';
import { planesByMoments, type PlaneFit } from './plane-moments';
import { weightedFit } from './weighted-fit';

/** The plain way: each component as a dense problem, by orthogonal factors. */
function plainPlane(observations: readonly Observation[], axis: Observation['axis']): PlaneFit {
  const own = observations.filter((o) => o.axis === axis);
  const design = matrix(own.length, 3, (row, column) => {
    const { at, standardUncertaintyMm } = own[row]!;
    return [1, at.x, at.y][column]! / standardUncertaintyMm;
  });
  const solved = leastSquares(
    design,
    own.map((o) => o.valueMm / o.standardUncertaintyMm),
  );
  if (!solved.ok) throw new Error(solved.error.kind);
  const [t = NaN, a = NaN, b = NaN] = solved.value.parameters;
  return {
    parameters: [t, a, b],
    covariance: [...solved.value.inverseNormal],
    chiSquare: solved.value.residualSumOfSquares,
  };
}

/** Lengths to a micrometre, as anything that is measured. */
const mm = (half: number) => fc.integer({ min: -1000 * half, max: 1000 * half }).map((um) => um / 1000);
const spot = fc.record({
  x: mm(200),
  y: mm(300),
  across: mm(1),
  along: mm(1),
  u: fc.double({ min: 0.01, max: 0.2, noNaN: true }),
});

const observed = (spots: readonly { x: number; y: number; across: number; along: number; u: number }[], far = 0) =>
  spots.flatMap((s, i) =>
    AXES.map((axis): Observation => ({
      ...{ id: `${i} ${axis}`, axis, at: { x: s.x + far, y: s.y - far }, valueMm: s[axis] },
      ...{ standardUncertaintyMm: s.u, loadKey: 'one' },
    })),
  );

/** Largest difference between two lists, each entry over the largest of its own list. */
function apart(a: readonly number[], b: readonly number[]): number {
  const largest = Math.max(1e-300, ...b.map(Math.abs));
  return Math.max(...a.map((value, i) => Math.abs(value - b[i]!))) / largest;
}

it('agrees with orthogonal factors to nine digits wherever it answers (property)', () => {
  let answered = 0;
  fc.assert(
    fc.property(fc.array(spot, { minLength: 3, maxLength: 30 }), (spots) => {
      const observations = observed(spots);
      const quick = planesByMoments(observations);
      if (!quick) return;
      answered++;
      for (const axis of AXES) {
        const plain = plainPlane(observations, axis);
        // Lengths and slopes have units of their own: slopes are compared at the sheet's size.
        const scaled = (p: readonly number[]) => [p[0]!, p[1]! * 200, p[2]! * 300];
        expect(apart(scaled(quick[axis].parameters), scaled(plain.parameters))).toBeLessThan(1e-9);
        expect(apart(quick[axis].covariance, plain.covariance)).toBeLessThan(1e-9);
        expect(Math.abs(quick[axis].chiSquare - plain.chiSquare)).toBeLessThan(1e-8 * (1 + plain.chiSquare));
      }
    }),
    { numRuns: 500 },
  );
  expect(answered).toBeGreaterThan(300);
});

it('a million mm away the slopes keep nine digits', () => {
  const near = [
    [-80, -110],
    [0, -110],
    [80, -110],
    [-80, 0],
    [80, 0],
    [-80, 110],
    [0, 110],
    [80, 110],
  ].map(([x = 0, y = 0]) => ({ x, y, across: 0.3 + 0.002 * x - 0.001 * y, along: 0.1 + 0.001 * x, u: 0.05 }));
  const quick = planesByMoments(observed(near, 1e6));
  expect(quick?.across.parameters[1]).toBeCloseTo(0.002, 11);
  expect(quick?.across.parameters[2]).toBeCloseTo(-0.001, 11);
});

it.each([
  ['nothing', []],
  ['two spots', [0, 1]],
  ['one place', [0, 0, 0, 0]],
])('%s: not answered', (_name, xs) => {
  expect(planesByMoments(observed(xs.map((x) => ({ x, y: x, across: 0, along: 0, u: 0.05 }))))).toBeNull();
});

it('spots so near each other that their spread is no number are left alone', () => {
  const near = [
    [0, 0],
    [2e-157, 0],
    [0, -1e-9],
  ].map(([x = 0, y = 0]) => ({ x, y, across: 0, along: 0, u: 0.01 }));
  expect(planesByMoments(observed(near))).toBeNull();
});

it('spots on or almost on a line, and figures cut from either side, are left to orthogonal factors', () => {
  const line = [-2, -1, 0, 1, 2].map((k) => ({ x: 30 * k, y: 50 * k + 1e-4 * k * k, across: k, along: -k, u: 0.05 }));
  expect(planesByMoments(observed(line))).toBeNull();
  expect(weightedFit(observed(line), 'affine').ok).toBe(true);
  const spread = [0, 1, 2, 3].map((k) => ({ x: k % 2, y: k > 1 ? 1 : 0, across: 0, along: 0, u: 0.05 }));
  const plain = observed(spread);
  expect(planesByMoments(plain)).not.toBeNull();
  expect(planesByMoments([{ ...plain[0]!, approach: 1 }, ...plain.slice(1)])).toBeNull();
});
