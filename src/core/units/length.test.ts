import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  formatLength,
  lengthProblemWords,
  MM_PER_POINT,
  MM_PER_PX,
  parseLength,
  PLOTTER_UNITS_PER_MM,
  UNIT_SYSTEMS,
  type UnitSystem,
} from './length';
import { isoA, LETTER } from './sheet-size';

const outside = JSON.parse(readFileSync('test-data/worked/sheet_sizes_units.json', 'utf8')) as {
  iso216_mm: { A: [number, number][] };
  ansi_y14_1_in: { A: [number, number] };
  units: Record<'inch_mm' | 'pt_mm' | 'css_px_mm' | 'hpgl_plu_mm', number>;
};
const mm = (text: string, system: UnitSystem = 'mm') => {
  const parsed = parseLength(text, system);
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
  it('reads back what it writes, to the written decimals (property)', () => {
    const half = { mm: 0.005, 'in-decimal': 0.0127, 'in-fraction': 25.4 / 128 };
    fc.assert(
      fc.property(
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.constantFrom(...UNIT_SYSTEMS),
        (value, system) => {
          const back = mm(formatLength(value, system).replace('~', ''), system);
          expect(Math.abs(Number(back) - value)).toBeLessThanOrEqual(half[system] + 1e-9);
        },
      ),
    );
  });
  it('writes no minus before zero and a true minus elsewhere', () => {
    expect(formatLength(-0.001, 'mm', true)).toBe('0.00 mm');
    expect(formatLength(-0.57, 'mm')).toBe('\u22120.57 mm');
    expect(formatLength(1.5875, 'in-fraction')).toBe('1/16 in');
    expect(formatLength(0.3, 'in-fraction')).toBe('~1/64 in');
  });
});
