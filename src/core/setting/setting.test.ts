import fc from 'fast-check';
import { apply, cornersOf, inverseOf, largestDisplacement, then } from '../geometry/affine';
import { fromParameters, NO_ERROR } from '../geometry/error-parameters';
import { checkTyped } from './check-typed';
import { cutCorrection } from './correct-cut';
import {
  onStep,
  settingMap,
  typedFor,
  unitsFor,
  ACTS_ON,
  valueAfterTyping,
  type MachineSetting,
} from './machine-setting';
import { carriedTo, cutAfter, planSettings, setBack, settingsMap } from './plan-settings';
import { testSetting } from './setting.testing';

const corners = cornersOf<'machine'>(176, 236);
const setting = testSetting;
/** An offset that stands at 26.5 mm: common practice, no published source. */
const four = [
  setting({ actsOn: 'offset_across', step: 0.1, value: 0.4 }),
  setting({ actsOn: 'offset_along', step: 0.1, sense: -1, value: 26.5, minValue: 0, maxValue: 60 }),
  setting({
    actsOn: 'scale_across',
    unit: 'percent',
    step: 0.05,
    maxValue: 2,
    minValue: -2,
    pivot: { x: -88, y: -118 },
  }),
  setting({
    actsOn: 'scale_along',
    unit: 'per_mille',
    step: 0.5,
    maxValue: 20,
    minValue: -20,
    sense: -1,
    pivot: { x: -88, y: -118 },
  }),
];

