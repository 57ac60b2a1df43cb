import fc from 'fast-check';
import { translation, type Affine } from '../geometry/affine';
import { seededRng } from '../math/random';
import { settingMap, valueAfterTyping } from '../setting/machine-setting';
import { testSetting } from '../setting/setting.testing';
import { standInReadings, type RollTruth } from '../simulate/simulated-roll';
import { stripFigures, type RollStrip } from '../target/roll-strip';
import { feedCompensation, feedSetting } from './feed-compensation';
import { rollDrift, type DriftPart, type StationValue } from './roll-drift';
import { adviseRun } from './run-advice';

const STRIP: RollStrip = {
  widthMm: 300,
  spacingMm: 400,
  stations: 24,
  sides: ['left', 'right'],
  form: 'strip',
  hasDiscs: true,
};
const CALM: RollTruth = {
  ...{ shiftAcrossMm: 0.05, shiftAlongMm: -0.04, feedMmPerMetre: 0, walkMmPerMetre: 0, bow: 0, turnRad: 0 },
  ...{ slipMm: 0.004, rewindMm: 0, readingMm: 0.02, scatterMm: 0 },
};
const UNSET: Affine = translation(0, 0);

function read(truth: RollTruth, settings = UNSET): readonly StationValue[] {
  const figures = stripFigures(STRIP);
  const values = standInReadings(figures, truth, settings, seededRng(5));
  return figures.map(({ axis, middle }, i) => ({ axis, atMm: middle.y, asideMm: middle.x, valueMm: values[i] ?? NaN }));
}

describe('feed compensation', () => {
  it('a cut that comes out 2 mm longer a metre, in every way that a machine may ask for it', () => {
    const told = feedCompensation(2, 1000);
    expect(told.percent).toBeCloseTo(-0.1996, 4);
    expect(told.perMille).toBeCloseTo(-1.996, 3);
    expect(told.mmPerStated).toBeCloseTo(-1.996, 3);
    expect([told.nominalMm, told.measuredMm]).toEqual([1000, 1002]);
  });

  it('what is keyed in takes the growth out, to half a step, whatever the unit, sense and value before', () => {
    const units = fc.constantFrom(
      { unit: 'per_mille', unitSize: null, step: 0.01, minValue: -20, maxValue: 20, value: 1.5 } as const,
      { unit: 'percent', unitSize: null, step: 0.001, minValue: -2, maxValue: 2, value: -0.3 } as const,
      { unit: 'step', unitSize: 0.00002, step: 1, minValue: -500, maxValue: 500, value: 20 } as const,
      { unit: 'nominal_measured', unitSize: 500, step: 0.01, minValue: 490, maxValue: 510, value: 500.4 } as const,
    );
    fc.assert(
      fc.property(units, fc.constantFrom(1, -1), fc.double({ min: -5, max: 5, noNaN: true }), (unit, sense, growth) => {
        const setting = testSetting({ ...unit, actsOn: 'feed_length', sense: sense });
        const told = feedSetting(setting, growth);
        expect(valueAfterTyping(setting, told.toType)).toBeCloseTo(told.after, 6);
        const factor = settingMap(setting, told.after).yy / settingMap(setting, setting.value).yy;
        const left = (1 + growth / 1000) * factor - 1;
        expect(Math.abs(left)).toBeLessThan(1.2e-5);
        expect(left * 1000).toBeCloseTo(told.leftMmPerMetre, 6);
      }),
    );
  });

  it('says what is left where the range ends', () => {
    const setting = testSetting({ unit: 'per_mille', actsOn: 'feed_length', minValue: -1, maxValue: 1, step: 0.1 });
    expect(feedSetting(setting, 3)).toMatchObject({ after: -1, toType: -1 });
    expect(feedSetting(setting, 3).leftMmPerMetre).toBeCloseTo(2, 2);
  });
});

