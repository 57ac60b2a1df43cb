import { apply, cornersOf, displacement, inverseOf, then, type Affine, type Point } from '../geometry/affine';
import { fromParameters, type ErrorParameters } from '../geometry/error-parameters';
import { fitErrorMap } from '../fit/fit-error-map';
import { standardNormal, type Rng } from '../math/random';
import type { Observation } from '../reading/observation';
import { loadNoise } from './simulated-load';

/** One way of working to be compared: how many loads are read, what the marks do, how well one reads. */
export interface Trial {
  readonly loads: number;
  readonly markSdMm: number;
  readonly marks: readonly Point[];
  readonly readingSdMm: number;
  /** Where is read; the nine reference spots when absent. */
  readonly spots?: readonly Point[];
}

export interface Outcome {
  /** Worst corner of the true constant error after correction. */
  readonly remainingMm: number;
  /** Worst corner of the next job: the same with a fresh load. */
  readonly nextJobMm: number;
}

export const WORK_CORNERS: readonly Point[] = cornersOf(180, 260);
export const FOUR_MARKS: readonly Point[] = WORK_CORNERS;
export const THREE_MARKS: readonly Point[] = WORK_CORNERS.slice(0, 3);
/** Corners and middle, as a quick check has them. */
export const FIVE_SPOTS: readonly Point[] = [
  ...[-75, 75].flatMap((x) => [-115, 115].map((y) => ({ x, y }))),
  { x: 0, y: 0 },
];
export const REFERENCE_SPOTS: readonly Point[] = [-75, 0, 75].flatMap((x) => [-115, 0, 115].map((y) => ({ x, y })));

const spread = (rng: Rng, half: number): number => (2 * rng() - 1) * half;

/** A setup as found: offset within 8 mm, rotation 3 mrad, scale 0.5 %, squareness 3 mrad, all uniform. */
export function foundSetup(rng: Rng): ErrorParameters {
  const radius = 8 * Math.sqrt(rng());
  const angle = 2 * Math.PI * rng();
  return {
    offsetAcrossMm: radius * Math.cos(angle),
    offsetAlongMm: radius * Math.sin(angle),
    rotationRad: spread(rng, 0.003),
    scaleAcross: spread(rng, 0.005),
    scaleAlong: spread(rng, 0.005),
    squareness: spread(rng, 0.003),
  };
}

const worst = (map: Affine): number =>
  Math.max(
    ...WORK_CORNERS.map((p) => {
      const d = displacement(map, p);
      return Math.hypot(d.x, d.y);
    }),
  );

function outcome(after: Affine, trial: Trial, rng: Rng): Outcome {
  return { remainingMm: worst(after), nextJobMm: worst(then(after, loadNoise(trial.marks, trial.markSdMm, rng))) };
}

function readings(constant: Affine, trial: Trial, rng: Rng): Observation[] {
  return Array.from({ length: trial.loads }, (_, load) => {
    const actual = then(constant, loadNoise(trial.marks, trial.markSdMm, rng));
    return (trial.spots ?? REFERENCE_SPOTS).flatMap((at, i): Observation[] => {
      const q = apply(actual, at);
      const base = { at, standardUncertaintyMm: trial.readingSdMm, loadKey: `load ${load}` };
      return [
        {
          ...base,
          id: `${load} ${i} across`,
          axis: 'across',
          valueMm: q.x - at.x + trial.readingSdMm * standardNormal(rng),
        },
        {
          ...base,
          id: `${load} ${i} along`,
          axis: 'along',
          valueMm: q.y - at.y + trial.readingSdMm * standardNormal(rng),
        },
      ];
    });
  }).flat();
}

/** Spots on each load, one fit, and the exact correction of the file or of settings that reach everything. */
export function byMap(constant: Affine, trial: Trial, rng: Rng): Outcome {
  const fit = fitErrorMap(readings(constant, trial, rng), { keepAll: true, corners: WORK_CORNERS });
  if (!fit.ok) throw new Error(fit.error.kind);
  return outcome(then(inverseOf(fit.value.map), constant), trial, rng);
}

/** By hand with a ladder: one number an axis read at the middle, to a tenth of a mm, keyed in as an offset. */
export function byLadder(constant: Affine, trial: Trial, rng: Rng): Outcome {
  const actual = then(constant, loadNoise(trial.marks, trial.markSdMm, rng));
  const d = displacement(actual, { x: 0, y: 0 });
  const read = (value: number): number => Math.round((value + trial.readingSdMm * standardNormal(rng)) * 10) / 10;
  const shift: Affine = { xx: 1, xy: 0, yx: 0, yy: 1, tx: -read(d.x), ty: -read(d.y) };
  return outcome(then(constant, shift), trial, rng);
}

/** By the four borders of one finished piece in the middle: a shift, keyed in as it was measured. */
export function byBorders(constant: Affine, trial: Trial, rng: Rng): Outcome {
  const actual = then(constant, loadNoise(trial.marks, trial.markSdMm, rng));
  const d = displacement(actual, { x: 0, y: 0 });
  const read = (value: number): number => value + trial.readingSdMm * standardNormal(rng);
  return outcome(then(constant, { xx: 1, xy: 0, yx: 0, yy: 1, tx: -read(d.x), ty: -read(d.y) }), trial, rng);
}

/** By hand with look and nudge: each new load, the offset is changed by what one corner seems to be out, to a tenth. */
export function byNudge(constant: Affine, trial: Trial, rng: Rng): Outcome {
  let after = constant;
  for (let load = 0; load < trial.loads; load++) {
    const actual = then(after, loadNoise(trial.marks, trial.markSdMm, rng));
    const d = displacement(actual, { x: -75, y: -115 });
    const seen = (value: number): number => Math.round((value + 2 * trial.readingSdMm * standardNormal(rng)) * 10) / 10;
    after = then(after, { xx: 1, xy: 0, yx: 0, yy: 1, tx: -seen(d.x), ty: -seen(d.y) });
  }
  return outcome(after, trial, rng);
}

/** A planner who knows the constant part: only the fresh load is left. */
export const knowing = (trial: Trial, rng: Rng): Outcome =>
  outcome({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 }, trial, rng);

/** Runs one way of working on many setups. */
export function manySetups(
  count: number,
  trial: Trial,
  rng: Rng,
  way: (constant: Affine, trial: Trial, rng: Rng) => Outcome,
): readonly Outcome[] {
  return Array.from({ length: count }, () => way(fromParameters(foundSetup(rng)), trial, rng));
}

/** The share-quantile by rank, the nearest above. */
export function quantileOf(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}