describe('planning settings', () => {
  it('a symmetric area and offsets alone: minus the displacement of the centre', () => {
    const cut0 = fromParameters<'machine'>({
      ...NO_ERROR,
      offsetAcrossMm: 0.7,
      offsetAlongMm: -0.3,
      rotationRad: 0.002,
      scaleAcross: 0.001,
    });
    const plan = planSettings(cut0, [setting({}), setting({ actsOn: 'offset_along' })], corners);
    expect(plan.changes.map((c) => c.after)).toEqual([-0.7, 0.3]);
  });
  it('the direction of plus decides the sign of the value', () => {
    const cut0 = fromParameters<'machine'>({ ...NO_ERROR, offsetAlongMm: 0.3 });
    const plan = planSettings(cut0, [four[1]!], corners);
    expect(plan.changes[0]!.after).toBe(26.8);
    expect(plan.worstAfterMm).toBeCloseTo(0, 9);
  });
  it('what is predicted is what a machine with these settings does', () => {
    const cut0 = fromParameters<'machine'>({
      offsetAcrossMm: 1.23,
      offsetAlongMm: -2.2,
      rotationRad: 0.001,
      scaleAcross: 0.004,
      scaleAlong: -0.003,
      squareness: 0.0005,
    });
    const plan = planSettings(cut0, four, corners);
    const after = plan.changes.map((c) => c.after);
    const d0 = settingsMap(
      four,
      four.map((s) => s.value),
    );
    const made = then(then(cut0, inverseOf(d0)), settingsMap(four, after));
    expect(largestDisplacement(made, corners)).toBeCloseTo(plan.worstAfterMm, 12);
    expect(plan.worstAfterMm).toBeLessThan(0.3 * plan.worstBeforeMm);
  });
  it('joint choice of steps is at least as good as any other choice nearby, and beats rounding each alone somewhere', () => {
    const outcomes: boolean[] = [];
    fc.assert(
      fc.property(fc.integer({ min: -80, max: 80 }), fc.integer({ min: -50, max: 50 }), (t, s) => {
        const cut0 = fromParameters<'machine'>({ ...NO_ERROR, offsetAcrossMm: t / 37, scaleAcross: s / 9100 });
        const pair = [four[0]!, four[2]!];
        const plan = planSettings(cut0, pair, corners);
        const d0 = settingsMap(
          pair,
          pair.map((p) => p.value),
        );
        for (let i = -6; i <= 6; i++) {
          for (let j = -6; j <= 6; j++) {
            const values = [
              onStep(pair[0]!, plan.changes[0]!.after + i * 0.1),
              onStep(pair[1]!, plan.changes[1]!.after + j * 0.05),
            ];
            const worst = largestDisplacement(cutAfter(cut0, d0, settingsMap(pair, values)), corners);
            expect(worst).toBeGreaterThan(plan.worstAfterMm - 1e-9);
          }
        }
        // rounding alone: scale to its own nearest, then offset from the uncoupled optimum
        const scaleAlone = onStep(pair[1]!, -((s / 9100) * 100) / (1 + s / 9100));
        const offsetAlone = onStep(pair[0]!, 0.4 - t / 37 + -(s / 9100) * 88 * -1);
        const alone = largestDisplacement(cutAfter(cut0, d0, settingsMap(pair, [offsetAlone, scaleAlone])), corners);
        outcomes.push(alone > plan.worstAfterMm + 1e-6);
      }),
      { numRuns: 40, seed: 4 },
    );
    expect(outcomes).toContain(true);
  });
  it('a value beyond the range stops at the range and says so', () => {
    const plan = planSettings(
      fromParameters<'machine'>({ ...NO_ERROR, offsetAcrossMm: 14 }),
      [setting({ value: 0 })],
      corners,
    );
    expect(plan.changes[0]).toMatchObject({ after: -10, isAtLimit: true });
  });
  it('back to the old values is back to the old error (property)', () => {
    const number = (max: number) => fc.double({ min: -max, max, noNaN: true });
    fc.assert(
      fc.property(number(8), number(8), number(0.005), number(0.003), (tx, ty, scale, turn) => {
        const cut0 = fromParameters<'machine'>({
          ...NO_ERROR,
          offsetAcrossMm: tx,
          offsetAlongMm: ty,
          scaleAlong: scale,
          rotationRad: turn,
        });
        const d0 = settingsMap(
          four,
          four.map((f) => f.value),
        );
        const d1 = settingsMap(four, [1, 20, 0.5, 3]);
        for (const order of ['settings-last', 'settings-first'] as const) {
          const back = cutAfter(cutAfter(cut0, d0, d1, order), d1, d0, order);
          for (const p of corners) expect(apply(back, p).x).toBeCloseTo(apply(cut0, p).x, 9);
        }
      }),
    );
  });
  it('a setting moved after the cut changes nothing of what is to be set: only where it is set from (property)', () => {
    const number = (max: number) => fc.double({ min: -max, max, noNaN: true });
    fc.assert(
      fc.property(number(3), number(0.004), number(2), number(0.9), (shift, scale, movedMm, movedPercent) => {
        const cut0 = fromParameters<'machine'>({ ...NO_ERROR, offsetAlongMm: shift, scaleAcross: scale });
        const atCut = Object.fromEntries(four.map((s) => [s.id, s.value]));
        const now = four.map((s, i) => ({ ...s, value: onStep(s, s.value + [movedMm, movedMm, movedPercent, 0][i]!) }));
        const plan = planSettings(cut0, four, corners);
        const later = planSettings(cut0, now, corners, { atCut });
        expect(later.changes.map((c) => c.after)).toEqual(plan.changes.map((c) => c.after));
        expect(later.changes.map((c) => c.before)).toEqual(now.map((s) => s.value));
        const carried = then(cut0, carriedTo(now, atCut, {})!);
        const fromNow = planSettings(carried, now, corners);
        expect(fromNow.worstAfterMm).toBeCloseTo(plan.worstAfterMm, 9);
      }),
      { numRuns: 30, seed: 6 },
    );
  });
  it('a setting of unknown direction is set back and never carried', () => {
    const unknown = [setting({ id: 'u', sense: null, value: 1.5 })];
    expect(setBack(unknown, { u: 0.5 })).toMatchObject([{ before: 1.5, after: 0.5 }]);
    expect(carriedTo(unknown, { u: 0.5 }, {})).toBeNull();
    expect(carriedTo(unknown, { u: 1.5 }, {})).toEqual({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 });
  });
  it('settings first or last differ by |dA||t|: 40 um at 8 mm and 0.5 %', () => {
    const cut0 = fromParameters<'machine'>({ ...NO_ERROR, offsetAcrossMm: 8 });
    const scale = [setting({ actsOn: 'scale_across', unit: 'percent', step: 0.05 })];
    const [last, first] = (['settings-last', 'settings-first'] as const).map((order) =>
      cutAfter(cut0, settingMap(scale[0]!, 0), settingMap(scale[0]!, 0.5), order),
    );
    expect(Math.abs(last!.tx - first!.tx)).toBeCloseTo(0.04, 6);
  });
});

