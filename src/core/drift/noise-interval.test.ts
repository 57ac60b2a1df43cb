import { chiSquareQuantile } from '../math/quantile';
import { seededRng } from '../math/random';
import { noiseInterval } from './noise-interval';
import { NOISE_MM, trialStrip } from './roll-trials.testing';
import { believeSlip } from './slip-belief';

describe('one reading\u2019s own scatter', () => {
  it.each([
    [40, 0.1],
    [40, 10],
    [20, 1],
  ])(
    '%i stations, slip %p times a reading\u2019s variance: the interval holds the true one 95 times of 100',
    (stations, share) => {
      const rng = seededRng(100 * stations + share);
      const rolls = 300;
      let held = 0;
      for (let i = 0; i < rolls; i++) {
        const belief = believeSlip(trialStrip(rng, stations, share).series);
        if (!belief.ok) throw new Error(belief.error.kind);
        const { lowMm, highMm } = noiseInterval(belief.value);
        if (lowMm <= NOISE_MM && NOISE_MM <= highMm) held++;
      }
      // Three standard deviations of so few rolls.
      expect(held / rolls).toBeGreaterThan(0.95 - 0.045);
    },
  );

  it('is the chi-square interval where the ratio is known', () => {
    const belief = believeSlip(trialStrip(seededRng(1), 40, 1).series);
    if (!belief.ok) throw new Error(belief.error.kind);
    const [one] = belief.value.beliefs;
    const { lowMm, highMm } = noiseInterval({ beliefs: [{ ...one!, weight: 1 }] });
    const { noiseVariance, degrees } = one!.fit;
    const limit = (p: number): number => Math.sqrt((noiseVariance * degrees) / chiSquareQuantile(p, degrees));
    expect(lowMm).toBeCloseTo(limit(0.975), 3);
    expect(highMm).toBeCloseTo(limit(0.025), 3);
  });
});
