import { identity } from '../geometry/affine';
import { fromParameters, NO_ERROR, type ErrorParameters } from '../geometry/error-parameters';
import { chiSquareQuantile, studentQuantile } from '../math/quantile';
import { mapOnSheet, type Load } from '../geometry/load';
import { seededRng, type Rng } from '../math/random';
import {
  coverOf,
  mapOf,
  NINE_SPOTS,
  PLAIN_LOAD,
  observe,
  readCombSet,
  readRimSet,
  readWallSet,
  uniform,
  randomError,
  readSet,
  REFERENCE_CORNERS,
  TRIALS,
  IS_LONG,
} from '../simulate/trials.testing';
import { assumedLookSd, combineLooks, lookSd, looksUncertainty, repeatabilityOf } from '../reading/repeats';
import {
  EYE_SD_MM,
  readingUncertainty,
  RIM_EYE_SD_MM,
  ROUND_CALIPER_SD_MM,
  type ReadingConditions,
} from '../reading/uncertainty';
import { COMB_STEP_MM } from '../target/comb';
import { READING_STEP_MM } from '../target/wedge';
import { blockNamed } from '../target/block';
import { defineSheet } from '../target/sheet-definition';
import { betaOf } from './design';
import { fitErrorMap, type ErrorMapFit } from './fit-error-map';
import { fitReadings } from './fit-readings';
import { misfits } from './robust';

const must = (fit: ReturnType<typeof fitErrorMap>): ErrorMapFit => {
  if (!fit.ok) throw new Error(fit.error.kind);
  return fit.value;
};
const corners = REFERENCE_CORNERS;

