import { scaleWords, shapeAdvice, shapeRows, sizeWords } from './print-size-words';

const shape = {
  stretch: { value: 0.0013, sd: 0.00005 },
  skewRad: { value: -0.0004, sd: 0.0001 },
  scannerStretch: { value: 0.004, sd: 0.00005 },
  scannerSkewRad: { value: 0.003, sd: 0.0001 },
  covariance: 0,
};

describe('words for how true a print is', () => {
  it('its shape, with what it may be off by', () => {
    expect(shapeRows(shape, 'mm').map((row) => `${row.name}: ${row.found} ± ${row.doubt}`)).toEqual([
      'Print longer across than along: +0.130 % ± 0.010 %',
      'Print out of square: \u22120.040 mm in 100 mm ± 0.020 mm in 100 mm',
      'Scanner longer across its glass than down it: +0.400 % ± 0.010 %',
      'Scanner out of square: 0.300 mm in 100 mm ± 0.020 mm in 100 mm',
    ]);
    expect(shapeRows(shape, 'in-decimal')[3]?.found).toBe('3.00 thousandths an inch');
    expect(shapeAdvice(shape)).toContain('told apart. The cutter');
    expect(shapeAdvice({ ...shape, stretch: { value: 0, sd: 0.005 } })).toContain('Turn the sheet by a quarter');
  });

  it('its size: what is clearly off is told as a length, what its doubt hides is not', () => {
    const off = { across: { value: 0.9987, sd: 0.0001 }, along: { value: 1.0001, sd: 0.0001 } };
    expect(scaleWords(off)).toBe(
      'Across the print is 99.870 % of its size (give or take 0.020 %), along 100.010 % (give or take 0.020 %).',
    );
    expect(sizeWords(off, 'mm')).toMatch(/^200\.00 mm print 0\.26 mm too short across\. The cut follows/);
    expect(sizeWords({ across: off.along, along: off.along }, 'mm')).toBe('Neither is clearly off.');
  });
});
