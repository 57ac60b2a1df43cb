import fc from 'fast-check';
import { medianOf, medianSize } from './median';

describe('medians', () => {
  it('of an odd and an even number of values', () => {
    expect(medianOf([5, 1, 3])).toBe(3);
    expect(medianOf([4, 1, 3, 2])).toBe(2.5);
    expect(medianOf([])).toBeNaN();
  });
  it('of sizes: what sorting finds, whatever the values and however many are alike', () => {
    const value = fc.oneof(fc.integer({ min: -3, max: 3 }), fc.double({ noNaN: true, min: -1e6, max: 1e6 }));
    fc.assert(
      fc.property(fc.array(value, { minLength: 1, maxLength: 200 }), (values) => {
        const sorted = values.map(Math.abs).sort((a, b) => a - b);
        const found = medianSize(Float64Array.from(values), new Float64Array(values.length));
        expect(found).toBe(sorted[values.length >> 1]);
      }),
    );
  });
});
