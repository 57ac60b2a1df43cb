import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { apply, cornersOf, displacement, identity, inverseOf, invert, point, then, type Affine } from './affine';
import { fromParameters, toParameters, type ErrorParameters } from './error-parameters';
import { FILE_DIRECTIONS, fileToSheet, isPerpendicular, sheetToFile } from './file-axes';
import { loadTurnOf, mapInMachine, mapOnSheet, sheetToMachine, TURNS, viewTurnOf, type Load } from './load';

const small = (size: number) => fc.double({ min: -size, max: size, noNaN: true });
const anyError: fc.Arbitrary<ErrorParameters> = fc.record({
  offsetAcrossMm: small(12),
  offsetAlongMm: small(12),
  rotationRad: small(0.1),
  scaleAcross: small(0.05),
  scaleAlong: small(0.05),
  squareness: small(0.05),
});
const anyPoint = fc.record({ x: small(500), y: small(500) });
const anyLoad: fc.Arbitrary<Load> = fc.record({
  turnDeg: fc.constantFrom(...TURNS),
  face: fc.constantFrom('ink-up' as const, 'ink-down' as const),
});

const closeTo = (a: { x: number; y: number }, b: { x: number; y: number }, within = 1e-9) => {
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(within);
};

describe('error parameters', () => {
  it('compose and decompose to themselves about any pivot', () => {
    fc.assert(
      fc.property(anyError, anyPoint, (parameters, pivot) => {
        const back = toParameters(fromParameters(parameters, pivot), pivot);
        if (!back.ok) throw new Error(back.error.kind);
        for (const key of Object.keys(parameters) as (keyof ErrorParameters)[]) {
          expect(Math.abs(back.value[key] - parameters[key])).toBeLessThan(1e-10);
        }
      }),
    );
  });
  it('says what the words say: positive squareness leans y to +x, rotation is counter-clockwise', () => {
    const none = { offsetAcrossMm: 0, offsetAlongMm: 0, rotationRad: 0, scaleAcross: 0, scaleAlong: 0, squareness: 0 };
    expect(displacement(fromParameters({ ...none, squareness: 0.01 }), point(0, 100)).x).toBeCloseTo(1, 12);
    expect(displacement(fromParameters({ ...none, rotationRad: 0.01 }), point(100, 0)).y).toBeGreaterThan(0.99);
    const height = apply(fromParameters({ ...none, scaleAlong: 0.02, squareness: 0.3 }), point(0, 100));
    expect(height.y).toBeCloseTo(102, 10);
    expect(Math.hypot(height.x, height.y)).toBeCloseTo(102 * Math.hypot(1, 0.3), 9);
  });
  it('names a mirrored map', () => {
    expect(toParameters({ ...identity(), xx: -1 })).toEqual({
      ok: false,
      error: { kind: 'mirrored-or-singular', determinant: -1 },
    });
    expect(invert({ xx: 1, xy: 2, yx: 2, yy: 4, tx: 0, ty: 0 }).ok).toBe(false);
  });
  it('a correction undone is the identity; leaving out the inverse leaves what measurement says', () => {
    fc.assert(
      fc.property(anyError, anyPoint, (parameters, p) => {
        const map = fromParameters(parameters);
        closeTo(apply(map, apply(inverseOf(map), p)), p, 1e-10 * (1 + Math.hypot(p.x, p.y)) + 1e-10);
      }),
    );
    // 8 mm, 3 mrad, 0.5 %: minus the error instead of the exact inverse leaves 20 to 110 um (measurement, section 1).
    const map = fromParameters({
      offsetAcrossMm: 8,
      offsetAlongMm: 8,
      rotationRad: 0.003,
      scaleAcross: 0.005,
      scaleAlong: 0.005,
      squareness: 0.003,
    });
    const left = cornersOf(180, 260).map((p) => {
      const d = displacement(map, p);
      const arrived = apply(map, point(p.x - d.x, p.y - d.y));
      return Math.hypot(arrived.x - p.x, arrived.y - p.y);
    });
    expect(Math.max(...left)).toBeGreaterThan(0.02);
    expect(Math.max(...left)).toBeLessThan(0.11);
  });
  it("comes out of Umeyama's worked example (IEEE TPAMI 13(4) 1991, section III, from memory, recomputed)", () => {
    const worked = JSON.parse(readFileSync('test-data/worked/umeyama1991.json', 'utf8')) as {
      x: [number, number][];
      y: [number, number][];
      expected: { R: number[][]; c: number; t: [number, number]; mse: number };
    };
    const { R, c, t, mse } = worked.expected;
    const map: Affine = {
      xx: c * R[0]![0]!,
      xy: c * R[0]![1]!,
      yx: c * R[1]![0]!,
      yy: c * R[1]![1]!,
      tx: t[0],
      ty: t[1],
    };
    const parameters = toParameters(map);
    if (!parameters.ok) throw new Error('not mirrored');
    expect(parameters.value.rotationRad).toBeCloseTo(Math.atan2(R[1]![0]!, R[0]![0]!), 12);
    expect(1 + parameters.value.scaleAcross).toBeCloseTo(c, 12);
    expect(1 + parameters.value.scaleAlong).toBeCloseTo(c, 12);
    expect(parameters.value.squareness).toBeCloseTo(0, 12);
    const squares = worked.x.map(([x, y], i) => {
      const got = apply(map, point<'sheet'>(x, y));
      return (got.x - worked.y[i]![0]) ** 2 + (got.y - worked.y[i]![1]) ** 2;
    });
    expect(squares.reduce((a, b) => a + b) / squares.length).toBeCloseTo(mse, 12);
  });
});