describe('the value typed back', () => {
  const plan = planSettings(fromParameters<'machine'>({ ...NO_ERROR, offsetAlongMm: 3 }), [four[1]!], corners)
    .changes[0]!;
  it.each([
    [29.5, 'as-planned'],
    [3, 'change-for-value'],
    [-29.5, 'other-sign'],
    [99, 'out-of-range'],
    [29.53, 'not-on-step'],
    [26.5, 'unchanged'],
    [28, 'another-value'],
  ])('%s looks like %s', (typed, kind) => {
    expect(plan.toType).toBe(29.5);
    expect(checkTyped(plan, typed).kind).toBe(kind);
  });
  it('a display that adds wants the change, and a whole value there is questioned', () => {
    const adds = planSettings(
      fromParameters<'machine'>({ ...NO_ERROR, offsetAlongMm: 3 }),
      [{ ...four[1]!, combine: 'adds' }],
      corners,
    ).changes[0]!;
    expect(adds.toType).toBeCloseTo(3, 9);
    expect(checkTyped(adds, 29.5).kind).toBe('value-for-change');
    expect(valueAfterTyping(adds.setting, 3)).toBeCloseTo(29.5, 9);
  });
});

describe('corrected cut file', () => {
  it('the error map undone is the identity; minus d is not (20 to 110 um at 8 mm, 3 mrad, 0.5 %)', () => {
    const map = fromParameters({
      offsetAcrossMm: 8,
      offsetAlongMm: -8,
      rotationRad: 0.003,
      scaleAcross: 0.005,
      scaleAlong: -0.005,
      squareness: 0.003,
    });
    const correction = cutCorrection(map);
    let naive = 0;
    for (const p of cornersOf(176, 236)) {
      const landed = apply(map, apply(correction, p));
      expect(Math.hypot(landed.x - p.x, landed.y - p.y)).toBeLessThan(1e-9);
      const d = apply(map, p);
      const crude = apply(map, { x: 2 * p.x - d.x, y: 2 * p.y - d.y });
      naive = Math.max(naive, Math.hypot(crude.x - p.x, crude.y - p.y));
    }
    expect(naive).toBeGreaterThan(0.02);
    expect(naive).toBeLessThan(0.13);
  });
});

