import { brightnessAt, reducedBy, type GrayImage } from './gray';

const ramp = (width: number, height: number): GrayImage => ({
  width,
  height,
  data: Uint8Array.from({ length: width * height }, (_, i) => 2 * (i % width) + Math.floor(i / width)),
});

describe('a gray picture', () => {
  it('a reduced one holds the means of whole blocks, what is over is dropped', () => {
    const { width, height, data } = reducedBy(ramp(11, 7), 3);
    expect([width, height]).toEqual([3, 2]);
    expect([...data]).toEqual([3, 9, 15, 6, 12, 18]);
    expect(reducedBy(ramp(5, 5), 1)).toEqual(ramp(5, 5));
    // Eight looks at a block, two rows of four: 1 and 3 of four, 2 and 6 of eight, where the columns are 1, 3, 5 and 7.
    expect([...reducedBy(ramp(8, 4), 4).data]).toEqual([5, 13]);
    expect([...reducedBy(ramp(16, 8), 8).data]).toEqual([12, 28]);
  });
  it('between pixels brightness runs straight, beyond the edge it stays', () => {
    const image = ramp(6, 5);
    expect(brightnessAt(image, 2.5, 1.5)).toBe(5);
    expect(brightnessAt(image, 3, 2)).toBeCloseTo(6.5, 12);
    expect(brightnessAt(image, -4, -4)).toBe(0);
    expect(brightnessAt(image, 99, 99)).toBe(14);
  });
});