describe('a stand-in roll', () => {
  it('what is hidden in it is found: shift, feed, walk, bow and turn', () => {
    const truth: RollTruth = {
      ...{
        shiftAcrossMm: 0.2,
        shiftAlongMm: -0.3,
        feedMmPerMetre: 0.4,
        walkMmPerMetre: 0.1,
        bow: 0.02,
        turnRad: 0.0005,
      },
      ...{ slipMm: 0.01, rewindMm: 0, readingMm: 0.02, scatterMm: 0 },
    };
    const told = rollDrift(read(truth));
    if (!told.ok) throw new Error(told.error.kind);
    const { along, across, walkMm } = told.value;
    const holds = (part: DriftPart | null, value: number): boolean =>
      part !== null && part.low <= value && value <= part.high;
    expect(holds(along.shiftMm, truth.shiftAlongMm)).toBe(true);
    expect(holds(along.perMetreMm, truth.feedMmPerMetre)).toBe(true);
    expect(holds(along.perWidth, truth.turnRad)).toBe(true);
    expect(holds(across.bow, truth.bow)).toBe(true);
    expect(holds(walkMm, truth.walkMmPerMetre)).toBe(true);
  });

  it('feed keyed in is gone from the next strip', () => {
    const truth = { ...CALM, feedMmPerMetre: 0.4 };
    const setting = testSetting({ unit: 'per_mille', actsOn: 'feed_length', minValue: -20, maxValue: 20, step: 0.01 });
    const settings = settingMap(setting, feedSetting(setting, 0.4).after) as unknown as Affine;
    const told = rollDrift(read(truth, settings));
    expect(told.ok && Math.abs(told.value.along.perMetreMm.value)).toBeLessThan(0.02);
  });
});

describe('a run as it goes', () => {
  const ask = { toleranceMm: 0.3, nextMm: 10_000, endMm: 20_000, isOver: false };

  it('goes on where nothing drifts, and says by how much it may be out at its end', () => {
    const advice = adviseRun({ ...ask, values: read(CALM), endMm: 11_000 });
    expect(advice).toMatchObject({ kind: 'go-on', reason: 'foretold' });
    expect(advice.kind === 'go-on' && advice.reason === 'foretold' && advice.errorAtEndMm).toBeLessThan(0.3);
  });

  it('is watched where it will be out before its end, and told where', () => {
    const advice = adviseRun({ ...ask, values: read({ ...CALM, feedMmPerMetre: 0.02 }), endMm: 40_000 });
    expect(advice).toMatchObject({ kind: 'watch', reason: 'foretold' });
    if (advice.kind !== 'watch' || advice.reason !== 'foretold') throw new Error(advice.kind);
    expect(advice.outAtMm).toBeGreaterThan(10_000);
    expect(advice.outAtMm).toBeLessThan(17_500);
  });

  it('is stopped before the next piece may be out, and when one is', () => {
    const growing = { ...CALM, feedMmPerMetre: 0.028 };
    expect(adviseRun({ ...ask, values: read(growing), nextMm: 14_000 })).toMatchObject({
      kind: 'stop',
      reason: 'foretold',
    });
    expect(adviseRun({ ...ask, values: read({ ...CALM, feedMmPerMetre: 0.1 }) })).toMatchObject({
      kind: 'stop',
      reason: 'out',
    });
  });

  it('over, it is told whether it held, how far the worst piece was out, and from where on pieces were', () => {
    const calm = read(CALM);
    const worstMm = Math.max(...calm.map((v) => Math.abs(v.valueMm)));
    expect(adviseRun({ ...ask, values: calm, isOver: true })).toEqual({
      ...{ kind: 'over', isHeld: true, worstMm, firstOutMm: null },
    });
    const drifting = read({ ...CALM, feedMmPerMetre: 0.1 });
    const told = adviseRun({ ...ask, values: drifting, isOver: true });
    const out = drifting.filter((v) => Math.abs(v.valueMm) > 0.3).map((v) => v.atMm);
    expect(out.length).toBeGreaterThan(0);
    expect(told).toMatchObject({ kind: 'over', isHeld: false, firstOutMm: Math.min(...out) });
  });

  it('foretells nothing from a few looks, but says when one of them is near the tolerance', () => {
    expect(adviseRun({ ...ask, values: [] })).toEqual({ kind: 'nothing-read' });
    const first = read(CALM).filter(({ atMm }) => atMm < 400);
    expect(adviseRun({ ...ask, values: first })).toEqual({ kind: 'go-on', reason: 'too-early', wanted: 6 });
    const near = first.map((v) => ({ ...v, valueMm: 0.25 }));
    expect(adviseRun({ ...ask, values: near })).toEqual({ kind: 'watch', reason: 'near', worstMm: 0.25 });
  });
});
