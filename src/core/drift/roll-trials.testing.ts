import { matrix } from '../math/qr';
import { standardNormal, type Rng } from '../math/random';
import type { StationSeries } from './slip-filter';

/** Standard deviation of one reading, and the way from one station to the next, of simulated strips. */
export const NOISE_MM = 0.04;
export const STEP_MM = 200;

export interface TrialStrip {
  readonly series: StationSeries;
  /** Shift, mm, and growth, mm a metre. */
  readonly coefficients: readonly [number, number];
  /** Standard deviation of the slip over one mm. */
  readonly slipSd: number;
}

/** One strip of so many stations whose slip over its length has so many times a reading's variance. */
export function trialStrip(rng: Rng, count: number, share: number): TrialStrip {
  const at = Float64Array.from({ length: count }, (_, i) => (i + 1) * STEP_MM);
  const slipSd = NOISE_MM * Math.sqrt(share / at.at(-1)!);
  const coefficients = [0.1 * standardNormal(rng), 0.1 * standardNormal(rng)] as const;
  let walk = 0;
  const valuesMm = at.map((s) => {
    walk += slipSd * Math.sqrt(STEP_MM) * standardNormal(rng);
    return coefficients[0] + (coefficients[1] * s) / 1000 + walk + NOISE_MM * standardNormal(rng);
  });
  const design = matrix(count, 2, (i, column) => (column === 0 ? 1 : at[i]! / 1000));
  return { series: { atMm: at, valuesMm, weights: new Float64Array(count).fill(1), design }, coefficients, slipSd };
}

const LOOKS = 400;

/** Whether a section of the same roll keeps a tolerance from its origin on, the drift that was found keyed in. */
export function isSectionKept(
  { coefficients, slipSd }: TrialStrip,
  keyedIn: Float64Array,
  { lengthMm, toleranceMm }: { readonly lengthMm: number; readonly toleranceMm: number },
  rng: Rng,
): boolean {
  const stepMm = lengthMm / LOOKS;
  let slip = 0;
  for (let i = 1; i <= LOOKS && lengthMm > 0; i++) {
    slip += slipSd * Math.sqrt(stepMm) * standardNormal(rng);
    const steady = coefficients[0] - keyedIn[0]! + ((coefficients[1] - keyedIn[1]!) * i * stepMm) / 1000;
    if (Math.abs(steady + slip) > toleranceMm) return false;
  }
  return true;
}

/** Whether a section between marks at both of its ends keeps a tolerance: what is steady between them is taken out, their own errors come in. */
export function isKeptBetweenMarks(
  { slipSd }: TrialStrip,
  markSdMm: number,
  { lengthMm, toleranceMm }: { readonly lengthMm: number; readonly toleranceMm: number },
  rng: Rng,
): boolean {
  const [first, last] = [markSdMm * standardNormal(rng), markSdMm * standardNormal(rng)];
  const slips = new Float64Array(LOOKS + 1);
  for (let i = 1; i <= LOOKS; i++)
    slips[i] = slips[i - 1]! + slipSd * Math.sqrt(lengthMm / LOOKS) * standardNormal(rng);
  return slips.every((slip, i) => {
    const share = i / LOOKS;
    return Math.abs(slip - share * slips[LOOKS]! - (1 - share) * first - share * last) <= toleranceMm;
  });
}
