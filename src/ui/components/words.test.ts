import { benchHeadline } from './bench-words';
import { agoWords, stampWords } from './dates';

it.each([
  [[], 'No setups yet'],
  [['in-register'], 'One in register'],
  [['in-register', 'stop', 'check-first', 'stop'], 'Two to stop, one to check first, one in register'],
  [Array.from({ length: 12 }, () => 'not-confirmed' as const), '12 not confirmed yet'],
] as const)('headline of %j', (states, words) => {
  expect(benchHeadline(states)).toBe(words);
});

it.each([
  [0, 'today'],
  [23, 'today'],
  [24, 'yesterday'],
  [24 * 6, '6 days ago'],
  [24 * 28, '4 weeks ago'],
  [24 * 91, '3 months ago'],
])('%s hours ago is %s', (hours, words) => {
  const now = new Date('2026-05-20T12:00:00Z');
  expect(agoWords(new Date(now.getTime() - hours * 3_600_000), now)).toBe(words);
});

it('times are UTC and say so', () => {
  expect(stampWords(new Date('2026-05-20T23:30:00Z'), 'UTC')).toBe('20 May 2026, 23:30 UTC');
  expect(stampWords(new Date('2026-05-20T23:30:00Z'), 'Asia/Tokyo')).toMatch(/^21 May 2026, 08:30 (GMT\+9|JST)$/);
});
