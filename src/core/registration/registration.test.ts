import fc from 'fast-check';
import { apply, cornersOf, type Point } from '../geometry/affine';
import { fromParameters, NO_ERROR, toParameters, type ErrorParameters } from '../geometry/error-parameters';
import { seededRng, standardNormal } from '../math/random';
import { registerByHand, type HandQuestion } from './hand-registration';
import { rescueOrReprint } from './rescue-or-reprint';
import { fitMeasured, type Measured } from './rule-fit';

const corners = cornersOf(180, 260);
const [lowerLeft, lowerRight, upperRight, upperLeft] = corners as [Point, Point, Point, Point];
const map = fromParameters({
  offsetAcrossMm: -1.2,
  offsetAlongMm: 0.7,
  rotationRad: 0.004,
  scaleAcross: 0.002,
  scaleAlong: -0.003,
  squareness: 0.002,
});

const place = (axis: 'across' | 'along', at: Point, noise = 0): Measured => {
  const q = apply(map, at);
  return {
    kind: 'place',
    name: `${axis} ${at.x} ${at.y}`,
    axis,
    at,
    valueMm: (axis === 'across' ? q.x : q.y) + noise,
    standardUncertaintyMm: 0.3,
  };
};
const distance = (from: Point, to: Point, noise = 0): Measured => {
  const a = apply(map, from);
  const b = apply(map, to);
  return {
    kind: 'distance',
    name: `${from.x} ${from.y} to ${to.x} ${to.y}`,
    from,
    to,
    valueMm: Math.hypot(a.x - b.x, a.y - b.y) + noise,
    standardUncertaintyMm: 0.3,
  };
};
const MARGINS = [
  place('across', lowerLeft),
  place('across', upperLeft),
  place('along', lowerLeft),
  place('along', lowerRight),
];
const LENGTHS = [
  distance(lowerLeft, lowerRight),
  distance(lowerLeft, upperLeft),
  distance(lowerLeft, upperRight),
  distance(lowerRight, upperLeft),
];