describe('sheet and machine', () => {
  it('a map goes to the machine and back unchanged, and moves displacement as R F d', () => {
    fc.assert(
      fc.property(anyError, anyPoint, anyLoad, (parameters, p, load) => {
        const map = fromParameters(parameters);
        const inMachine = mapInMachine(map, load);
        closeTo(apply(mapOnSheet(inMachine, load), p), apply(map, p));
        const toMachine = sheetToMachine(load);
        const d = displacement(map, p);
        closeTo(displacement(inMachine, apply(toMachine, p)), apply(toMachine, point(d.x, d.y)));
      }),
    );
  });
  it('turn 90, ink up: sheet x points to the leading edge; ink down mirrors sheet x', () => {
    closeTo(apply(sheetToMachine({ turnDeg: 90, face: 'ink-up' }), point(1, 0)), point(0, 1));
    closeTo(apply(sheetToMachine({ turnDeg: 0, face: 'ink-down' }), point(1, 2)), point(-1, 2));
  });
  it('from loads at 0 and 180, half the sum is the print part and half the difference the machine part', () => {
    const machine = point<'machine'>(0.4, -0.2);
    const print = point<'sheet'>(0.1, 0.3);
    const seen = ([0, 180] as const).map((turnDeg) => {
      const d = apply(inverseOf(sheetToMachine({ turnDeg, face: 'ink-up' })), machine);
      return point<'sheet'>(d.x + print.x, d.y + print.y);
    });
    closeTo(point((seen[0]!.x + seen[1]!.x) / 2, (seen[0]!.y + seen[1]!.y) / 2), print);
    closeTo(point((seen[0]!.x - seen[1]!.x) / 2, (seen[0]!.y - seen[1]!.y) / 2), machine);
  });
});

describe('sheet and file', () => {
  it('no file coordinate is negative and every way there has its way back', () => {
    fc.assert(
      fc.property(
        anyLoad,
        fc.constantFrom(...FILE_DIRECTIONS),
        fc.constantFrom(...FILE_DIRECTIONS),
        (load, across, along) => {
          fc.pre(isPerpendicular({ across, along }));
          const extent = cornersOf(180, 260);
          const forward = sheetToFile(load, { across, along }, extent);
          const inFile = extent.map((p) => apply(forward, p));
          expect(Math.min(...inFile.map((p) => Math.min(p.x, p.y)))).toBeCloseTo(0, 12);
          closeTo(apply(then(forward, fileToSheet(load, { across, along }, extent)), point(12, -7)), point(12, -7));
        },
      ),
    );
  });
  it('a turn as it is seen is the load of that view, fed towards the operator as well', () => {
    for (const turn of TURNS)
      expect(viewTurnOf({ turnDeg: loadTurnOf(turn, 'towards'), face: 'ink-up' }, 'towards')).toBe(turn);
  });
});