describe('settings of every kind', () => {
  const unit = (over: Partial<MachineSetting>) => settingMap(setting(over), 1);
  it('rotation turns about its pivot, counter-clockwise for plus; squareness leans y to +x', () => {
    const turned = unit({ actsOn: 'rotation', unit: 'degree' });
    expect(Math.atan2(turned.yx, turned.xx)).toBeCloseTo(Math.PI / 180, 12);
    const pivot = { x: -40, y: 25 };
    expect(apply(unit({ actsOn: 'rotation', unit: 'degree', pivot }), pivot)).toEqual({
      x: expect.closeTo(-40, 12) as number,
      y: expect.closeTo(25, 12) as number,
    });
    expect(apply(unit({ actsOn: 'squareness', unit: 'per_mille' }), { x: 0, y: 1000 }).x).toBeCloseTo(1, 5);
    expect(apply(unit({ actsOn: 'feed_length', unit: 'per_mille' }), { x: 0, y: 1000 }).y).toBeCloseTo(1001, 9);
  });
  it('a nominal/measured pair does nothing when both are equal, and more measured makes less where the machine compensates', () => {
    const pair = setting({ actsOn: 'scale_along', unit: 'nominal_measured', unitSize: 500, sense: -1, value: 500 });
    expect(settingMap(pair, 500).yy).toBe(1);
    expect(settingMap(pair, 502).yy).toBeCloseTo(500 / 502, 12);
    expect(settingMap({ ...pair, sense: 1 }, 502).yy).toBeCloseTo(502 / 500, 12);
  });
  it('what is typed and the value after it are each other\u2019s opposite for all that adds or replaces (property)', () => {
    const some = fc.record({
      combine: fc.constantFrom('adds' as const, 'replaces' as const),
      steps: fc.integer({ min: -40, max: 40 }),
      from: fc.integer({ min: -40, max: 40 }),
      isPair: fc.boolean(),
    });
    fc.assert(
      fc.property(some, ({ combine, steps, from, isPair }) => {
        const pair = {
          actsOn: 'scale_along',
          unit: 'nominal_measured',
          unitSize: 500,
          minValue: 400,
          maxValue: 600,
        } as const;
        const base = isPair ? 500 : 0;
        const s = setting({ ...(isPair ? pair : {}), combine, value: base + from * 0.1 });
        const wanted = base + steps * 0.1;
        const after = valueAfterTyping(s, typedFor(s, wanted));
        expect(Math.abs(after - wanted)).toBeLessThan(isPair && combine === 'adds' ? s.step : 1e-6);
      }),
    );
  });
  it('a scale that multiplies the offset too comes after it: 26.5 mm and 0.5 % make 0.13 mm', () => {
    const offset = setting({ actsOn: 'offset_along' });
    const plain = setting({ actsOn: 'scale_along', unit: 'percent' });
    const middle = (scale: MachineSetting) => apply(settingsMap([offset, scale], [26.5, 0.5]), { x: 0, y: 0 }).y;
    expect(middle({ ...plain, scalesOffset: 'no' })).toBeCloseTo(26.5, 9);
    expect(middle({ ...plain, scalesOffset: 'yes' }) - 26.5).toBeCloseTo(0.1325, 9);
  });
  it('all seven together bring a turned, leaning, stretched cut to within their steps', () => {
    const all = [
      setting({ actsOn: 'offset_across', step: 0.05 }),
      setting({ actsOn: 'offset_along', step: 0.05, sense: -1 }),
      setting({ actsOn: 'scale_across', unit: 'percent', step: 0.01, pivot: { x: -88, y: -118 } }),
      setting({ actsOn: 'scale_along', unit: 'percent', step: 0.01, pivot: { x: -88, y: -118 } }),
      setting({ actsOn: 'rotation', unit: 'degree', step: 0.01 }),
      setting({ actsOn: 'squareness', unit: 'per_mille', step: 0.1, sense: -1 }),
    ];
    const cut = fromParameters<'machine'>({
      offsetAcrossMm: 0.62,
      offsetAlongMm: -0.41,
      rotationRad: 0.002,
      scaleAcross: 0.003,
      scaleAlong: -0.002,
      squareness: 0.0015,
    });
    const plan = planSettings(cut, all, corners);
    expect(plan.worstBeforeMm).toBeGreaterThan(0.9);
    expect(plan.worstAfterMm).toBeLessThan(0.06);
  });
  it('every part a setting acts on has units that fit it', () => {
    for (const actsOn of ACTS_ON) expect(unitsFor(actsOn)).toContain('step');
    expect(unitsFor('offset_across')).not.toContain('percent');
    expect(unitsFor('rotation')).toContain('degree');
  });
});
