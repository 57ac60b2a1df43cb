import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  formatFine,
  formatFineNumber,
  formatLength,
  formatLengthNumber,
  formatReading,
  formatReadingNumber,
  formatSize,
  formatSizeNumber,
  lengthProblemWords,
  MM_PER_POINT,
  MM_PER_PX,
  parseLength,
  PLOTTER_UNITS_PER_MM,
  UNIT_SYSTEMS,
  type TypedUnit,
} from './length';
import { isoA, LETTER } from './sheet-size';

const outside = JSON.parse(readFileSync('test-data/worked/sheet_sizes_units.json', 'utf8')) as {
  iso216_mm: { A: [number, number][] };
  ansi_y14_1_in: { A: [number, number] };
  units: Record<'inch_mm' | 'pt_mm' | 'css_px_mm' | 'hpgl_plu_mm', number>;
};
const mm = (text: string, unit: TypedUnit = 'mm') => {
  const parsed = parseLength(text, unit);
  return parsed.ok ? parsed.value : parsed.error.kind;
};

describe('units against outside figures (test-data/worked/sheet_sizes_units.json)', () => {
  it('point 1/72 in, px 1/96 in, plotter unit 0.025 mm', () => {
    expect(MM_PER_POINT).toBeCloseTo(outside.units.pt_mm, 14);
    expect(MM_PER_PX).toBeCloseTo(outside.units.css_px_mm, 14);
    expect(1 / PLOTTER_UNITS_PER_MM).toBe(outside.units.hpgl_plu_mm);
  });
  it('ISO 216 A0 to A10 and ANSI A', () => {
    outside.iso216_mm.A.forEach(([width, length], i) => {
      expect(isoA(i)).toEqual({ widthMm: width, lengthMm: length });
    });
    expect(LETTER.widthMm).toBeCloseTo(outside.ansi_y14_1_in.A[0] * 25.4, 12);
    expect(LETTER.lengthMm).toBeCloseTo(outside.ansi_y14_1_in.A[1] * 25.4, 12);
  });
});

describe('reading lengths as people write them', () => {
  it.each([
    ['0.57', 'mm', 0.57],
    ['0,57', 'mm', 0.57],
    ['-,5 mm', 'mm', -0.5],
    ['\u22120.30', 'mm', -0.3],
    ['5 3/16', 'in-fraction', 131.7625],
    ['5-3/16 in', 'mm', 131.7625],
    ['3/16"', 'mm', 4.7625],
    ['-1/16', 'in-fraction', -1.5875],
    ['0.0625', 'in-decimal', 1.5875],
    ['20 thou', 'mm', 0.508],
    ['72 pt', 'mm', 25.4],
    ['96px', 'mm', 25.4],
    ['2 cm', 'in-decimal', 20],
  ] as const)('%s in %s', (text, system, wanted) => {
    expect(mm(text, system)).toBeCloseTo(wanted, 12);
  });
  it.each([
    ['', 'empty'],
    ['three', 'not-a-length'],
    ['1/0', 'not-a-length'],
    ['1.2.3', 'not-a-length'],
    ['1e3', 'not-a-length'],
    ['5 furlong', 'unknown-unit'],
  ])('refuses %j as %s, and says what it expects', (text, kind) => {
    const parsed = parseLength(text, 'mm');
    expect(parsed.ok ? 'read' : parsed.error.kind).toBe(kind);
    if (!parsed.ok) expect(lengthProblemWords(parsed.error, 'mm')).toMatch(/0\.35 or 0,35 mm/);
  });
  it('a bare number is in the unit printed on the sheet', () => {
    const thou = (text: string) => mm(text, 'thou');
    expect(thou('12')).toBeCloseTo(0.3048, 9);
    expect(thou('-.2 mm')).toBeCloseTo(-0.2, 9);
    expect(thou('0.012 in')).toBeCloseTo(0.3048, 9);
    expect(mm('.2', 'mm')).toBeCloseTo(0.2, 9);
    const wrong = parseLength('a bit', 'thou');
    expect(wrong.ok ? '' : lengthProblemWords(wrong.error, 'thou')).toMatch(/such as 14 or 14 thou/);
  });
  it('whatever is written can be typed back, to the written decimals, and holds no tilde (property)', () => {
    const lengths = fc.double({ min: 0, max: 500, noNaN: true });
    fc.assert(
      fc.property(lengths, fc.constantFrom(...UNIT_SYSTEMS), (value, system) => {
        const half = system === 'mm' ? 0.005 : 0.0127;
        for (const words of [formatLengthNumber(value, system), formatSizeNumber(value, system)]) {
          expect(words).not.toMatch(/~/);
          expect(Math.abs(Number(mm(words, system)) - value)).toBeLessThanOrEqual(half + 1e-9);
        }
      }),
    );
    fc.assert(
      fc.property(
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.constantFrom('mm', 'thou' as const),
        (value, unit) => {
          const back = mm(formatReadingNumber(value, unit, true), unit);
          expect(Math.abs(Number(back) - value)).toBeLessThanOrEqual(unit === 'mm' ? 0.005 + 1e-9 : 0.0127 + 1e-9);
        },
      ),
    );
  });
  it('fractions, to 1/32, stand for sizes alone, the decimal beside them', () => {
    expect(formatSize(1.5875, 'in-fraction')).toBe('1/16 in (0.063)');
    expect(formatSize(25.4 / 32, 'in-fraction')).toBe('1/32 in (0.031)');
    expect(formatSize(131.7625, 'in-fraction')).toBe('5 3/16 in (5.188)');
    expect(formatSize(50.8, 'in-fraction')).toBe('2 in');
    expect(formatSize(25.4 / 64, 'in-fraction')).toBe('0.016 in');
    expect(formatSize(0.3, 'in-fraction')).toBe('0.012 in');
    expect(formatSize(1.5875, 'in-decimal')).toBe('0.063 in');
    expect(formatSize(0.3, 'mm')).toBe('0.30 mm');
    expect(formatLength(1.5875, 'in-fraction')).toBe('0.063 in');
  });
  it('fine lengths carry one decimal more, readings the digits of their scale', () => {
    expect(formatFine(0.02, 'in-fraction')).toBe('0.0008 in');
    expect(formatFineNumber(0.01234, 'mm', true)).toBe('+0.012');
    expect(formatReading(0.3048, 'thou', true)).toBe('+12 thou');
    expect(formatReading(-0.3, 'mm')).toBe('\u22120.30 mm');
  });
  it('writes no minus before zero and a true minus elsewhere', () => {
    expect(formatLength(-0.001, 'mm', true)).toBe('0.00 mm');
    expect(formatLength(-0.57, 'mm')).toBe('\u22120.57 mm');
  });
});
