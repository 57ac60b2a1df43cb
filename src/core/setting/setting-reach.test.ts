import fc from 'fast-check';
import { NO_ERROR, fromParameters } from '../geometry/error-parameters';
import { cornersOf } from '../geometry/affine';
import { checkTyped } from './check-typed';
import type { MachineSetting } from './machine-setting';
import { planSettings } from './plan-settings';
import { testSetting } from './setting.testing';
import { trialValue } from './which-way';

/** A wizard of seven lines, a tenth of a mm apart, that has been picked from before. */
const wizard = (value: number, over: Partial<MachineSetting> = {}): MachineSetting =>
  testSetting({
    ...{ kind: 'wizard', actsOn: 'offset_across', unit: 'step', unitSize: 0.1, step: 1, minValue: -3, maxValue: 3 },
    ...{ entry: 'change', combine: 'adds', value },
    ...over,
  });

const planFor = (setting: MachineSetting, offsetAcrossMm: number) =>
  planSettings(fromParameters<'machine'>({ ...NO_ERROR, offsetAcrossMm }), [setting], cornersOf(180, 260)).changes[0]!;

it('a wizard that stands at the end of its row is picked from once more: the row counts from where it stands', () => {
  expect(planFor(wizard(3), -0.2)).toMatchObject({ toType: 2, after: 5, isAtLimit: false });
  expect(planFor(wizard(3), 0.2)).toMatchObject({ toType: -2, after: 1 });
  expect(planFor(wizard(-40), -0.9)).toMatchObject({ toType: 3, isAtLimit: true });
  expect(checkTyped(planFor(wizard(3), -0.2), 3).kind).not.toBe('out-of-range');
  expect(checkTyped(planFor(wizard(0), -0.2), 4).kind).toBe('out-of-range');
});

it('what is to be picked is always a line of the row, whatever was picked before (property)', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -60, max: 60 }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.constantFrom(1, 0.5),
      (before, offsetMm, step) => {
        const setting = wizard(before / 2, { step });
        const { toType } = planFor(setting, offsetMm);
        expect(Math.abs(toType)).toBeLessThanOrEqual(3);
        expect(Number.isInteger(toType / step)).toBe(true);
        const tried = trialValue(setting) - setting.value;
        expect(Math.abs(tried)).toBeLessThanOrEqual(3);
        expect(tried).not.toBe(0);
      },
    ),
  );
});