describe('a print measured by rule', () => {
  it('margins and diagonals without error give the whole map', () => {
    const fit = fitMeasured([...MARGINS, ...LENGTHS], corners);
    if (!fit.ok) throw new Error(fit.error.kind);
    expect(fit.value).toMatchObject({ model: 'affine', untold: [], odd: [], degreesOfFreedom: 2 });
    const told = toParameters(fit.value.map);
    const meant = toParameters(map);
    if (!told.ok || !meant.ok) throw new Error('mirrored');
    for (const [name, value] of Object.entries(meant.value) as [keyof ErrorParameters, number][])
      expect(told.value[name]).toBeCloseTo(value, 9);
  });
  it('lengths alone give scales and squareness, and say that they tell no shift and no turn', () => {
    const fit = fitMeasured(LENGTHS, corners);
    if (!fit.ok) throw new Error(fit.error.kind);
    expect(fit.value.untold).toEqual(['shift', 'rotation']);
    const told = toParameters(fit.value.map);
    expect(told.ok && [told.value.scaleAcross, told.value.scaleAlong, told.value.squareness]).toEqual([
      expect.closeTo(0.002, 9),
      expect.closeTo(-0.003, 9),
      expect.closeTo(0.002, 9),
    ]);
  });
  it('four margins and two diagonals give shift, turn, size and squareness of a print of one scale', () => {
    const meant: ErrorParameters = {
      offsetAcrossMm: 0.8,
      offsetAlongMm: -1.1,
      rotationRad: -0.003,
      scaleAcross: 0.004,
      scaleAlong: 0.004,
      squareness: 0.005,
    };
    // Only with squareness does one scale differ from two equal ones, by its square.
    const oneScale = fromParameters(meant);
    const by = (p: Point): Point => apply(oneScale, p);
    const measured: readonly Measured[] = [
      ...MARGINS.map((m): Measured => {
        if (m.kind !== 'place') throw new Error('margins are places');
        const q = by(m.at);
        return { ...m, valueMm: m.axis === 'across' ? q.x : q.y };
      }),
      ...LENGTHS.slice(2).map((m): Measured => {
        if (m.kind !== 'distance') throw new Error('diagonals are distances');
        const [a, b] = [by(m.from), by(m.to)];
        return { ...m, valueMm: Math.hypot(a.x - b.x, a.y - b.y) };
      }),
    ];
    const fit = fitMeasured(measured, corners);
    const told = fit.ok && toParameters(fit.value.map);
    if (!told || !told.ok) throw new Error('not fitted');
    for (const [name, value] of Object.entries(meant) as [keyof ErrorParameters, number][])
      expect(told.value[name]).toBeCloseTo(value, name.startsWith('offset') ? 2 : 4);
  });
  it.each([
    [
      'one margin each way: shift',
      [MARGINS[0]!, MARGINS[2]!],
      'shift',
      ['rotation', 'scale across', 'scale along', 'out of square'],
    ],
    ['three margins: shift and turn', MARGINS.slice(0, 3), 'rigid', ['scale across', 'scale along', 'out of square']],
    ['four margins: squareness too', MARGINS, 'rigid_square', ['scale across', 'scale along']],
    [
      'four margins and both diagonals: one scale too',
      [...MARGINS, ...LENGTHS.slice(2)],
      'scale_square',
      ['scale across apart from scale along'],
    ],
    [
      'three margins, width and length: two scales',
      [...MARGINS.slice(0, 3), ...LENGTHS.slice(0, 2)],
      'two_scales',
      ['out of square'],
    ],
    ['width and length: two scales', LENGTHS.slice(0, 2), 'shape_scales', ['shift', 'rotation', 'out of square']],
    [
      'one diagonal: one scale',
      LENGTHS.slice(2, 3),
      'shape_scale',
      ['shift', 'rotation', 'out of square', 'scale across apart from scale along'],
    ],
  ] as const)('%s, and what they cannot tell is named', (_name, measured: readonly Measured[], model, untold) => {
    const fit = fitMeasured(measured, corners);
    expect(fit.ok && [fit.value.model, fit.value.untold]).toEqual([model, untold]);
  });
  it.each([
    ['nothing', [], 'nothing-measured'],
    ['a single margin', [MARGINS[0]!], 'too-few'],
    ['no number', [{ ...MARGINS[0]!, valueMm: NaN }], 'not-finite'],
    [
      'a distance from a point to itself',
      [{ ...LENGTHS[0]!, from: lowerLeft, to: lowerLeft } as Measured],
      'coincident',
    ],
  ])('%s is its own answer', (_name, measured, kind) => {
    expect(fitMeasured(measured, corners)).toMatchObject({ ok: false, error: { kind } });
  });
  it('a length misread by 5 mm is named', () => {
    const wrong = { ...LENGTHS[2]!, valueMm: LENGTHS[2]!.valueMm + 5, name: 'diagonal' };
    const more = [
      distance(upperLeft, upperRight),
      distance(lowerRight, upperRight),
      place('across', lowerRight),
      place('along', upperLeft),
    ];
    const fit = fitMeasured([...MARGINS, ...more, ...LENGTHS.with(2, wrong)], corners);
    expect(fit.ok && fit.value.odd.map((o) => o.name)).toContain('diagonal');
  });
  it('95 % intervals of all six parameters cover by simulation', () => {
    const rng = seededRng(99);
    const trials = 2000;
    const hits = [0, 0, 0, 0, 0, 0];
    const truth = [map.tx, map.ty, map.xx - 1, map.xy, map.yx, map.yy - 1];
    for (let trial = 0; trial < trials; trial++) {
      const noisy = [...MARGINS, ...LENGTHS].map((m) => ({ ...m, valueMm: m.valueMm + 0.3 * standardNormal(rng) }));
      const fit = fitMeasured(noisy, corners);
      if (!fit.ok) throw new Error(fit.error.kind);
      const { map: got, covariance } = fit.value;
      [got.tx, got.ty, got.xx - 1, got.xy, got.yx, got.yy - 1].forEach((b, i) => {
        if (Math.abs(b - truth[i]!) <= 1.959964 * Math.sqrt(covariance[i * 7]!)) hits[i]!++;
      });
    }
    for (const h of hits) {
      expect(h / trials).toBeGreaterThanOrEqual(0.93);
      expect(h / trials).toBeLessThanOrEqual(0.97);
    }
  });
});

const found = (nominal: Point) => ({ nominal, found: apply(map, nominal) });
const question = (over: Partial<HandQuestion>): HandQuestion => ({
  marks: corners.map(found),
  uses: 'affine',
  touchSdMm: 0.15,
  workWidthMm: 180,
  workLengthMm: 260,
  toleranceMm: 1,
  ...over,
});
const answer = (over: Partial<HandQuestion>) => {
  const done = registerByHand(question(over));
  if (!done.ok) throw new Error(done.error.kind);
  return done.value;
};

