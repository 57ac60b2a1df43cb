import { faultOf } from './fault';

it.each([
  [0.5, 0.1, 'calibration'],
  [0.1, 0.5, 'reading'],
  [0.5, 0.5, 'both'],
  [0.1, 0.1, 'none'],
  [0.3, 0.3, 'none'],
  [-0.2, 0.31, 'reading'],
] as const)('constant surely above %s, loads alone %s, 0.3 allowed: %s', (constantLowerMm, loadQ95Mm, fault) => {
  expect(faultOf({ constantLowerMm, loadQ95Mm, toleranceMm: 0.3 })).toBe(fault);
});

it('scaled alike, the answer is the same: it hangs on ratios alone', () => {
  for (const [c, l] of [
    [0.5, 0.1],
    [0.1, 0.5],
    [0.31, 0.29],
  ] as const)
    for (const k of [0.01, 1, 25.4])
      expect(faultOf({ constantLowerMm: c * k, loadQ95Mm: l * k, toleranceMm: 0.3 * k })).toBe(
        faultOf({ constantLowerMm: c, loadQ95Mm: l, toleranceMm: 0.3 }),
      );
});
