import fc from 'fast-check';
import { apply, displacement } from '@/core/geometry/affine';
import { machineToView } from '@/core/geometry/load';
import { settingMap, type MachineSetting } from '@/core/setting/machine-setting';
import { testSetting } from '@/core/setting/setting.testing';
import { changeView } from './change-view';
import { changeWords, moveWords, settingValueWords } from './words';

const setting = (over: Partial<MachineSetting>) => testSetting({ step: 0.05, ...over });
const change = (over: Partial<MachineSetting>, before: number, after: number) => ({
  setting: setting(over),
  before,
  after,
  toType: after,
  isAtLimit: false,
});

describe('which way the cut moves, as one before the machine says it', () => {
  it.each([
    ['away', {}, 0, 0.4, 'the cut moves 0.40 mm to the right'],
    ['away', {}, 0.4, 0, 'the cut moves 0.40 mm to the left'],
    ['away', { sense: -1 }, 0, 0.4, 'the cut moves 0.40 mm to the left'],
    ['towards', {}, 0, 0.4, 'the cut moves 0.40 mm to the left'],
    ['away', { actsOn: 'offset_along' }, 0, 0.4, 'the cut moves 0.40 mm towards the leading edge'],
    ['towards', { actsOn: 'offset_along' }, 0, 0.4, 'the cut moves 0.40 mm towards the leading edge'],
    ['away', { actsOn: 'offset_along', unit: 'tenth_mm' }, 0, -3, 'the cut moves 0.30 mm away from the leading edge'],
    ['away', { actsOn: 'rotation', unit: 'degree' }, 0, 0.1, 'the cut turns counter-clockwise, seen from above'],
    ['towards', { actsOn: 'squareness', unit: 'degree' }, 0, 0.1, 'the leading edge of the cut leans to the left'],
    ['away', { actsOn: 'scale_across', unit: 'percent' }, 0, 0.1, 'the cut gets larger across'],
    ['away', { actsOn: 'scale_along', unit: 'percent', sense: -1 }, 0, 0.1, 'the cut gets smaller along the feed'],
  ] as const)('fed %s, %j, %s to %s', (...[feed, over, before, after, words]) => {
    expect(moveWords(change(over, before, after), feed)).toBe(words);
  });

  it('right is where the view has it, for either feed and either direction of plus (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -100, max: 100 }).filter((v) => v !== 0),
        fc.constantFrom(1 as const, -1 as const),
        fc.constantFrom('away' as const, 'towards' as const),
        (steps, sense, feed) => {
          const move = displacement(settingMap(setting({ sense }), steps * 0.05), { x: 0, y: 0 });
          const seen = apply(machineToView(feed), move);
          expect(moveWords(change({ sense }, 0, steps * 0.05), feed)).toContain(
            seen.x > 0 ? 'to the right' : 'to the left',
          );
        },
      ),
    );
  });
});

it('values are written with the decimals of their step and a true minus', () => {
  expect(settingValueWords({ step: 0.05, unit: 'mm' }, -0.4)).toBe('\u22120.40 mm');
  expect(settingValueWords({ step: 1, unit: 'tenth_mm' }, 3)).toBe('3 \u00d7 0.1 mm');
  expect(settingValueWords({ step: 0.5, unit: 'per_mille' }, 1.5)).toBe('1.5 \u2030');
  expect(changeWords(change({}, 0, 0.4), 'away')).toBe(
    'Set CROSS SHIFT from 0.00 mm to 0.40 mm: the cut moves 0.40 mm to the right.',
  );
});

it('what is picked in a wizard is kept as steps from the middle of its row: it shows no value', () => {
  const wizard = { kind: 'wizard', unit: 'step', unitSize: 0.1, step: 1, combine: 'adds' } as const;
  expect(changeWords({ ...change(wizard, 4, 6), toType: 2 }, 'away')).toBe(
    'Pick the line at +2 in CROSS SHIFT: the cut moves 0.20 mm to the right.',
  );
});

it('a display that adds is told its sign, one that replaces is not', () => {
  expect(changeView(change({}, 0, 0.4), { feeds: 'away', ownTest: null }).toType).toBe('0.40');
  expect(changeView(change({ combine: 'adds' }, 0, 0.4), { feeds: 'away', ownTest: null }).toType).toBe('+0.40');
});
