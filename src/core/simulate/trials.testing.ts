import { apply, cornersOf, type Affine, type Point } from '../geometry/affine';
import { fromParameters, type ErrorParameters } from '../geometry/error-parameters';
import type { Load } from '../geometry/load';
import { betaOf } from '../fit/design';
import { fitReadings } from '../fit/fit-readings';
import { studentQuantile } from '../math/quantile';
import { seededRng, standardNormal, type Rng } from '../math/random';
import {
  rimDisplacement,
  type CombReading,
  type FigureReading,
  type Observation,
  type RoundReading,
  type WedgeReading,
} from '../reading/observation';
import { circleAbout, LIFT_OFF_RING_OUTER_MM, liftOffCut } from '../target/lift-off';
import { combAnswers, combCuts, nearestAnswer } from '../target/comb';
import { readCombPicture, readWalls, readWedgePicture } from './read-picture';
import type { SheetDefinition } from '../target/sheet-definition';
import { AXES, cutStrip, figureToSheet, READING_STEP_MM } from '../target/wedge';

export const PLAIN_LOAD: Load = { turnDeg: 0, face: 'ink-up' };

export const IS_LONG = process.env.JEST_LONG === '1';
/** Trials and limits of the acceptance table: 20,000 in the long run, 2,000 in the short one. */
export const TRIALS = IS_LONG ? 20000 : 2000;

/** Nine spots at (0, +-75) x (0, +-115) and corners at (+-90, +-130): the layout that the acceptance figures refer to. */
export const NINE_SPOTS: readonly Point[] = [-75, 0, 75].flatMap((x) => [-115, 0, 115].map((y) => ({ x, y })));
export const REFERENCE_CORNERS: readonly Point[] = cornersOf(180, 260);

export const uniform = (rng: Rng, half: number): number => (2 * rng() - 1) * half;

export function randomError(rng: Rng, size = 1): ErrorParameters {
  return {
    offsetAcrossMm: uniform(rng, 0.5 * size),
    offsetAlongMm: uniform(rng, 0.5 * size),
    rotationRad: uniform(rng, 0.003),
    scaleAcross: uniform(rng, 0.005),
    scaleAlong: uniform(rng, 0.005),
    squareness: uniform(rng, 0.003),
  };
}

/** Both components of a map's error at each spot, with normal reading noise. */
export function observe(map: Affine, spots: readonly Point[], sd: number, rng: Rng): Observation[] {
  return spots.flatMap((at, i) => {
    const q = apply(map, at);
    const make = (axis: 'across' | 'along', value: number): Observation => ({
      id: `${i}-${axis}`,
      axis,
      at,
      valueMm: value + sd * standardNormal(rng),
      standardUncertaintyMm: sd,
      loadKey: 'one',
    });
    return [make('across', q.x - at.x), make('along', q.y - at.y)];
  });
}

/** Reads every wedge of a set off the drawing that a cut map makes of it, with eye noise and rounding to the entered step. */
export function readSet(
  definition: SheetDefinition,
  setNo: 1 | 2,
  cut: Affine,
  eye: { readonly sdMm: number; readonly rng: Rng; readonly shift?: Point; readonly load?: Load },
): WedgeReading[] {
  const shift = eye.shift ?? { x: 0, y: 0 };
  return definition.wedges.flatMap((w): WedgeReading[] => {
    if (w.setNo !== setNo) return [];
    const strip = cutStrip(w.halfLengthMm).map((p) => {
      const nominal = figureToSheet(w, p);
      return apply(cut, { x: nominal.x + shift.x, y: nominal.y + shift.y });
    });
    const seen = readWedgePicture(w, strip);
    if (seen === null) return [];
    const entered = Math.round((seen + eye.sdMm * standardNormal(eye.rng)) / READING_STEP_MM) * READING_STEP_MM;
    const standardUncertaintyMm = Math.hypot(READING_STEP_MM / Math.sqrt(12), eye.sdMm);
    return [
      {
        kind: 'wedge',
        id: `${w.setNo}-${w.spotNo}-${w.axis}`,
        place: w,
        readingMm: eye.sdMm === 0 ? seen : entered,
        standardUncertaintyMm,
        loadKey: `set ${setNo}`,
        load: eye.load ?? PLAIN_LOAD,
        fileShift: shift,
      },
    ];
  });
}

interface Eye {
  readonly sdMm: number;
  readonly rng: Rng;
  readonly uncertaintyMm: number;
}

/** Reads every comb off the strokes that a cut map makes, each coming from its side; half of what is lost there is `backlash`. */
export function readCombSet(
  definition: SheetDefinition,
  cut: Affine,
  eye: Eye & { readonly backlash?: Point; readonly load?: Load },
): CombReading[] {
  // A machine's own axes: on a sheet loaded across them, what is lost across the feed shows along the sheet.
  const { x, y } = eye.backlash ?? { x: 0, y: 0 };
  const isAcross = eye.load !== undefined && eye.load.turnDeg % 180 !== 0;
  const lost = isAcross ? { x: y, y: x } : { x, y };
  return definition.combs.flatMap((place): CombReading[] => {
    const off = {
      x: place.axis === 'across' ? place.approach * lost.x : 0,
      y: place.axis === 'along' ? place.approach * lost.y : 0,
    };
    const strokes = combCuts(place).map((stroke) =>
      stroke.map((p) => {
        const q = apply(cut, p);
        return { x: q.x + off.x, y: q.y + off.y };
      }),
    );
    const seen = readCombPicture(place, strokes);
    if (seen === null) return [];
    return [
      {
        kind: 'comb',
        id: `${place.spotNo}-${place.axis}`,
        place,
        readingMm: nearestAnswer(combAnswers(place), seen + eye.sdMm * standardNormal(eye.rng)).readingMm,
        standardUncertaintyMm: eye.uncertaintyMm,
        loadKey: 'one',
        load: eye.load ?? PLAIN_LOAD,
        fileShift: { x: 0, y: 0 },
      },
    ];
  });
}

