import { testSetting } from '@/core/setting/setting.testing';
import { readDisplay, typedWarning, whereWords, type ChangeView } from './TypedBack';

const setting = testSetting({
  displayName: 'FEED SHIFT',
  actsOn: 'offset_along',
  step: 0.5,
  minValue: 0,
  maxValue: 60,
  value: 26.5,
});
const view: ChangeView = {
  plan: { setting, before: 26.5, after: 29.5, toType: 29.5, isAtLimit: false },
  unit: 'mm',
  before: '26.5 mm',
  after: '29.5 mm',
  toType: '29.5',
  moveWords: 'the cut moves',
};

it.each([
  ['29.5', null],
  ['29,5', null],
  ['', null],
  ['3', /looks like the change/],
  ['-29.5', /sign is the other way/],
  ['26.5', /still shows its old value/],
  ['29.7', /steps of 0.5/],
  ['99', /goes from 0 to 60/],
  ['28', /will be kept/],
  ['abc', /is not a number/],
])('typed back %j', (text, warning) => {
  const told = typedWarning(view, text);
  if (warning === null) expect(told).toBeNull();
  else expect(told).toMatch(warning);
});

it('reads what displays show', () => {
  expect(readDisplay('\u22120,35')).toBe(-0.35);
  expect(readDisplay('+2')).toBe(2);
  expect(readDisplay('1e3')).toBeNull();
});

it.each([
  [{}, null],
  [{ kind: 'wizard' }, /neither read nor put back/],
  [{ kind: 'after_test_print', pressThis: 'ADJ', notThat: 'END' }, /press ADJ; do not press END\.$/],
  [{ isInProgram: true }, /lost on a new install/],
] as const)('where a setting is reached: %j', (over, wanted) => {
  const words = whereWords({ ...view, plan: { ...view.plan, setting: { ...setting, ...over } } });
  if (wanted === null) expect(words).toBeNull();
  else expect(words).toMatch(wanted);
});
