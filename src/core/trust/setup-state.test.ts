import { DAY_MS, looksOf } from './looks';
import { setupState, type SetupFacts } from './setup-state';

const calm: SetupFacts = { confirmedAt: 10, correctedAt: 9, failedAt: null, isDue: false, isSeenOut: false };

it.each([
  ['confirmed and nothing due', {}, 'in-register'],
  ['a check is due', { isDue: true }, 'check-first'],
  ['daily checks see it out', { isSeenOut: true }, 'stop'],
  ['corrected after it was confirmed', { correctedAt: 11 }, 'not-confirmed'],
  ['corrected after daily checks saw it out', { correctedAt: 11, isSeenOut: true }, 'not-confirmed'],
  ['never confirmed', { confirmedAt: null, correctedAt: null }, 'not-confirmed'],
  ['a confirming cut failed since', { failedAt: 12 }, 'stop'],
  ['failed, then corrected anew', { failedAt: 12, correctedAt: 13 }, 'not-confirmed'],
  ['failed long before', { failedAt: 8 }, 'in-register'],
] as const)('%s: %s', (_, change, state) => {
  expect(setupState({ ...calm, ...change })).toBe(state);
});

describe('looks at a setup’s shift', () => {
  const shift = (day: number) => ({ atMs: day * DAY_MS, acrossMm: day / 10, alongMm: 0, varianceMm2: 0.01 });
  const looks = looksOf([shift(1), shift(3), shift(6)], {
    setAnewMs: [5 * DAY_MS],
    events: [
      { atMs: 0.5 * DAY_MS, kind: 'moved' },
      { atMs: 2 * DAY_MS, kind: 'new_blade' },
      { atMs: 3 * DAY_MS, kind: 'firmware' },
      { atMs: 6.5 * DAY_MS, kind: 'moved' },
    ],
  });
  it('know what happened since the one before, and start afresh where the machine was set anew', () => {
    expect(looks.map((l) => [l.day, l.events.join(), l.isFresh])).toEqual([
      [1, '', true],
      [3, 'new_blade,firmware', false],
      [6, '', true],
    ]);
  });
});
