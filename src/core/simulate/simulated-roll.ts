import { apply, type Affine, type Point } from '../geometry/affine';
import { standardNormal, type Rng } from '../math/random';
import type { Axis } from '../target/wedge';

/** What a stand-in roll machine does, hidden from whoever calibrates it. */
export interface RollTruth {
  readonly shiftAcrossMm: number;
  readonly shiftAlongMm: number;
  /** Growth of the cut against the print, mm a metre. */
  readonly feedMmPerMetre: number;
  readonly walkMmPerMetre: number;
  /** mm a metre and metre. */
  readonly bow: number;
  readonly turnRad: number;
  /** Standard deviation of the slip over one metre, mm. */
  readonly slipMm: number;
  /** Standard deviation of a shift of its own at every rewind, mm. */
  readonly rewindMm: number;
  /** Standard deviation of one reading by eye, mm. */
  readonly readingMm: number;
  /** Standard deviation of where one cut falls by itself, mm: all there is before a scan is measured. */
  readonly scatterMm: number;
}

/** One thing that is looked at: which way, and where, told from the leading edge and the middle of the roll. */
export interface RollPlace {
  readonly axis: Axis;
  readonly middle: Point;
  /** Put into a picture that is measured then, not read. */
  readonly isPictured?: boolean;
}

interface Slip {
  x: number;
  y: number;
  atMm: number;
}

const MM_PER_METRE = 1000;

/** Takes the slip on to a place further along the roll. */
function slipOn(slip: Slip, atMm: number, { slipMm }: RollTruth, rng: Rng): void {
  const sd = slipMm * Math.sqrt(Math.max(0, atMm - slip.atMm) / MM_PER_METRE);
  slip.x += sd * standardNormal(rng);
  slip.y += sd * standardNormal(rng);
  slip.atMm = Math.max(slip.atMm, atMm);
}

/** Where the cut of a place falls less the place itself: a roll that lies turned by theta drifts sideways by minus theta. */
function steadyAt(truth: RollTruth, { x, y }: Point): { readonly x: number; readonly y: number } {
  const metres = y / MM_PER_METRE;
  return {
    x:
      truth.shiftAcrossMm +
      (truth.walkMmPerMetre - MM_PER_METRE * truth.turnRad) * metres +
      (truth.bow * metres ** 2) / 2,
    y: truth.shiftAlongMm + truth.feedMmPerMetre * metres + truth.turnRad * x,
  };
}

/**
 * What a stand-in machine makes of a roll, and a stand-in reader of that: one value a place, the cut less the print.
 * @param places along the roll, the nearest to the leading edge first.
 * @param settings what was keyed in since the truth was told: it acts on where the cut would have fallen.
 */
export function standInReadings(
  places: readonly RollPlace[],
  truth: RollTruth,
  settings: Affine,
  rng: Rng,
): readonly number[] {
  const slip: Slip = { x: 0, y: 0, atMm: 0 };
  const rewind = { x: truth.rewindMm * standardNormal(rng), y: truth.rewindMm * standardNormal(rng) };
  return places.map(({ middle, axis, isPictured = false }) => {
    slipOn(slip, middle.y, truth, rng);
    const off = steadyAt(truth, middle);
    const cut = apply(settings, { x: middle.x + off.x, y: middle.y + off.y });
    const error = axis === 'across' ? cut.x - middle.x + slip.x + rewind.x : cut.y - middle.y + slip.y + rewind.y;
    return error + (isPictured ? truth.scatterMm : truth.readingMm) * standardNormal(rng);
  });
}
