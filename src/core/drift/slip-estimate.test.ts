import { matrix } from '../math/qr';
import { seededRng, standardNormal } from '../math/random';
import { estimateSlip } from './slip-estimate';
import { fitSlip, type StationSeries } from './slip-filter';

const NOISE_MM = 0.05;
const STEP_MM = 250;

function stations(seed: number, count: number, slipMm: number): StationSeries {
  const rng = seededRng(seed);
  const at = Float64Array.from({ length: count }, (_, i) => (i + 1) * STEP_MM);
  let walk = 0;
  const valuesMm = at.map((s) => {
    walk += slipMm * Math.sqrt(STEP_MM / 1000) * standardNormal(rng);
    return 0.2 + (0.1 * s) / 1000 + walk + NOISE_MM * standardNormal(rng);
  });
  const design = matrix(count, 2, (i, column) => (column === 0 ? 1 : at[i]! / 1000));
  return { atMm: at, valuesMm, weights: new Float64Array(count).fill(1), design };
}

function estimated(seed: number, count: number, slipMm: number) {
  const told = estimateSlip(stations(seed, count, slipMm));
  if (!told.ok) throw new Error(told.error.kind);
  return told.value;
}

describe('the likeliest slip', () => {
  it('of a long strip is near the true one, and so is the noise', () => {
    const { slipMm, fit } = estimated(1, 2000, 0.1);
    expect(Math.abs(slipMm / 0.1 - 1)).toBeLessThan(0.1);
    expect(Math.abs(Math.sqrt(fit.noiseVariance) / NOISE_MM - 1)).toBeLessThan(0.06);
  });

  it('is a summit: no ratio beside it is likelier', () => {
    const { fit } = estimated(2, 60, 0.1);
    for (const times of [0.5, 0.9, 0.99, 1.01, 1.1, 2]) {
      const beside = fitSlip(stations(2, 60, 0.1), fit.slipRatio * times);
      expect(beside.ok && beside.value.logLikelihood).toBeLessThan(fit.logLikelihood);
    }
  });

  it('where there is none, an upper bound is said and never "none"; it shrinks with the strip', () => {
    const [short, long] = [estimated(3, 20, 0), estimated(3, 400, 0)];
    expect(short.slipUpperMm).toBeGreaterThan(0);
    expect(long.slipUpperMm).toBeGreaterThan(0);
    expect(long.slipUpperMm).toBeLessThan(short.slipUpperMm);
  });

  it('the bound holds in about 95 of 100 strips', () => {
    let held = 0;
    for (let seed = 1; seed <= 200; seed++) if (estimated(seed, 40, 0.1).slipUpperMm > 0.1) held++;
    expect(held).toBeGreaterThan(180);
    expect(held).toBeLessThan(200);
  });
});