/** One component of a round figure as it is written down: with noise, to the entered step. */
function roundReading(
  kind: RoundReading['kind'],
  figure: { readonly spotNo: number; readonly centre: Point },
  axis: RoundReading['axis'],
  { sdMm, rng, uncertaintyMm, trueMm }: Eye & { readonly trueMm: number },
): RoundReading {
  const seen = trueMm + sdMm * standardNormal(rng);
  return {
    ...{ kind, axis, id: `${figure.spotNo} ${axis}`, centre: figure.centre },
    readingMm: Math.round(seen / READING_STEP_MM) * READING_STEP_MM,
    standardUncertaintyMm: uncertaintyMm,
    loadKey: 'one',
    load: PLAIN_LOAD,
    fileShift: { x: 0, y: 0 },
  };
}

/** Measures opposite walls of every disc of a set that a cut map makes, with noise and the entered step. */
export function readWallSet(definition: SheetDefinition, setNo: 1 | 2, cut: Affine, eye: Eye): RoundReading[] {
  return definition.discs.flatMap((disc): RoundReading[] => {
    if (disc.setNo !== setNo) return [];
    const seen = readWalls(
      disc,
      circleAbout(disc.centre, disc.holeRadiusMm).map((p) => apply(cut, p)),
    );
    if (seen === null) return [];
    return AXES.map((axis) =>
      roundReading('wall', disc, axis, { ...eye, trueMm: axis === 'across' ? seen.x : seen.y }),
    );
  });
}

/**
 * Measures every disc of a set in one scan: each with noise of its own, all shifted alike along the travel by a shadow of
 * which only the usual size is known.
 */
export function readScanSet(
  definition: SheetDefinition,
  setNo: 1 | 2,
  cut: Affine,
  {
    sdMm,
    rng,
    shadowSdMm,
    travelRad,
  }: Pick<Eye, 'sdMm' | 'rng'> & { readonly shadowSdMm: number; readonly travelRad: number },
): RoundReading[] {
  const shadowMm = shadowSdMm * standardNormal(rng);
  const travel = { across: Math.cos(travelRad), along: Math.sin(travelRad) };
  return definition.discs
    .filter((disc) => disc.setNo === setNo)
    .flatMap((disc) => {
      const hole = apply(cut, disc.centre);
      const off = { across: hole.x - disc.centre.x, along: hole.y - disc.centre.y };
      return AXES.map((axis): RoundReading => ({
        ...{ kind: 'scan', axis, id: `${disc.spotNo} ${axis}`, centre: disc.centre },
        readingMm: off[axis] + shadowMm * travel[axis] + sdMm * standardNormal(rng),
        standardUncertaintyMm: sdMm,
        shared: { key: 'scan', mm: shadowSdMm * travel[axis] },
        loadKey: 'one',
        load: PLAIN_LOAD,
        fileShift: { x: 0, y: 0 },
      }));
    });
}

export const mapOf = (parameters: ErrorParameters): Affine => fromParameters(parameters);

/** Measures both pairs of opposite rims of every lift-off disc that a cut map makes, with eye noise and the entered step. */
export function readRimSet(definition: SheetDefinition, cut: Affine, eye: Eye): RoundReading[] {
  return definition.liftOffs.flatMap((figure) => {
    const edge = liftOffCut(figure).map((p) => apply(cut, p));
    return AXES.map((axis) => {
      const component = axis === 'across' ? 'x' : 'y';
      const from = edge.map((p) => p[component] - figure.centre[component]);
      const rims = [-Math.min(...from), Math.max(...from)].map((reach) => reach - LIFT_OFF_RING_OUTER_MM);
      return roundReading('rim', figure, axis, { ...eye, trueMm: rimDisplacement(rims[0]!, rims[1]!) });
    });
  });
}

/** Shares of trials in which each parameter's 95 % interval holds the truth, reading noise only. */
export function coverOf(
  seed: number,
  trials: number,
  draw: (rng: Rng) => ErrorParameters,
  read: (truth: Affine, rng: Rng) => readonly FigureReading[],
): readonly number[] {
  const rng = seededRng(seed);
  const hits = [0, 0, 0, 0, 0, 0];
  const t = studentQuantile(0.975, Infinity);
  for (let trial = 0; trial < trials; trial++) {
    const truth = fromParameters(draw(rng));
    const fit = fitReadings(read(truth, rng), PLAIN_LOAD);
    if (!fit.ok) throw new Error(fit.error.kind);
    betaOf(truth).forEach((b, i) => {
      if (Math.abs(fit.value.beta[i]! - b) <= t * Math.sqrt(fit.value.covariance[i * 7]!)) hits[i]!++;
    });
  }
  return hits.map((h) => h / trials);
}
