import { readFileSync } from 'node:fs';
import { apply, displacement, identity, largestDisplacement } from '../geometry/affine';
import { fromParameters, NO_ERROR, toParameters } from '../geometry/error-parameters';
import { seededRng } from '../math/random';
import type { Observation } from '../reading/observation';
import {
  mapOf,
  NINE_SPOTS,
  PLAIN_LOAD,
  observe,
  randomError,
  readSet,
  REFERENCE_CORNERS,
} from '../simulate/trials.testing';
import { blockNamed } from '../target/block';
import { defineSheet } from '../target/sheet-definition';
import { mapInMachine, mapOnSheet, TURNS } from '../geometry/load';
import { betaOf } from './design';
import { fitErrorMap, type ErrorMapFit } from './fit-error-map';
import { fitReadings } from './fit-readings';
import { ASSUMED_MARK_SD_MM, loadCovariance } from './load-noise';
import { covarianceAt } from './point-covariance';
import { weightedFit } from './weighted-fit';

const must = (fit: ReturnType<typeof fitErrorMap>): ErrorMapFit => {
  if (!fit.ok) throw new Error(fit.error.kind);
  return fit.value;
};
const corners = REFERENCE_CORNERS;

describe('fit of the error map', () => {
  it('recovers exact data exactly, with shift and scale far apart in size', () => {
    const truth = mapOf({
      ...NO_ERROR,
      offsetAcrossMm: 0.4,
      rotationRad: 0.003,
      scaleAlong: -0.005,
      squareness: 0.002,
    });
    const fit = must(fitErrorMap(observe(truth, NINE_SPOTS, 1e-9, seededRng(1)), { corners }));
    betaOf(truth).forEach((b, i) => {
      expect(Math.abs(fit.beta[i]! - b)).toBeLessThan(1e-8);
    });
    expect(fit.untold).toEqual([]);
  });

  it('is the minimum: normal equations vanish, and any step away costs more', () => {
    const observations = observe(mapOf(randomError(seededRng(3))), NINE_SPOTS, 0.05, seededRng(2));
    const solved = weightedFit(observations, 'affine');
    if (!solved.ok) throw new Error('unsupported');
    const cost = (beta: ArrayLike<number>) =>
      observations.reduce((sum, o) => {
        const [b0, b1, b2, b3, b4, b5] = Array.from(beta);
        const model = o.axis === 'across' ? b0! + b2! * o.at.x + b3! * o.at.y : b1! + b4! * o.at.x + b5! * o.at.y;
        return sum + ((o.valueMm - model) / o.standardUncertaintyMm) ** 2;
      }, 0);
    const least = cost(solved.value.beta);
    expect(least).toBeCloseTo(solved.value.chiSquare, 8);
    for (let i = 0; i < 6; i++) {
      for (const step of [1e-4, -1e-4]) {
        expect(cost(Array.from(solved.value.beta, (b, k) => (k === i ? b + step : b)))).toBeGreaterThan(least);
      }
    }
  });

  it('similarity of Umeyama 1991, section III (data from memory, recomputed): the mirrored fit is refused, not hidden', () => {
    const example = JSON.parse(readFileSync('test-data/worked/umeyama1991.json', 'utf8')) as {
      x: number[][];
      y: number[][];
    };
    const observations = example.x.flatMap(([x, y], i): Observation[] => {
      const target = example.y[i]!;
      const base = { at: { x: x!, y: y! }, standardUncertaintyMm: 1, loadKey: 'one' };
      return [
        { ...base, id: `${i}x`, axis: 'across', valueMm: target[0]! - x! },
        { ...base, id: `${i}y`, axis: 'along', valueMm: target[1]! - y! },
      ];
    });
    // Three points, affine: exact, determinant negative (the example's points are mirrored).
    const affine = must(fitErrorMap(observations, { corners: [{ x: 0, y: 0 }] }));
    expect(affine.model).toBe('affine');
    expect(toParameters(affine.map).ok).toBe(false);
    // Similarity without reflection: rotation and scale by the paper's equations (40)-(42), c = 0.721, mean square error 8/15.
    const similarity = weightedFit(observations, 'similarity');
    if (!similarity.ok) throw new Error('unsupported');
    const scale = Math.hypot(1 + similarity.value.beta[2]!, similarity.value.beta[4]!);
    // Least squares from x to y: c = |trace| / variance; the paper's c is 0.7211 (recomputed).
    expect(scale).toBeCloseTo(0.7211, 3);
    expect(similarity.value.chiSquare / 3).toBeCloseTo(8 / 15, 10);
  });

  it.each([
    ['no readings', [], 'no-readings'],
    [
      'one axis only',
      observe(identity(), NINE_SPOTS, 0.05, seededRng(1)).filter((o) => o.axis === 'across'),
      'axis-missing',
    ],
    [
      'a NaN',
      observe(identity(), NINE_SPOTS, 0.05, seededRng(1)).map((o, i) => (i === 4 ? { ...o, valueMm: NaN } : o)),
      'not-finite',
    ],
  ])('refuses %s by name', (_, observations, kind) => {
    const fit = fitErrorMap(observations);
    expect(fit.ok ? 'fitted' : fit.error.kind).toBe(kind);
  });

  it.each([
    ['one spot', 'shift', [{ x: 10, y: 20 }]],
    [
      'two spots',
      'similarity',
      [
        { x: -70, y: 0 },
        { x: 70, y: 0 },
      ],
    ],
    ['three on a line', 'similarity', [-75, 0, 75].map((x) => ({ x, y: 0 }))],
    [
      'three almost on a line',
      'similarity',
      [
        { x: -75, y: 0.1 },
        { x: 0, y: -0.2 },
        { x: 75, y: 0.1 },
      ],
    ],
    [
      'coincident spots',
      'shift',
      [
        { x: 5, y: 5 },
        { x: 5, y: 5 },
        { x: 5, y: 5 },
      ],
    ],
    [
      'three spread',
      'affine',
      [
        { x: -75, y: -115 },
        { x: 75, y: -115 },
        { x: 0, y: 115 },
      ],
    ],
  ])('%s carry %s', (_, model, spots) => {
    const fit = must(fitErrorMap(observe(identity(), spots, 0.05, seededRng(5)), { corners }));
    expect(fit.model).toBe(model);
    expect(fit.untold.length > 0).toBe(model !== 'affine');
  });

  it('worst-corner standard error of the shipped layouts over reading SD is as planned (A4 .89/.82, quick 1.15/1.02)', () => {
    const factors = (['full', 'quick'] as const).map((kind) => {
      const readings = readSet(defineSheet({ block: blockNamed('A4'), checkKind: kind }), 1, identity(), {
        sdMm: 0,
        rng: seededRng(1),
      }).map((r) => ({
        ...r,
        standardUncertaintyMm: 1,
      }));
      const fit = fitReadings(readings, PLAIN_LOAD);
      if (!fit.ok) throw new Error(fit.error.kind);
      const all = [-88, 88].flatMap((x) => [-118, 118].map((y) => covarianceAt(fit.value.readingCovariance, { x, y })));
      return [Math.max(...all.map((c) => Math.sqrt(c.xx))), Math.max(...all.map((c) => Math.sqrt(c.yy)))];
    });
    factors.flat().forEach((f, i) => {
      expect(Math.abs(f - [0.89, 0.82, 1.15, 1.02][i]!)).toBeLessThan(0.06);
    });
  });

  it('shared effects are added to the covariance of the shift, not averaged away', () => {
    const observations = observe(identity(), NINE_SPOTS, 0.002, seededRng(1));
    const fit = must(
      fitErrorMap(observations, { corners, sharedEffects: [{ standardUncertaintyMm: 0.014, across: 1, along: 0 }] }),
    );
    expect(Math.sqrt(covarianceAt(fit.covariance, { x: 0, y: 0 }).xx)).toBeGreaterThan(0.0139);
  });

  it('load noise at centre and corner: 0.50 and 0.87 of one mark with four marks; 1.00 and 1.73 with three', () => {
    const four = loadCovariance(corners, 1);
    expect(Math.sqrt(covarianceAt(four, { x: 0, y: 0 }).xx)).toBeCloseTo(0.5, 10);
    expect(Math.sqrt(covarianceAt(four, corners[0]!).yy)).toBeCloseTo(Math.sqrt(0.75), 10);
    const three = loadCovariance(corners.slice(0, 3), 1);
    expect(Math.sqrt(covarianceAt(three, corners[0]!).xx)).toBeCloseTo(1, 10);
    expect(Math.sqrt(covarianceAt(three, corners[3]!).xx)).toBeCloseTo(Math.sqrt(3), 10);
    expect(ASSUMED_MARK_SD_MM).toBe(0.05);
  });
});