describe('registration by hand', () => {
  it('a machine that makes an affine map of the marks leaves nothing but the doubt of the touches', () => {
    const all = answer({});
    expect(all.bounds.worstMm).toBeCloseTo(0, 9);
    expect(all.bounds.upperMm).toBeGreaterThan(0.1);
    expect(all.worstMarkMm).toBeCloseTo(0, 9);
  });
  it('one that only shifts leaves the turn and the scales: by hand at the worst corner', () => {
    const shiftOnly = answer({ uses: 'shift' });
    // The mean shift over four corners is the shift of the middle: left are (A - I) p.
    const worst = Math.max(
      ...corners.map((p) => Math.hypot((map.xx - 1) * p.x + map.xy * p.y, map.yx * p.x + (map.yy - 1) * p.y)),
    );
    expect(shiftOnly.bounds.worstMm).toBeCloseTo(worst, 9);
    expect(shiftOnly.outShare).toBeGreaterThan(answer({ uses: 'rigid' }).outShare - 1e-9);
  });
  it('two marks tell shift, turn and one scale, no more', () => {
    const two = answer({ marks: [found(lowerLeft), found(upperRight)], uses: 'rigid' });
    expect(two.printModel).toBe('similarity');
  });
  it('the share out of tolerance is what simulation finds', () => {
    const rng = seededRng(5);
    const told: number[] = [];
    let out = 0;
    const trials = 1000;
    for (let trial = 0; trial < trials; trial++) {
      const marks = corners.map((nominal) => {
        const q = apply(map, nominal);
        return { nominal, found: { x: q.x + 0.25 * standardNormal(rng), y: q.y + 0.25 * standardNormal(rng) } };
      });
      const { leftBeta, print, outShare } = answer({ marks, touchSdMm: 0.25, toleranceMm: 0.3 });
      told.push(outShare);
      // What the machine took out is the print as found; what is left is the truth less that.
      const b = print.beta.map(
        (v, i) => [map.tx, map.ty, map.xx - 1, map.xy, map.yx, map.yy - 1][i]! - v + leftBeta[i]!,
      );
      const worst = Math.max(
        ...corners.map((p) => Math.hypot(b[0]! + b[2]! * p.x + b[3]! * p.y, b[1]! + b[4]! * p.x + b[5]! * p.y)),
      );
      if (worst > 0.3) out += 1;
    }
    const mean = told.reduce((a, b) => a + b, 0) / trials;
    expect(Math.abs(mean - out / trials)).toBeLessThan(0.05);
  });
  it.each([
    ['too few for a turn', { marks: [found(lowerLeft)], uses: 'rigid' }, { kind: 'too-few-marks', got: 1, needed: 2 }],
    ['marks in one place', { marks: [found(lowerLeft), found(lowerLeft)], uses: 'rigid' }, { kind: 'marks-coincide' }],
    [
      'a mark nowhere',
      { marks: [{ nominal: lowerLeft, found: { x: NaN, y: 0 } }], uses: 'shift' },
      { kind: 'not-finite', mark: 1 },
    ],
  ] as const)('%s is its own answer', (_name, over, error) => {
    expect(registerByHand(question(over))).toEqual({ ok: false, error });
  });
  it('is the identity for marks that lie where they should (property)', () => {
    fc.assert(
      fc.property(fc.constantFrom('shift', 'rigid', 'similarity', 'affine'), (uses) => {
        const marks = corners.map((nominal) => ({ nominal, found: apply(fromParameters(NO_ERROR), nominal) }));
        expect(answer({ marks, uses }).bounds.worstMm).toBeCloseTo(0, 12);
      }),
    );
  });
});

it('rescue against reprint, by hand: 10 minutes at 30 an hour and a 40 % risk of a sheet of 9, against that sheet', () => {
  const costs = { material: 4, reprintMinutes: 10, rescueMinutes: 10, perHour: 30 };
  expect(rescueOrReprint(costs, 0.4, 0.05)).toEqual({
    reprintCost: 9,
    rescueCost: 5,
    expectedRescue: 8.6,
    expectedReprint: 9.45,
    better: 'rescue',
  });
  expect(rescueOrReprint(costs, 0.6, 0.05).better).toBe('reprint');
});
