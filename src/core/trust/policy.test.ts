import fc from 'fast-check';
import { seededRng } from '../math/random';
import { cornersOf } from '../geometry/affine';
import { loadCovariance } from '../fit/load-noise';
import { normalDraws } from '../verdict/next-job';
import { forecastNow } from './forecast';
import { checkDue, checkSum, FIRST_POLICY, POLICY_KINDS, sumWords, type Policy, type PolicyFacts } from './policy';

const facts = (changes: Partial<PolicyFacts> = {}): PolicyFacts => ({
  ...{ daysSince: 3, jobsSince: 2, events: [], costlyJobs: [], outNow: 0.04, outAfter: 0.03 },
  ...changes,
});
const policy = (changes: Partial<Policy>): Policy => ({ ...FIRST_POLICY, ...changes });

describe('when to check again', () => {
  it('by evidence: when jobs to come, times what a check takes off their risk, cost more than the check', () => {
    const wrong = facts({ outNow: 0.23, outAfter: 0.04 });
    const sum = checkSum(FIRST_POLICY, wrong);
    expect(sum.saved).toBeCloseTo(5 * 0.19 * 20, 12);
    expect(checkDue(FIRST_POLICY, wrong).isDue).toBe(true);
    expect(checkDue(policy({ checkCost: 19.01 }), wrong).isDue).toBe(false);
    expect(checkDue(FIRST_POLICY, facts()).isDue).toBe(false);
    expect(sumWords(sum)).toBe(
      '5 jobs to come \u00d7 (23 % out now \u2212 4 % after a check) \u00d7 20 a spoiled job = 19; a check takes 5',
    );
  });
  it('figures to begin with (common practice, no published source)', () => {
    expect(FIRST_POLICY.spoilCost / FIRST_POLICY.checkCost).toBe(4);
  });
  it.each([
    ['events', facts({ events: ['machine was moved'] }), 'machine was moved'],
    ['days', facts({ daysSince: 30 }), '30 days since, every 30 is asked'],
    ['days', facts({ events: ['new blade or holder'] }), 'new blade or holder'],
    ['jobs', facts({ jobsSince: 21 }), '21 jobs since, every 20 is asked'],
    ['costly', facts({ costlyJobs: ['Strip 14'] }), 'before Strip 14'],
  ] as const)('%s: due, with the reason', (kind, known, reason) => {
    expect(checkDue(policy({ kind }), known)).toMatchObject({ isDue: true, reason });
  });
  it.each([
    ['events', 'nothing happened since'],
    ['days', 'in 27 days'],
    ['jobs', 'in 18 jobs'],
    ['costly', 'no costly job waits'],
  ] as const)('%s: not due, with what would make it so', (kind, reason) => {
    expect(checkDue(policy({ kind }), facts())).toMatchObject({ isDue: false, reason });
  });
  it('more risk, more jobs or dearer work never makes a check less due (property)', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom(...POLICY_KINDS),
        share,
        share,
        fc.integer({ min: 1, max: 50 }),
        (kind, a, b, jobsAhead) => {
          const [less, more] = a < b ? [a, b] : [b, a];
          const at = (outNow: number, jobs: number) =>
            checkDue(policy({ kind, jobsAhead: jobs }), facts({ outNow, outAfter: 0.02 }));
          expect(Number(at(more, jobsAhead + 1).isDue)).toBeGreaterThanOrEqual(Number(at(less, jobsAhead).isDue));
        },
      ),
    );
  });
});

describe('the next job, now', () => {
  const corners = cornersOf(180, 260);
  const input = {
    ...{ beta: [0.05, -0.02, 0, 0, 0, 0], toleranceMm: 0.3, corners },
    covariance: loadCovariance(corners, 0.02),
    loadCovariance: loadCovariance(corners, 0.05),
  };
  const at = (acrossMm: number, sdMm: number) =>
    forecastNow(input, { acrossMm, alongMm: 0, sdMm }, normalDraws(seededRng(1)));
  it('is what was confirmed while nothing has passed, and grows with the doubt', () => {
    expect(at(0, 0.05).q95Mm).toBeGreaterThan(at(0, 0).q95Mm);
    expect(at(0, 0.3).outShare).toBeGreaterThan(at(0, 0.1).outShare);
    expect(at(0, 0).outShare).toBeLessThan(0.05);
  });
  it('a doubt that outweighs everything: one corner like another, Rayleigh (from memory)', () => {
    // sqrt(-2 ln .05) = 2.4477 SDs hold 95 of 100 of a shift that is alike in both directions.
    const wide = forecastNow(
      { ...input, beta: [0, 0, 0, 0, 0, 0] },
      { acrossMm: 0, alongMm: 0, sdMm: 10 },
      normalDraws(seededRng(2)),
    );
    expect(wide.q95Mm / 10).toBeGreaterThan(0.96 * 2.4477);
    expect(wide.q95Mm / 10).toBeLessThan(1.05 * 2.4477);
  });
  it('a daily check that saw it shifted moves it along', () => {
    expect(at(0.4, 0.01).outShare).toBeGreaterThan(0.95);
  });
});