describe('readings of wedges', () => {
  const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full' });
  it('without noise the map comes back through the drawn figures to 0.1 um, within their reach', () => {
    const rng = seededRng(11);
    for (let trial = 0; trial < 50; trial++) {
      const truth = fromParameters({
        ...randomError(rng, 0.2),
        scaleAcross: 0.002 * (rng() - 0.5),
        scaleAlong: 0.002 * (rng() - 0.5),
      });
      const fit = fitReadings(readSet(definition, 1, truth, { sdMm: 0, rng }), PLAIN_LOAD);
      if (!fit.ok) throw new Error(fit.error.kind);
      for (const corner of corners) {
        const wanted = displacement(truth, corner);
        const got = displacement(fit.value.map, corner);
        expect(Math.hypot(got.x - wanted.x, got.y - wanted.y)).toBeLessThan(0.0001);
      }
    }
  });
  it('sets cut under different turns and faces tell of one machine error', () => {
    const rng = seededRng(13);
    const machine = mapInMachine(
      fromParameters({ ...randomError(rng, 0.5), scaleAcross: 0.001, scaleAlong: -0.001 }),
      PLAIN_LOAD,
    );
    for (const turnDeg of TURNS) {
      for (const face of ['ink-up', 'ink-down'] as const) {
        const load = { turnDeg, face };
        const other = readSet(definition, 2, mapOnSheet(machine, load), { sdMm: 0, rng, load });
        const first = readSet(definition, 1, mapOnSheet(machine, PLAIN_LOAD), { sdMm: 0, rng });
        const fit = fitReadings([...first, ...other], PLAIN_LOAD);
        if (!fit.ok) throw new Error(fit.error.kind);
        const wanted = mapOnSheet(machine, PLAIN_LOAD);
        const gap = corners.map((p) =>
          Math.hypot(apply(fit.value.map, p).x - apply(wanted, p).x, apply(fit.value.map, p).y - apply(wanted, p).y),
        );
        expect(Math.max(...gap)).toBeLessThan(0.0005);
        expect(largestDisplacement(wanted, corners)).toBeGreaterThan(0.1);
      }
    }
  });
  it('a shift carried by the file is taken out again', () => {
    const rng = seededRng(12);
    const truth = fromParameters({ ...NO_ERROR, offsetAcrossMm: 6.3, offsetAlongMm: -4.1, rotationRad: 0.002 });
    const shift = { x: -6.25, y: 4 };
    const fit = fitReadings(readSet(definition, 2, truth, { sdMm: 0, rng, shift }), PLAIN_LOAD);
    if (!fit.ok) throw new Error(fit.error.kind);
    const d = displacement(fit.value.map, { x: 88, y: 118 });
    const wanted = displacement(truth, { x: 88, y: 118 });
    expect(Math.hypot(d.x - wanted.x, d.y - wanted.y)).toBeLessThan(0.002);
  });
});
