import { seededRng, type Rng } from '../math/random';
import { isSectionKept, trialStrip } from './roll-trials.testing';
import { longestSection, steadyDrift, type SectionQuestion } from './section-length';
import { believeSlip, LEAST_SLIP_SHARE, MOST_SLIP_SHARE, SHARE_POWER, type SlipBelief } from './slip-belief';

const isLong = process.env.JEST_LONG === '1';

/** A roll of which everything is known: its slip over one mm, and nothing else. */
function knownRoll(slipSd: number): SlipBelief {
  const fit = {
    ...{ slipRatio: slipSd ** 2, coefficients: new Float64Array(2), inverseNormal: new Float64Array(4) },
    ...{ degrees: 1e7, noiseVariance: 1, logLikelihood: 0 },
    end: { atMm: 0, ofValues: 0, ofDesign: new Float64Array(2), variance: 0 },
  };
  return { stripMm: 1000, beliefs: [{ fit, weight: 1 }] };
}

const QUESTION: SectionQuestion = {
  registration: { kind: 'origin', originSdMm: 0 },
  toleranceMm: 0.3,
  confidence: 0.95,
  farthestMm: 4000,
  rowAt: (atMm) => [1, atMm / 1000],
  isCorrected: true,
};

describe('the longest section', () => {
  // 95 % of the largest size of a random walk is 2.241 of its last step's deviation (two-sided reflection), of one that
  // must come back 1.358 (Kolmogorov's distribution, 95 %).
  it('by its origin alone, slip alone: (tolerance / 2.24 sigma)^2', () => {
    const slipSd = 0.3 / 2.2414 / Math.sqrt(1000);
    const { longestMm, isLimited } = longestSection(knownRoll(slipSd), QUESTION);
    expect(isLimited).toBe(true);
    expect(Math.abs(longestMm / 1000 - 1)).toBeLessThan(0.12);
  });

  it('between marks: (tolerance / 1.36 sigma)^2, 2.7 times as long', () => {
    const slipSd = 0.3 / 1.3581 / Math.sqrt(1000);
    const { longestMm } = longestSection(knownRoll(slipSd), {
      ...QUESTION,
      registration: { kind: 'both-ends', markSdMm: 0 },
    });
    expect(Math.abs(longestMm / 1000 - 1)).toBeLessThan(0.12);
  });

  it('start marks turn the section: the farther apart they are, the longer it may be', () => {
    const lengths = [200, 400, 800].map(
      (apartMm) =>
        longestSection(knownRoll(1e-6), { ...QUESTION, registration: { kind: 'start-marks', apartMm, markSdMm: 0.03 } })
          .longestMm,
    );
    expect(lengths[0]!).toBeLessThan(lengths[1]!);
    expect(lengths[1]!).toBeLessThan(lengths[2]!);
  });

  it('nothing breaks it: as far as was looked, and said so; more slip than tolerance: none at all', () => {
    expect(longestSection(knownRoll(1e-7), QUESTION)).toEqual({ longestMm: 4000, isLimited: false });
    expect(longestSection(knownRoll(1), QUESTION).longestMm).toBe(0);
  });

  it('a steady drift that is not keyed in counts; keyed in it does not', () => {
    const roll = knownRoll(1e-7);
    const [known] = roll.beliefs;
    const drifting = {
      ...roll,
      beliefs: [{ ...known!, fit: { ...known!.fit, coefficients: Float64Array.of(0, 0.2) } }],
    };
    const unsplit = longestSection(drifting, { ...QUESTION, isCorrected: false });
    // 0.2 mm a metre reach 0.3 mm after 1.5 m.
    expect(unsplit.longestMm).toBeGreaterThan(1470);
    expect(unsplit.longestMm).toBeLessThan(1500);
    expect(longestSection(drifting, QUESTION).isLimited).toBe(false);
    expect([...steadyDrift(drifting)]).toEqual([0, 0.2]);
  });

  /** Shares as they are held for likely beforehand. */
  function likelyShare(rng: Rng): number {
    const [least, most] = [LEAST_SLIP_SHARE ** SHARE_POWER, MOST_SLIP_SHARE ** SHARE_POWER];
    return (least + rng() * (most - least)) ** (1 / SHARE_POWER);
  }

  const rolls = isLong ? 2000 : 200;
  it(`${rolls} rolls: a section as long as is said keeps the tolerance as often as is said`, () => {
    const rng = seededRng(11);
    let kept = 0;
    for (let trial = 0; trial < rolls; trial++) {
      const strip = trialStrip(rng, 40, likelyShare(rng));
      const belief = believeSlip(strip.series);
      if (!belief.ok) throw new Error(belief.error.kind);
      const { longestMm: lengthMm } = longestSection(belief.value, QUESTION, trial);
      const section = { lengthMm, toleranceMm: QUESTION.toleranceMm };
      if (isSectionKept(strip, steadyDrift(belief.value), section, rng)) kept++;
    }
    // 95 % less 1.5; few rolls scatter, and have three standard deviations on top.
    expect(kept / rolls).toBeGreaterThanOrEqual(0.935 - (isLong ? 0 : 3 * Math.sqrt((0.95 * 0.05) / rolls)));
  }, 900_000);
});
