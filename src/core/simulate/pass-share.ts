import { cornersOf, displacement, type Affine, type Point } from '../geometry/affine';
import { fitErrorMap } from '../fit/fit-error-map';
import { standardNormal, type Rng } from '../math/random';
import type { Observation } from '../reading/observation';
import { blockNamed } from '../target/block';
import type { SheetName } from '../units/sheet-size';
import type { CheckKind } from '../target/cells';
import { defineSheet } from '../target/sheet-definition';
import { AXES, figureToSheet, type Axis } from '../target/wedge';
import { verdictOf, worstCornerBounds } from '../verdict/bound';

/** Where one component is read. */
export interface ReadPlace {
  readonly axis: Axis;
  readonly at: Point;
}

/** Both components at each spot. */
export const bothAt = (spots: readonly Point[]): readonly ReadPlace[] =>
  spots.flatMap((at) => AXES.map((axis) => ({ axis, at })));

/** The middles of a shipped sheet's own figures, set 1. */
export function shippedPlaces(name: SheetName, checkKind: CheckKind): readonly ReadPlace[] {
  return defineSheet({ block: blockNamed(name), checkKind })
    .wedges.filter((w) => w.setNo === 1)
    .map((w) => ({ axis: w.axis, at: figureToSheet(w, { u: w.halfLengthMm, v: 0 }) }));
}

/** Corners of a shipped sheet's block. */
export function blockCorners(name: SheetName): readonly Point[] {
  const { widthMm, lengthMm } = blockNamed(name);
  return cornersOf(widthMm, lengthMm);
}

/** Error across that is `sizeMm` at the upper right corner, half of it in the middle and nothing at the lower left one. */
export function oneCornerOut(sizeMm: number, corner: Point): Affine {
  const quarter = sizeMm / 4;
  return { xx: 1 + quarter / corner.x, xy: quarter / corner.y, yx: 0, yy: 1, tx: sizeMm / 2, ty: 0 };
}

export interface PassTrial {
  readonly places: readonly ReadPlace[];
  readonly corners: readonly Point[];
  readonly truth: Affine;
  readonly readingSdMm: number;
  readonly toleranceMm: number;
  readonly trials: number;
}

/** Share of settings checks (no load noise, known reading SD) that pass for a true map. */
export function passShare(trial: PassTrial, rng: Rng): number {
  const { places, corners, truth, readingSdMm } = trial;
  let passes = 0;
  for (let i = 0; i < trial.trials; i++) {
    const observations = places.map(({ axis, at }, k): Observation => {
      const d = displacement(truth, at);
      const value = axis === 'across' ? d.x : d.y;
      return {
        id: String(k),
        axis,
        at,
        valueMm: value + readingSdMm * standardNormal(rng),
        standardUncertaintyMm: readingSdMm,
        loadKey: 'one',
      };
    });
    const fit = fitErrorMap(observations, { corners, keepAll: true });
    if (fit.ok && verdictOf(worstCornerBounds(fit.value, corners), trial.toleranceMm) === 'pass') passes++;
  }
  return passes / trial.trials;
}
