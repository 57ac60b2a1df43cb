import { seededRng, standardNormal } from '../math/random';
import { rollDrift, valuesOf, type DriftPart, type RollDrift, type StationReading } from './roll-drift';

interface Truth {
  readonly shiftAcross: number;
  readonly shiftAlong: number;
  /** mm a metre. */
  readonly feed: number;
  readonly walk: number;
  readonly bow: number;
  readonly turnRad: number;
  /** mm over one metre. */
  readonly slip: number;
}

const TRUTH: Truth = {
  ...{ shiftAcross: 0.25, shiftAlong: -0.4, feed: 0.35, walk: 0.12, bow: 0.02, turnRad: 0.0004, slip: 0.03 },
};
const NOISE_MM = 0.04;

/** Left and right of every station, read one after another. */
function strip(seed: number, truth: Truth, count = 24, everyMm = 500): readonly StationReading[] {
  const rng = seededRng(seed);
  let [slipX, slipY] = [0, 0];
  return Array.from({ length: count }, (_, i) => (i + 1) * everyMm).flatMap((atMm) => {
    slipX += truth.slip * Math.sqrt(everyMm / 1000) * standardNormal(rng);
    slipY += truth.slip * Math.sqrt(everyMm / 1000) * standardNormal(rng);
    const metres = atMm / 1000;
    return [-400, 400].map((asideMm): StationReading => ({
      atMm,
      asideMm,
      // A turn by theta drifts sideways by minus theta a mm.
      acrossMm:
        truth.shiftAcross +
        (truth.walk - 1000 * truth.turnRad) * metres +
        (truth.bow * metres ** 2) / 2 +
        slipX +
        NOISE_MM * standardNormal(rng),
      alongMm:
        truth.shiftAlong + truth.feed * metres + truth.turnRad * asideMm + slipY + NOISE_MM * standardNormal(rng),
    }));
  });
}

function told(seed: number, truth = TRUTH): RollDrift {
  const drift = rollDrift(valuesOf(strip(seed, truth)));
  if (!drift.ok) throw new Error(drift.error.kind);
  return drift.value;
}

describe('the drift of a roll', () => {
  it('shift, feed, walk, bow, turn, slip and noise, told apart', () => {
    const { across, along, walkMm, lengthMm } = told(1);
    expect(lengthMm).toBe(12_000);
    expect(Math.abs((along.perWidth?.value ?? 1) - TRUTH.turnRad)).toBeLessThan(0.00004);
    expect(Math.abs(along.perMetreMm.value - TRUTH.feed)).toBeLessThan(0.08);
    expect(Math.abs((walkMm?.value ?? 9) - TRUTH.walk)).toBeLessThan(0.08);
    expect(Math.abs(across.perMetreMm.value - (TRUTH.walk - 0.4))).toBeLessThan(0.08);
    expect(along.perMetreMm.atFarEndMm).toBeCloseTo(12 * along.perMetreMm.value, 9);
    expect(across.bow.atFarEndMm).toBeCloseTo(72 * across.bow.value, 9);
    expect(along.perWidth?.atFarEndMm).toBeCloseTo(400 * (along.perWidth?.value ?? 9), 9);
    expect(Math.abs(across.noiseMm / NOISE_MM - 1)).toBeLessThan(0.35);
    expect(across.slip.slipUpperMm).toBeGreaterThan(across.slip.slipMm);
  });

  it('intervals hold their truth as often as they say', () => {
    const strips = 120;
    const held = { shift: 0, feed: 0, walk: 0, bow: 0, turn: 0 };
    for (let seed = 1; seed <= strips; seed++) {
      const { across, along, walkMm } = told(seed);
      const holds = (part: DriftPart | null, truth: number): number =>
        part && part.low < truth && truth < part.high ? 1 : 0;
      held.shift += holds(along.shiftMm, TRUTH.shiftAlong);
      held.feed += holds(along.perMetreMm, TRUTH.feed);
      held.walk += holds(walkMm, TRUTH.walk);
      held.bow += holds(across.bow, TRUTH.bow);
      held.turn += holds(along.perWidth, TRUTH.turnRad);
    }
    // 95 of 100, less four standard deviations of so many strips.
    for (const count of Object.values(held)) expect(count / strips).toBeGreaterThan(0.87);
  }, 120_000);

  it('a roll that only lies turned does not walk', () => {
    const { walkMm } = told(5, { ...TRUTH, walk: 0, bow: 0, slip: 0, turnRad: 0.001 });
    expect(walkMm?.low).toBeLessThan(0);
    expect(walkMm?.high).toBeGreaterThan(0);
    expect(Math.abs(walkMm?.value ?? 9)).toBeLessThan(0.05);
  });

  it('readings that are all 0, or exact, are answered; stations that all stand at the origin are refused', () => {
    const stations = strip(6, TRUTH);
    const zeros = rollDrift(valuesOf(stations.map((s) => ({ ...s, acrossMm: 0, alongMm: 0 }))));
    if (!zeros.ok) throw new Error(zeros.error.kind);
    expect(Math.abs(zeros.value.along.perMetreMm.value)).toBeLessThan(1e-9);
    expect(Number.isFinite(zeros.value.across.slip.slipUpperMm)).toBe(true);
    const exact = rollDrift(valuesOf(stations.map((s) => ({ ...s, acrossMm: 0.1, alongMm: 0.0003 * s.atMm }))));
    if (!exact.ok) throw new Error(exact.error.kind);
    expect(exact.value.along.perMetreMm.value).toBeCloseTo(0.3, 6);
    expect(rollDrift(valuesOf(stations.map((s) => ({ ...s, atMm: 0 }))))).toMatchObject({
      error: { kind: 'no-length' },
    });
  });

  it('order does not matter; too few readings, or one column of figures, are refused by name', () => {
    const stations = strip(6, TRUTH);
    expect(rollDrift(valuesOf([...stations].reverse()))).toMatchObject({ ok: true });
    expect(rollDrift(valuesOf(stations.slice(0, 7)))).toMatchObject({ error: { kind: 'too-few-readings', needed: 8 } });
    const middle = stations.filter(({ asideMm }) => asideMm < 0);
    const single = rollDrift(valuesOf(middle.map((s) => ({ ...s, asideMm: 0 }))));
    expect(single).toMatchObject({ ok: true, value: { walkMm: null, along: { perWidth: null } } });
  });
});
