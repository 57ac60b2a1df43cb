import { scaleUtc } from 'd3';
import { timeTicks } from './time-ticks';

const ticksOf = (from: string, to: string, count: number): readonly string[] =>
  timeTicks(scaleUtc([new Date(from), new Date(to)], [0, 600]), count).map((t) => t.words);

it('no two ticks in a row say the same, however short the axis', () => {
  // Half days: four ticks, two days.
  expect(ticksOf('2026-11-24T08:00Z', '2026-11-26T10:00Z', 4)).toEqual(['24 Nov', '25 Nov', '26 Nov']);
});

it('years are told by month, days by day, hours by the hour', () => {
  expect(ticksOf('2016-01-01T00:00Z', '2026-01-01T00:00Z', 5)).toContain('Jan 2020');
  expect(ticksOf('2026-03-01T00:00Z', '2026-03-31T00:00Z', 4)).toContain('08 Mar');
  expect(ticksOf('2026-03-01T06:00Z', '2026-03-01T18:00Z', 4)).toContain('12:00');
});

it('of no length: at most one', () => {
  expect(ticksOf('2026-03-01T06:00Z', '2026-03-01T06:00Z', 4).length).toBeLessThan(2);
});
