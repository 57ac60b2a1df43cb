import { displacement, inverseOf, then } from '../geometry/affine';
import { seededRng, standardNormal } from '../math/random';
import { cutAfter, settingsMap } from './plan-settings';
import { settingMap } from './machine-setting';
import { testSetting } from './setting.testing';
import { learnSetting, partUncertainty, testable, trialValue } from './which-way';

const unknown = (over: Parameters<typeof testSetting>[0]) => testSetting({ sense: null, ...over });

describe('what to change for a test', () => {
  it.each([
    ['mm to a tenth', {}, 0.5],
    ['tenths of a mm', { unit: 'tenth_mm', step: 1 }, 5],
    ['percent', { actsOn: 'scale_along', unit: 'percent', step: 0.02 }, 0.3],
    ['lines of a wizard, a tenth each', { kind: 'wizard', unit: 'step', unitSize: 0.1, step: 1 }, 5],
    ['at the top of its range', { value: 10 }, 9.5],
  ] as const)('%s', (_, over, wanted) => {
    expect(trialValue(unknown(over))).toBeCloseTo(wanted, 9);
  });
  it('both offsets in one test, anything else one at a time, what is known never', () => {
    const across = unknown({ id: 'a' });
    const along = unknown({ id: 'b', actsOn: 'offset_along' });
    const scale = unknown({ id: 'c', actsOn: 'scale_across', unit: 'percent' });
    const turn = unknown({ id: 'd', actsOn: 'rotation', unit: 'degree' });
    expect(testable([scale, across, along]).map((s) => s.id)).toEqual(['a', 'b']);
    expect(testable([scale, turn]).map((s) => s.id)).toEqual(['c']);
    expect(testable([testSetting()])).toEqual([]);
  });
});

it('a second test goes back to where the first began, and stays in the range', () => {
  const setting = testSetting({ unit: 'mm', step: 0.05, value: 0, minValue: -5, maxValue: 5, sense: null });
  const first = trialValue(setting, 2);
  expect(first).toBeCloseTo(1, 9);
  expect(trialValue({ ...setting, value: first }, 2, first)).toBeCloseTo(0, 9);
  expect(trialValue({ ...setting, value: -5 }, 2, 1)).toBeCloseTo(-4, 9);
  expect(trialValue({ ...setting, value: 5 }, 2, -1)).toBeCloseTo(4, 9);
});

describe('what a test tells', () => {
  it.each([
    [1, 1],
    [-1, 1],
    [1, 0.9],
    [-1, 1.1],
  ] as const)('sense %s, strength %s, through noise of one load', (sense, gain) => {
    const rng = seededRng(4);
    const u = partUncertainty('offset_across', 0.045, 9);
    for (let trial = 0; trial < 200; trial++) {
      const real = testSetting({ sense, gain });
      const moved = then(inverseOf(settingMap(real, 0)), settingMap(real, 0.5));
      const noisy = { ...moved, tx: moved.tx + Math.SQRT2 * u * standardNormal(rng) };
      const told = learnSetting(unknown({}), 0.5, noisy, u);
      expect(told.sense).toBe(sense);
      expect(told.gain).not.toBeNull();
      expect(Math.abs(told.gain! - gain)).toBeLessThan((5 * Math.SQRT2 * u) / 0.5);
    }
  });
  it('too small a move tells nothing; a coarse reading tells the direction alone', () => {
    const real = testSetting({ sense: -1 });
    const moved = settingMap(real, 0.5);
    expect(learnSetting(unknown({}), 0.5, moved, 0.1)).toMatchObject({ sense: null, gain: null });
    expect(learnSetting(unknown({}), 0.5, moved, 0.04)).toMatchObject({ sense: -1, gain: null });
  });
  it.each(['scale_across', 'scale_along', 'rotation', 'squareness'] as const)('%s, about a mark', (actsOn) => {
    const unit = actsOn === 'rotation' || actsOn === 'squareness' ? 'per_mille' : 'percent';
    const pivot = { x: -88, y: -118 };
    for (const sense of [1, -1] as const) {
      const real = testSetting({ actsOn, unit, step: 0.01, sense, pivot });
      const value = trialValue({ ...real, sense: null });
      const moved = cutAfter(settingsMap([], []), settingMap(real, 0), settingMap(real, value));
      expect(learnSetting({ ...real, sense: null }, value, moved, partUncertainty(actsOn, 0.045, 9)).sense).toBe(sense);
      expect(displacement(moved, pivot).x).toBeCloseTo(0, 9);
    }
  });
  it('a setting that moves the other axis tells no direction of its own', () => {
    const other = settingMap(testSetting({ actsOn: 'offset_along' }), 0.5);
    expect(learnSetting(unknown({}), 0.5, other, 0.02).sense).toBeNull();
  });
});