describe(`coverage by simulation, ${TRIALS} trials`, () => {
  const [low, high] = IS_LONG ? [0.945, 0.955] : [0.93, 0.97];
  it('95 % intervals of each of the six parameters, spread from the residuals', () => {
    const hits = [0, 0, 0, 0, 0, 0];
    const rng = seededRng(2024);
    for (let trial = 0; trial < TRIALS; trial++) {
      const truth = mapOf(randomError(rng));
      const fit = must(
        fitErrorMap(observe(truth, NINE_SPOTS, 0.05, rng), { corners, uncertainties: 'relative', keepAll: true }),
      );
      const t = studentQuantileOf(fit.quantileDegrees);
      betaOf(truth).forEach((b, i) => {
        if (Math.abs(fit.beta[i]! - b) <= t * Math.sqrt(fit.covariance[i * 7]!)) hits[i]!++;
      });
    }
    for (const h of hits) {
      expect(h / TRIALS).toBeGreaterThanOrEqual(low);
      expect(h / TRIALS).toBeLessThanOrEqual(high);
    }
  });

  it('wedge readings to 0.05 mm on the shipped figures, stated uncertainty: at least nominal (upper limit does not apply)', () => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full' });
    const trials = TRIALS / 2;
    const rng = seededRng(77);
    const hits = [0, 0, 0, 0, 0, 0];
    for (let trial = 0; trial < trials; trial++) {
      const truth = fromParameters({ ...randomError(rng, 0.3), scaleAcross: 0, scaleAlong: 0 });
      const fit = fitReadings(readSet(definition, 1, truth, { sdMm: 0.04, rng }), PLAIN_LOAD);
      if (!fit.ok) throw new Error(fit.error.kind);
      const t = studentQuantile(0.975, Infinity);
      betaOf(truth).forEach((b, i) => {
        if (Math.abs(fit.value.beta[i]! - b) <= t * Math.sqrt(fit.value.covariance[i * 7]!)) hits[i]!++;
      });
    }
    for (const h of hits) expect(h / trials).toBeGreaterThanOrEqual(IS_LONG ? 0.944 : low);
  });

  it('wedges looked at twice by an eye half as steady again as assumed: its own repeats keep the intervals honest', () => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full' });
    const conditions: ReadingConditions = {
      stepMm: READING_STEP_MM,
      operatorSdMm: EYE_SD_MM,
      printerDotMm: 0,
      isPlotterFile: false,
    };
    const trials = TRIALS / 2;
    const rng = seededRng(79);
    const hits = [0, 0, 0, 0, 0, 0];
    for (let trial = 0; trial < trials; trial++) {
      const truth = fromParameters({ ...randomError(rng, 0.3), scaleAcross: 0, scaleAlong: 0 });
      const [one, two] = [1, 2].map(() => readSet(definition, 1, truth, { sdMm: 1.5 * EYE_SD_MM, rng }));
      const looks = one!.map((r) => [r, two!.find((other) => other.id === r.id)!]);
      const figures = looks.map((pair) => pair.map((r) => ({ id: r.id, valueMm: r.readingMm })));
      const known = repeatabilityOf(figures, assumedLookSd(conditions));
      const readings = looks.map(([first], i) => {
        const combined = combineLooks(figures[i]!, lookSd(conditions, known));
        const standardUncertaintyMm = looksUncertainty(conditions, known, combined);
        return { ...first!, readingMm: combined.valueMm, standardUncertaintyMm };
      });
      const fit = fitReadings(readings, PLAIN_LOAD);
      if (!fit.ok) throw new Error(fit.error.kind);
      betaOf(truth).forEach((b, i) => {
        const t = studentQuantileOf(Infinity);
        if (Math.abs(fit.value.beta[i]! - b) <= t * Math.sqrt(fit.value.covariance[i * 7]!)) hits[i]!++;
      });
    }
    for (const h of hits) expect(h / trials).toBeGreaterThanOrEqual(IS_LONG ? 0.944 : low);
  });

  it.each(['quick', 'full'] as const)(
    'combs matched to half a tick on a %s check, a cutter that loses up to 0.2 mm at each change of direction: at least nominal',
    (checkKind) => {
      const definition = defineSheet({ block: blockNamed('A4'), checkKind, style: 'comb' });
      const uncertaintyMm = Math.hypot(COMB_STEP_MM / Math.sqrt(12), EYE_SD_MM);
      const cover = coverOf(80, TRIALS / 2, randomError, (truth, rng) => {
        const backlash = { x: uniform(rng, 0.1), y: uniform(rng, 0.1) };
        return readCombSet(definition, truth, { sdMm: EYE_SD_MM, rng, uncertaintyMm, backlash });
      });
      for (const share of cover) expect(share).toBeGreaterThanOrEqual(IS_LONG ? 0.944 : low);
    },
  );

  it('what is lost at a change of direction is the machine\u2019s: loads at 0, 90 and 180 degrees tell the same', () => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full', style: 'comb' });
    const backlash = { x: 0.06, y: -0.04 };
    const loads = ([0, 90, 180] as const).map((turnDeg): Load => ({ turnDeg, face: 'ink-up' }));
    const truth = fromParameters<'machine'>({ ...NO_ERROR, offsetAcrossMm: 0.3, scaleAlong: 0.002 });
    const rng = seededRng(83);
    const readings = loads.flatMap((load, i) =>
      readCombSet(definition, mapOnSheet(truth, load), {
        ...{ sdMm: 0.02, rng, uncertaintyMm: 0.03, backlash, load },
      }).map((r) => ({ ...r, id: `${i} ${r.id}`, loadKey: `load ${i}` })),
    );
    const fit = fitReadings(readings, PLAIN_LOAD);
    if (!fit.ok) throw new Error(fit.error.kind);
    expect(Math.abs((fit.value.backlash.across?.halfMm ?? NaN) - 0.06)).toBeLessThan(0.012);
    expect(Math.abs((fit.value.backlash.along?.halfMm ?? NaN) + 0.04)).toBeLessThan(0.012);
    expect(Math.abs(fit.value.map.tx - 0.3)).toBeLessThan(0.02);
  });

  it('combs of a machine in register, read by a steady eye: the spots\u2019 parts of the step keep rounding independent', () => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full', style: 'comb' });
    const uncertaintyMm = COMB_STEP_MM / Math.sqrt(12);
    const flat = (rng: Rng): ErrorParameters => ({ ...NO_ERROR, offsetAcrossMm: uniform(rng, 0.03) });
    const cover = coverOf(81, TRIALS / 5, flat, (truth, rng) =>
      readCombSet(definition, truth, { sdMm: 0.001, rng, uncertaintyMm }),
    );
    for (const share of cover) expect(share).toBeGreaterThanOrEqual(low);
  });

  it.each(['quick', 'full'] as const)('walls of discs by caliper on a %s check: at least nominal', (checkKind) => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind });
    const uncertaintyMm = readingUncertainty({
      stepMm: READING_STEP_MM,
      operatorSdMm: ROUND_CALIPER_SD_MM,
      printerDotMm: 25.4 / 600,
      isPlotterFile: false,
    });
    const cover = coverOf(82, TRIALS / 2, randomError, (truth, rng) =>
      readWallSet(definition, 1, truth, { sdMm: ROUND_CALIPER_SD_MM, rng, uncertaintyMm }),
    );
    for (const share of cover) expect(share).toBeGreaterThanOrEqual(IS_LONG ? 0.944 : low);
  });

  it.each(['quick', 'full'] as const)(
    'rims of lift-off discs measured to 0.05 mm on a %s check, stated uncertainty: at least nominal',
    (checkKind) => {
      const definition = defineSheet({ block: blockNamed('A4'), checkKind, style: 'lift-off', sets: 1 });
      const uncertaintyMm = readingUncertainty({
        stepMm: READING_STEP_MM,
        operatorSdMm: RIM_EYE_SD_MM,
        printerDotMm: 25.4 / 600,
        isPlotterFile: false,
      });
      const trials = TRIALS / 2;
      const rng = seededRng(78);
      const hits = [0, 0, 0, 0, 0, 0];
      for (let trial = 0; trial < trials; trial++) {
        const truth = fromParameters(randomError(rng));
        const fit = fitReadings(readRimSet(definition, truth, { sdMm: RIM_EYE_SD_MM, rng, uncertaintyMm }), PLAIN_LOAD);
        if (!fit.ok) throw new Error(fit.error.kind);
        betaOf(truth).forEach((b, i) => {
          const t = studentQuantileOf(Infinity);
          if (Math.abs(fit.value.beta[i]! - b) <= t * Math.sqrt(fit.value.covariance[i * 7]!)) hits[i]!++;
        });
      }
      for (const h of hits) expect(h / trials).toBeGreaterThanOrEqual(IS_LONG ? 0.944 : low);
    },
  );

  it('a flat map read without dither would not cover; with the dither it does', () => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full' });
    const plain = { ...definition, wedges: definition.wedges.map((w) => ({ ...w, ditherMm: 0 })) };
    const cover = [definition, plain].map((d) => {
      const rng = seededRng(31);
      let hits = 0;
      for (let trial = 0; trial < 400; trial++) {
        const shift = 0.025 * rng();
        const truth = fromParameters({ ...NO_ERROR, offsetAcrossMm: shift });
        const readings = readSet(d, 1, truth, { sdMm: 0.001, rng }).map((r) => ({
          ...r,
          standardUncertaintyMm: 0.05 / Math.sqrt(12),
        }));
        const fit = fitReadings(readings, PLAIN_LOAD, { keepAll: true });
        if (!fit.ok) throw new Error(fit.error.kind);
        if (Math.abs(fit.value.beta[0]! - shift) <= 1.96 * Math.sqrt(fit.value.covariance[0]!)) hits++;
      }
      return hits / 400;
    });
    expect(cover[0]).toBeGreaterThan(0.95);
    expect(cover[1]).toBeLessThan(0.87);
  });

  it('robust: both of two wrong readings (+-1 mm) of nine found in 99 %, and 99 % efficient when none is wrong', () => {
    const rng = seededRng(5);
    const trials = TRIALS;
    let found = 0;
    let robustSquares = 0;
    let plainSquares = 0;
    for (let trial = 0; trial < trials; trial++) {
      const truth = mapOf(randomError(rng));
      const clean = observe(truth, NINE_SPOTS, 0.05, rng);
      const wrong = new Set([Math.floor(rng() * 18)]);
      while (wrong.size < 2) wrong.add(Math.floor(rng() * 18));
      const soiled = clean.map((o, i) => (wrong.has(i) ? { ...o, valueMm: o.valueMm + (rng() < 0.5 ? 1 : -1) } : o));
      const ids = must(fitErrorMap(soiled, { corners })).misfitIds;
      if ([...wrong].every((i) => ids.includes(clean[i]!.id))) found++;
      const error = (keepAll: boolean) => {
        const fit = must(fitErrorMap(clean, { corners, keepAll }));
        return (fit.beta[0]! - truth.tx) ** 2 + (fit.beta[1]! - truth.ty) ** 2;
      };
      robustSquares += error(false);
      plainSquares += error(true);
    }
    expect(found / trials).toBeGreaterThanOrEqual(0.99);
    expect(plainSquares / robustSquares).toBeGreaterThanOrEqual(0.99);
  });

  it('below five readings of an axis nothing is rejected', () => {
    const observations = observe(identity(), NINE_SPOTS.slice(0, 4), 0.05, seededRng(1)).filter(
      (o) => o.axis === 'across',
    );
    expect(misfits(observations.map((o, i) => (i === 1 ? { ...o, valueMm: 5 } : o)))).toEqual([]);
  });
});

it('chi-square of stated readings: 95 % of fits stay below the quantile', () => {
  const rng = seededRng(9);
  const trials = 1000;
  let below = 0;
  for (let trial = 0; trial < trials; trial++) {
    const fit = must(fitErrorMap(observe(identity(), NINE_SPOTS, 0.05, rng), { corners, keepAll: true }));
    if (fit.reducedChiSquare! * fit.residualDegrees < chiSquareQuantile(0.95, fit.residualDegrees)) below++;
  }
  expect(Math.abs(below / trials - 0.95)).toBeLessThan(0.025);
});

const quantiles = new Map<number, number>();
function studentQuantileOf(nu: number): number {
  const known = quantiles.get(nu) ?? studentQuantile(0.975, nu);
  quantiles.set(nu, known);
  return known;
}
