import nile from '../../../test-data/worked/nile_local_level.json';
import { seededRng, standardNormal, type Rng } from '../math/random';
import { assumedJumpMm, DOUBTFUL_KINDS } from './event-doubt';
import { ASSUMED_WANDER_MM, learnWander, shiftSince, wanderLikelihood, type ShiftLook } from './wander';

const look = (day: number, mm: number, changes: Partial<ShiftLook> = {}): ShiftLook => ({
  ...{ day, acrossMm: mm, alongMm: mm, varianceMm2: 0.0004, events: [], isFresh: false },
  ...changes,
});

describe('likelihood of a wander, against the Nile example of Durbin and Koopman', () => {
  const looks = nile.data.map((v, day) =>
    look(day, v, { varianceMm2: nile.recomputed.sigma2_eps, isFresh: day === 0 }),
  );
  const at = (perDay: number): number => wanderLikelihood(looks, perDay, () => 0) / 2;
  it('is theirs to every digit', () => {
    const constant = ((nile.data.length - 1) / 2) * Math.log(2 * Math.PI);
    expect(at(nile.recomputed.sigma2_eta) - constant).toBeCloseTo(nile.recomputed.diffuse_loglik_n_minus_1, 8);
  });
  it('is largest at their variance', () => {
    const top = at(nile.recomputed.sigma2_eta);
    expect(at(0.97 * nile.recomputed.sigma2_eta)).toBeLessThan(top);
    expect(at(1.03 * nile.recomputed.sigma2_eta)).toBeLessThan(top);
  });
});

/** Looks at a shift that wanders and jumps at events, and where it is ten days after the last of them. */
function history(
  rng: Rng,
  sd: { readonly wander: number; readonly noise: number; readonly jump: number },
  count: number,
) {
  const looks: ShiftLook[] = [];
  let [x, y, day] = [0, 0, 0];
  const walk = (days: number, events: number): void => {
    const step = Math.sqrt(sd.wander ** 2 * days + sd.jump ** 2 * events);
    x += step * standardNormal(rng);
    y += step * standardNormal(rng);
    day += days;
  };
  for (let i = 0; i < count; i++) {
    const events = rng() < 0.15 ? ['new_blade'] : [];
    walk(1 + Math.floor(6 * rng()), events.length);
    const [acrossMm, alongMm] = [x + sd.noise * standardNormal(rng), y + sd.noise * standardNormal(rng)];
    looks.push({ day, acrossMm, alongMm, varianceMm2: sd.noise ** 2, events, isFresh: i === 0 });
  }
  walk(10, 0);
  return { looks, x, y, day };
}

describe('what a setup’s own record says of its wander', () => {
  it('with nothing known it is what is assumed (common practice, no published source)', () => {
    const wander = learnWander([]);
    expect([wander.perRootDayMm, wander.pairs]).toEqual([ASSUMED_WANDER_MM, 0]);
    for (const kind of DOUBTFUL_KINDS) expect(wander.jumpMm(kind)).toBeCloseTo(assumedJumpMm(kind), 12);
    expect(assumedJumpMm('moved')).toBe(0.3);
  });
  it.each([0.004, 0.02, 0.06])('finds a wander of %p mm a root day from 300 looks within a quarter', (wander) => {
    const { looks } = history(seededRng(8), { wander, noise: 0.03, jump: 0.08 }, 300);
    expect(Math.abs(Math.log(learnWander(looks).perRootDayMm / wander))).toBeLessThan(0.25);
  });
  it('finds how far a new blade moves this setup’s cut, nearer the more were seen', () => {
    const jumpAfter = (count: number): number =>
      learnWander(history(seededRng(2), { wander: 0.01, noise: 0.02, jump: 0.25 }, count).looks).jumpMm('new_blade');
    expect(Math.abs(jumpAfter(600) - 0.25)).toBeLessThan(0.03);
    expect(jumpAfter(5)).toBeLessThan(jumpAfter(600));
    expect(
      learnWander(history(seededRng(3), { wander: 0.01, noise: 0.02, jump: 0 }, 300).looks).jumpMm('new_blade'),
    ).toBeLessThan(0.04);
  });
  it('a fresh start tells nothing of what was before it: a correction of a mm is no wander', () => {
    const { looks } = history(seededRng(5), { wander: 0.01, noise: 0.02, jump: 0.08 }, 60);
    const apart = looks.map((l, i) => (i < 30 ? l : { ...l, acrossMm: l.acrossMm + 1, isFresh: i === 30 }));
    const joined = looks.map((l, i) => ({ ...l, isFresh: i === 0 || i === 30 }));
    expect(learnWander(apart).perRootDayMm).toBeCloseTo(learnWander(joined).perRootDayMm, 12);
  });
});

describe('how far the shift may have gone', () => {
  const wander = learnWander([]);
  it('grows with the root of days and with every event, and is nothing at the confirmation', () => {
    expect(shiftSince([], wander, { day: 0, events: [] })).toEqual({ acrossMm: 0, alongMm: 0, sdMm: 0 });
    expect(shiftSince([], wander, { day: 100, events: [] }).sdMm).toBeCloseTo(0.1, 12);
    expect(shiftSince([], wander, { day: 0, events: ['moved', 'new_blade'] }).sdMm).toBeCloseTo(
      Math.hypot(0.3, 0.08),
      12,
    );
  });
  it('a daily check pulls it in, and a precise one takes it over', () => {
    const seen = shiftSince([look(100, 0.2, { varianceMm2: 1e-8 })], wander, { day: 100, events: [] });
    expect(seen.acrossMm).toBeCloseTo(0.2, 5);
    expect(seen.sdMm).toBeLessThan(1e-3);
    const rough = shiftSince([look(100, 0.2, { varianceMm2: 0.01 })], wander, { day: 100, events: [] });
    expect(rough.acrossMm).toBeCloseTo(0.1, 12);
    expect(rough.sdMm).toBeCloseTo(Math.sqrt(0.005), 12);
  });
  it('covers where the cut really is 95 times of 100, whatever the setup’s own wander (simulated)', () => {
    const rng = seededRng(21);
    let inside = 0;
    const TRIALS = 400;
    for (let i = 0; i < TRIALS; i++) {
      const own = ASSUMED_WANDER_MM * 3 ** standardNormal(rng);
      const { looks, x, y, day } = history(rng, { wander: own, noise: 0.03, jump: 0.08 }, 25);
      const since = looks.map((l) => ({ ...l, isFresh: false }));
      const now = shiftSince(since, learnWander(looks), { day, events: [] });
      inside +=
        Number(Math.abs(x - now.acrossMm) < 1.96 * now.sdMm) + Number(Math.abs(y - now.alongMm) < 1.96 * now.sdMm);
    }
    const share = inside / (2 * TRIALS);
    expect(share).toBeGreaterThan(0.92);
    expect(share).toBeLessThan(0.98);
  });
});
