import { matrix } from '../math/qr';
import { seededRng, standardNormal, type Rng } from '../math/random';
import {
  believeSlip,
  foretellError,
  foretoldMean,
  foretoldProbability,
  foretoldQuantile,
  LEAST_SLIP_SHARE,
  MOST_SLIP_SHARE,
  SHARE_POWER,
  tellSteady,
} from './slip-belief';
import type { StationSeries } from './slip-filter';

const isLong = process.env.JEST_LONG === '1';
const NOISE_MM = 0.05;
const STEP_MM = 250;

interface Roll {
  readonly series: StationSeries;
  /** What a cut at a place beyond the last station is off by. */
  readonly errorAt: (atMm: number) => number;
}

const row = (atMm: number): readonly number[] => [1, atMm / 1000];

/** Stations of a roll with a shift and a slope, and a slip of so much over the strip, as variance over a reading's. */
function roll(rng: Rng, count: number, share: number): Roll {
  const at = Float64Array.from({ length: count }, (_, i) => (i + 1) * STEP_MM);
  const stripMm = at.at(-1)!;
  const slipSd = NOISE_MM * Math.sqrt(share / stripMm);
  const [shift, slope] = [0.3 * standardNormal(rng), 0.2 * standardNormal(rng)];
  let walk = 0;
  const values = at.map((s) => {
    walk += slipSd * Math.sqrt(STEP_MM) * standardNormal(rng);
    return shift + (slope * s) / 1000 + walk + NOISE_MM * standardNormal(rng);
  });
  const weights = new Float64Array(count).fill(1);
  const design = matrix(count, 2, (i, column) => row(at[i]!)[column]!);
  return {
    series: { atMm: at, valuesMm: values, weights, design },
    errorAt: (s) => shift + (slope * s) / 1000 + walk + slipSd * Math.sqrt(s - stripMm) * standardNormal(rng),
  };
}

/** How often the true error at half as far again lies within the 95 % interval. */
function coverOf(trials: number, count: number, shareOf: (rng: Rng) => number, seed: number): number {
  const rng = seededRng(seed);
  let held = 0;
  for (let trial = 0; trial < trials; trial++) {
    const { series, errorAt } = roll(rng, count, shareOf(rng));
    const belief = believeSlip(series);
    if (!belief.ok) throw new Error(belief.error.kind);
    const at = 1.5 * belief.value.stripMm;
    const below = foretoldProbability(foretellError(belief.value, at, row(at)), errorAt(at));
    if (below > 0.025 && below < 0.975) held++;
  }
  return (100 * held) / trials;
}

/** As likely as is held for likely beforehand. */
function ofPrior(rng: Rng): number {
  const [least, most] = [LEAST_SLIP_SHARE ** SHARE_POWER, MOST_SLIP_SHARE ** SHARE_POWER];
  return (least + rng() * (most - least)) ** (1 / SHARE_POWER);
}

describe('what stations tell of a roll', () => {
  it.each([20, 40])(
    '%i stations: the error half as far again is foretold as often as is said, over the prior',
    (count) => {
      const cover = coverOf(isLong ? 20_000 : 2000, count, ofPrior, count);
      const [least, most] = isLong ? [93.5, 96.5] : [93, 97];
      expect(cover).toBeGreaterThan(least);
      expect(cover).toBeLessThan(most);
    },
    600_000,
  );

  it.each([3, 10, 100, 1000])(
    'forty stations, slip fixed at %d of a reading\u2019s variance over the strip',
    (share) => {
      const cover = coverOf(isLong ? 10_000 : 1000, 40, () => share, 7);
      expect(cover).toBeGreaterThan(90);
      expect(cover).toBeLessThan(isLong ? 98 : 98.6);
    },
    600_000,
  );

  it.each([0, 0.1, 1])(
    'forty stations, a slip too small to be seen (%d): said with more care than needed, never less',
    (share) => {
      expect(coverOf(isLong ? 10_000 : 1000, 40, () => share, 7)).toBeGreaterThan(95);
    },
    600_000,
  );

  it('the quantile is where the probability is, and intervals of the slope hold its truth', () => {
    const rng = seededRng(3);
    let held = 0;
    for (let trial = 0; trial < 400; trial++) {
      const { series, errorAt } = roll(rng, 30, 1);
      const belief = believeSlip(series);
      if (!belief.ok) throw new Error(belief.error.kind);
      const told = foretellError(belief.value, 9000, row(9000));
      if (trial < 20)
        for (const p of [0.025, 0.5, 0.9])
          expect(foretoldProbability(told, foretoldQuantile(told, p))).toBeCloseTo(p, 9);
      // Slope by two true errors far beyond the strip, where the slip no longer counts.
      const slope = (errorAt(1e9) - errorAt(0.5e9)) / 0.5e6;
      const below = foretoldProbability(tellSteady(belief.value, [0, 1]), slope);
      if (below > 0.025 && below < 0.975) held++;
      expect(Number.isFinite(foretoldMean(told))).toBe(true);
    }
    expect(held / 400).toBeGreaterThan(0.9);
  });
});
