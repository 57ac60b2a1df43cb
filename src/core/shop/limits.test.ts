import { FAMILIES } from './words';
import { usualLimitsMm } from './limits';

describe('limits that are offered', () => {
  it('home cutters begin wide, rolls with marks at half a mm with 0.3 for fine work', () => {
    expect(usualLimitsMm('F1', 'mm')).toEqual([0.8, 0.5, 0.3, 1.6]);
    expect(usualLimitsMm('F3', 'mm')).toEqual([0.5, 0.3, 0.8]);
  });
  it('for people of inches, in round fractions: 1/32 and 1/16', () => {
    expect(usualLimitsMm('F1c', 'in-decimal')).toEqual([25.4 / 32, 25.4 / 50, 25.4 / 16]);
    expect(usualLimitsMm('F4', 'in-fraction')).toEqual([25.4 / 50, 25.4 / 32]);
  });
  it.each(FAMILIES)('%s has one to begin with, within what may be typed', (family) => {
    for (const system of ['mm', 'in-decimal', 'in-fraction'] as const)
      for (const limit of usualLimitsMm(family, system)) {
        expect(limit).toBeGreaterThanOrEqual(0.05);
        expect(limit).toBeLessThanOrEqual(5);
      }
  });
});
