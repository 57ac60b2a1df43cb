import { apply, cornersOf, displacement, inverseOf, then, type Affine, type Point } from '../geometry/affine';
import { fromParameters, type ErrorParameters } from '../geometry/error-parameters';
import { fitErrorMap } from '../fit/fit-error-map';
import { standardNormal, type Rng } from '../math/random';
import { fitMeasured, type Measured } from '../registration/rule-fit';
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
  /** Most that is lost at a change of direction: spots are then cut from either side in turn, and it is fitted out. */
  readonly backlashMm?: number;
  /** Standard deviation of a shift along that all readings of one load share: a scanner's lamp. */
  readonly sharedSdMm?: number;
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
  const lost = trial.backlashMm === undefined ? null : [0, 1].map(() => spread(rng, (trial.backlashMm ?? 0) / 2));
  const spots = trial.spots ?? REFERENCE_SPOTS;
  // As on a sheet of combs: corners across from each other from one side; a whole grid as on a chessboard.
  const sided = (i: number, axis: 0 | 1) => {
    const isOdd = spots === REFERENCE_SPOTS ? i % 2 === 1 : spots[i]!.x * spots[i]!.y > 0;
    const approach = isOdd ? -1 : 1;
    return lost ? ({ approach, offMm: approach * (lost[axis] ?? 0) } as const) : null;
  };
  return Array.from({ length: trial.loads }, (_, load) => {
    const actual = then(constant, loadNoise(trial.marks, trial.markSdMm, rng));
    const sharedMm = trial.sharedSdMm === undefined ? 0 : trial.sharedSdMm * standardNormal(rng);
    return spots.flatMap((at, i): Observation[] => {
      const q = apply(actual, at);
      const read = (axis: Observation['axis'], trueMm: number, side: ReturnType<typeof sided>): Observation => ({
        ...{ id: `${load} ${i} ${axis}`, axis, at, loadKey: `load ${load}` },
        valueMm: trueMm + (side?.offMm ?? 0) + trial.readingSdMm * standardNormal(rng),
        standardUncertaintyMm: trial.readingSdMm,
        ...(side && { approach: side.approach }),
      });
      return [read('across', q.x - at.x, sided(i, 0)), read('along', q.y - at.y + sharedMm, sided(i, 1))];
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

/**
 * By lengths alone: the four borders of a piece in the middle tell the shift; one width, one length and both diagonals
 * between the same points, once on the print and once on the cut, tell scales and squareness. No rotation.
 */
export function byLengths(constant: Affine, trial: Trial, rng: Rng): Outcome {
  const actual = then(constant, loadNoise(trial.marks, trial.markSdMm, rng));
  const [lowerLeft, lowerRight, upperRight, upperLeft] = cornersOf(150, 230) as [Point, Point, Point, Point];
  const measured = [
    [lowerLeft, lowerRight],
    [lowerLeft, upperLeft],
    [lowerLeft, upperRight],
    [upperLeft, lowerRight],
  ].map(([from, to], i): Measured => {
    const [a, b] = [apply(actual, from!), apply(actual, to!)];
    const standardUncertaintyMm = Math.SQRT2 * trial.readingSdMm;
    const valueMm = Math.hypot(b.x - a.x, b.y - a.y) + standardUncertaintyMm * standardNormal(rng);
    return { kind: 'distance', name: String(i), from: from!, to: to!, valueMm, standardUncertaintyMm };
  });
  const fit = fitMeasured(measured, WORK_CORNERS);
  if (!fit.ok) throw new Error(fit.error.kind);
  const d = displacement(actual, { x: 0, y: 0 });
  const read = (value: number): number => value + trial.readingSdMm * standardNormal(rng);
  const found: Affine = { ...fit.value.map, tx: read(d.x), ty: read(d.y) };
  return outcome(then(inverseOf(found), constant), trial, rng);
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
