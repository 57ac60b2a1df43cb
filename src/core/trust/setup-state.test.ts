import { setupState, type SetupFacts } from './setup-state';

const calm: SetupFacts = {
  confirmedAt: 10,
  worstMm: 0.1,
  toleranceMm: 0.3,
  eventsSince: 0,
  correctedAt: 9,
  failedAt: null,
};

it.each([
  ['confirmed and nothing since', {}, 'in-register'],
  ['something happened since', { eventsSince: 1 }, 'check-first'],
  ['corrected after it was confirmed', { correctedAt: 11 }, 'not-confirmed'],
  ['never confirmed', { confirmedAt: null, correctedAt: null }, 'not-confirmed'],
  ['a confirming cut failed since', { failedAt: 12 }, 'stop'],
  ['failed, then corrected anew', { failedAt: 12, correctedAt: 13 }, 'not-confirmed'],
  ['failed long before', { failedAt: 8 }, 'in-register'],
] as const)('%s: %s', (_, change, state) => {
  expect(setupState({ ...calm, ...change })).toBe(state);
});
