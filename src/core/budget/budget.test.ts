import fc from 'fast-check';
import { loadCovariance } from '../fit/load-noise';
import { cornersOf } from '../geometry/affine';
import { seededRng } from '../math/random';
import { normalProbability } from '../math/quantile';
import { borderFor } from '../verdict/next-job';
import { errorBudget, budgetEdge, worstPlace } from './error-budget';
import {
  EDGE_DRAWS,
  edgeFor,
  edgePlaces,
  forecastEdge,
  pieceChance,
  shareBeyond,
  spreadPieces,
  type EdgePiece,
  type JobError,
} from './edge-forecast';
import { chanceBeyondCircle, chanceBeyondSquare } from './plane-chance';

const NONE = new Float64Array(36);
const isotropic = (sd: number) => ({ mean: { x: 0, y: 0 }, covariance: { xx: sd * sd, xy: 0, yy: sd * sd } });

describe('chance that an error shows', () => {
  it('is Rayleigh in a round spread: 50 % beyond 1.1774 SD, 5 % beyond 2.4477 SD (from memory: circular error probable)', () => {
    expect(chanceBeyondCircle(isotropic(0.2), 0.2 * 1.17741)).toBeCloseTo(0.5, 5);
    expect(chanceBeyondCircle(isotropic(0.2), 0.2 * 2.44775)).toBeCloseTo(0.05, 6);
  });
  it('is the Marcum Q function about a shifted middle: Q1(a, a) = (1 + exp(-a^2) I0(a^2)) / 2 (from memory)', () => {
    // I0(1) = 1.2660658778, I0(4) = 11.3019219521: Abramowitz and Stegun 1964, table 9.8, from memory.
    const shifted = (a: number) => ({ mean: { x: a * 0.6, y: a * 0.8 }, covariance: { xx: 1, xy: 0, yy: 1 } });
    expect(chanceBeyondCircle(shifted(1), 1)).toBeCloseTo(0.5 * (1 + Math.exp(-1) * 1.2660658778), 7);
    expect(chanceBeyondCircle(shifted(2), 2)).toBeCloseTo(0.5 * (1 + Math.exp(-4) * 11.3019219521), 7);
  });
  it('of a square is two independent sides where nothing is shared', () => {
    const side = 2 * normalProbability(1.5) - 1;
    expect(chanceBeyondSquare(isotropic(0.1), 0.15)).toBeCloseTo(1 - side * side, 8);
  });
  it('is the same whichever way the sheet is turned (property: circle)', () => {
    const any = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(any, any, any, any, any), ([mx, my, a, b, turn]) => {
        const [c, s] = [Math.cos(3 * turn), Math.sin(3 * turn)];
        const [xx, xy, yy] = [a * a + 0.04, a * b, b * b + 0.04];
        const turned = {
          mean: { x: c * mx - s * my, y: s * mx + c * my },
          covariance: {
            xx: c * c * xx - 2 * c * s * xy + s * s * yy,
            xy: c * s * (xx - yy) + (c * c - s * s) * xy,
            yy: s * s * xx + 2 * c * s * xy + c * c * yy,
          },
        };
        const upright = { mean: { x: mx, y: my }, covariance: { xx, xy, yy } };
        expect(chanceBeyondCircle(turned, 0.8)).toBeCloseTo(chanceBeyondCircle(upright, 0.8), 5);
      }),
      { numRuns: 60 },
    );
  });
  it('is certain one way or the other without any spread', () => {
    const still = { mean: { x: 0.3, y: 0.4 }, covariance: { xx: 0, xy: 0, yy: 0 } };
    expect([chanceBeyondCircle(still, 0.49), chanceBeyondCircle(still, 0.51)]).toEqual([1, 0]);
    expect([chanceBeyondSquare(still, 0.39), chanceBeyondSquare(still, 0.41)]).toEqual([1, 0]);
  });
});

/** Four corner marks of an A4 page read with 0.05 mm, a constant part known to 0.03 mm at the middle. */
const MARKS = cornersOf(168, 255);
const load = loadCovariance(MARKS, 0.05);
const errorOf = (beta: readonly number[], growthSd = 0): JobError => ({
  beta,
  constantCovariance: loadCovariance(MARKS, 0.04),
  loadCovariance: load,
  growthSd,
});
const piece = (x: number, y: number, side: number, isRound: boolean): EdgePiece => ({
  box: { left: x - side / 2, bottom: y - side / 2, width: side, height: side },
  isRound,
});

