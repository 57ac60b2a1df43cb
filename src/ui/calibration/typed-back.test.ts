import { testSetting } from '@/core/setting/setting.testing';
import { readDisplay, readTyped, typedWarning, whereWords, type ChangeView } from './TypedBack';

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
  row: null,
  testSheet: null,
};

const wizard: ChangeView = {
  ...view,
  plan: {
    ...{ before: 0, after: 2, toType: 2, isAtLimit: false },
    setting: {
      ...setting,
      displayName: 'LINES ALONG',
      kind: 'wizard',
      unit: 'step',
      unitSize: 0.1,
      step: 1,
      minValue: -3,
      maxValue: 3,
      entry: 'change',
      combine: 'adds',
      value: 0,
    },
  },
  toType: 'F',
  row: { labels: 'letters', firstNumber: 1, lines: 7, middle: 4, takesHalves: false, stepMm: 0.1 },
};

it.each([
  ['F', null, 2],
  ['f', null, 2],
  ['', null, null],
  ['C', /Line F was meant/, -1],
  ['K', /is no line of LINES ALONG\. Type its label, such as F/, null],
  ['2', /is no line/, null],
  ['E\/F', /takes whole lines only/, 1.5],
])('a line picked in a wizard, by its own label: %j', (text, warning, steps) => {
  const told = typedWarning(wizard, text);
  if (warning === null) expect(told).toBeNull();
  else expect(told).toMatch(warning);
  expect(readTyped(wizard, text)).toBe(steps);
});

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

it('says where a wizard cuts its lines, once that is described', () => {
  expect(whereWords({ ...wizard, testSheet: 'check-sheet' })).toMatch(
    /^Load a check sheet for it: it cuts its lines there\./,
  );
  expect(whereWords({ ...wizard, testSheet: 'own' })).toMatch(/^It prints and cuts a sheet of its own first\./);
});

it('reads what displays show', () => {
  expect(readDisplay('\u22120,35')).toBe(-0.35);
  expect(readDisplay('+2')).toBe(2);
  expect(readDisplay('1e3')).toBeNull();
});

it.each([
  [{}, null],
  [{ kind: 'wizard' }, /^Pick this line even if another looks better there\. .*neither read nor put back/],
  [{ kind: 'after_test_print', pressThis: 'ADJ', notThat: 'END' }, /press ADJ; do not press END\.$/],
  [{ isInProgram: true }, /lost on a new install/],
] as const)('where a setting is reached: %j', (over, wanted) => {
  const words = whereWords({ ...view, plan: { ...view.plan, setting: { ...setting, ...over } } });
  if (wanted === null) expect(words).toBeNull();
  else expect(words).toMatch(wanted);
});