describe('border for a wanted yield: the budget and the simulation agree', () => {
  const cases = [
    ['a disc in the middle', errorOf([0.05, -0.03, 0, 0, 0, 0]), piece(0, 0, 20, true)],
    ['a disc in the corner', errorOf([0.1, 0, 2e-4, 0, 0, -3e-4]), piece(70, 110, 20, true)],
    ['a label in the corner', errorOf([0, 0.08, 0, 4e-4, -4e-4, 0]), piece(-60, 110, 25, false)],
    ['a laminate that grows', errorOf([0, 0, 0, 0, 0, 0], 5e-4), piece(70, -110, 20, true)],
  ] as const;
  it.each(cases)('%s: share that shows', (_name, error, one) => {
    // One place at a time: the closed form is of a place, a small piece's edge is one.
    const places = edgePlaces(one).map((p) => piece(p.x, p.y, 0, one.isRound));
    for (const at of places) {
      const { pieceNeedsMm } = forecastEdge(error, [at], seededRng(7));
      for (const edgeMm of [0.1, 0.2, 0.3]) {
        const closed = pieceChance(error, at, edgeMm);
        const simulated = shareBeyond(pieceNeedsMm, edgeMm);
        const sd = Math.sqrt((closed * (1 - closed)) / EDGE_DRAWS) + 2e-4;
        expect(Math.abs(closed - simulated) / sd).toBeLessThan(4.5);
      }
    }
  });
  it.each(cases)('%s: least edge for 95 %% of jobs, within 4 %%', (_name, error, one) => {
    const place = worstPlace(error, [one]);
    const budget = budgetEdge(error, place, one.isRound, 0.95);
    const at = forecastEdge(error, [piece(place.x, place.y, 0, one.isRound)], seededRng(11));
    expect(Math.abs(budget / edgeFor(at.jobNeedsMm, 0.95) - 1)).toBeLessThan(0.04);
    // A whole edge needs what its worst place needs, and a little more.
    const whole = edgeFor(forecastEdge(error, [one], seededRng(11)).jobNeedsMm, 0.95);
    expect(whole).toBeGreaterThan(budget * 0.97);
    expect(whole).toBeLessThan(budget * 1.15);
  });
  it('a job of many pieces lies between its worst piece alone and all pieces by themselves', () => {
    const pieces = [-70, -35, 0, 35, 70].flatMap((x) => [-110, -55, 0, 55, 110].map((y) => piece(x, y, 25, true)));
    const error = errorOf([0.05, 0.05, 0, 2e-4, -2e-4, 0]);
    const { jobNeedsMm, pieceNeedsMm } = forecastEdge(error, pieces, seededRng(3));
    for (const edgeMm of [0.15, 0.2, 0.25]) {
      const job = shareBeyond(jobNeedsMm, edgeMm);
      const each = pieces.map((p) => pieceChance(error, p, edgeMm));
      expect(job).toBeGreaterThan(Math.max(...each) - 0.03);
      expect(job).toBeLessThan(each.flatMap((c) => [c, c]).reduce((a, b) => a + b) + 0.03);
      expect(shareBeyond(pieceNeedsMm, edgeMm)).toBeLessThan(job);
    }
  });
  it('over a work area is the border that the map page names', () => {
    const error = errorOf([0.1, -0.1, 1e-4, 0, 0, 1e-4]);
    const corners = cornersOf(160, 240).map((p) => piece(p.x, p.y, 0, true));
    const { jobNeedsMm } = forecastEdge(error, corners, seededRng(5));
    const map = borderFor(
      { beta: error.beta, covariance: error.constantCovariance, loadCovariance: load, corners: cornersOf(160, 240) },
      0.95,
      seededRng(5),
    );
    expect(edgeFor(jobNeedsMm, 0.95)).toBeCloseTo(map, 2);
  });
  it('a wider edge never shows more (property)', () => {
    const one = piece(40, 40, 30, false);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (a, b) => {
        const error = errorOf([0.1, 0.05, 0, 0, 0, 0]);
        const [less, more] = a < b ? [a, b] : [b, a];
        expect(pieceChance(error, one, more)).toBeLessThanOrEqual(pieceChance(error, one, less) + 1e-9);
      }),
      { numRuns: 40 },
    );
  });
});

describe('the budget', () => {
  const pieces = [piece(70, 110, 20, true), piece(-70, -110, 20, true)];
  it('adds variances: its lines make up the whole', () => {
    const budget = errorBudget(errorOf([0.1, 0, 0, 0, 0, 0], 3e-4), pieces);
    const sum = budget.lines.reduce((total, line) => total + line.sdMm ** 2, 0);
    expect(Math.sqrt(sum)).toBeCloseTo(budget.combinedSdMm, 12);
    expect(budget.lines.reduce((total, line) => total + line.share, 0)).toBeCloseTo(1, 12);
    expect(budget.meanMm).toBeCloseTo(0.1, 12);
  });
  it('takes growth as one number for the whole job: linear in the distance from the middle', () => {
    const grown = (x: number) => {
      const error: JobError = {
        beta: [0, 0, 0, 0, 0, 0],
        constantCovariance: NONE,
        loadCovariance: NONE,
        growthSd: 1e-3,
      };
      return errorBudget(error, [piece(x, 0, 0, true)]).combinedSdMm;
    };
    expect(grown(100)).toBeCloseTo(0.1, 9);
    expect(grown(200)).toBeCloseTo(0.2, 9);
  });
});

it('of thousands of pieces the outermost are always looked at', () => {
  const pieces = Array.from({ length: 2000 }, (_, i) =>
    piece((i % 50) * 10 - 245, Math.floor(i / 50) * 10 - 195, 8, true),
  );
  const looked = spreadPieces(pieces);
  expect(looked.length).toBeLessThanOrEqual(200);
  for (const corner of [0, 49, 1950, 1999]) expect(looked).toContain(pieces[corner]);
});
