import fc from 'fast-check';
import {
  LEAST_SPACING_MM,
  leastWidthMm,
  stationAtMm,
  stationFigures,
  STRIP_SIDES,
  stripFigureOf,
  type RollStrip,
} from './roll-strip';
import { stationCuts, stationInk } from './roll-strip-drawing';
import { codeCycle, placeOfCode, stationDiscOf, stripCodes } from './station-disc';

const strips = fc
  .record({
    sides: fc.constantFrom(['left', 'right'] as const, STRIP_SIDES),
    widerMm: fc.double({ min: 0, max: 1500, noNaN: true }),
    longerMm: fc.double({ min: 0, max: 5000, noNaN: true }),
    stations: fc.integer({ min: 1, max: 40 }),
    form: fc.constantFrom('strip' as const, 'piece' as const),
    hasDiscs: fc.boolean(),
  })
  .map(({ sides, widerMm, longerMm, ...rest }): RollStrip => ({
    ...rest,
    sides,
    widthMm: leastWidthMm(sides) + 2 + widerMm,
    spacingMm: LEAST_SPACING_MM + longerMm,
  }));

interface Extent {
  readonly left: number;
  readonly right: number;
  readonly low: number;
  readonly high: number;
}

function extentOf(points: readonly { readonly x: number; readonly y: number }[]): Extent {
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) };
}

describe('a roll strip', () => {
  it('keeps every station within its own piece of the roll, ink and cut', () => {
    fc.assert(
      fc.property(strips, (strip) => {
        const stationNo = strip.stations;
        const shapes = stationInk(strip, stationNo).map((s) => (s.kind === 'text' ? [s.at] : s.points));
        const all = extentOf([...shapes.flat(), ...stationCuts(strip, stationNo).flat()]);
        expect(all.left).toBeGreaterThanOrEqual(-strip.widthMm / 2);
        expect(all.right).toBeLessThanOrEqual(strip.widthMm / 2);
        expect(all.low).toBeGreaterThanOrEqual((stationNo - 1) * strip.spacingMm);
        expect(all.high).toBeLessThanOrEqual(stationNo * strip.spacingMm);
      }),
    );
  });

  it('lets no two figures touch', () => {
    fc.assert(
      fc.property(strips, (strip) => {
        const boxes = stationCuts(strip, 1).map(extentOf);
        for (const [i, a] of boxes.entries())
          for (const b of boxes.slice(i + 1))
            expect(a.right < b.left || b.right < a.left || a.high < b.low || b.high < a.low).toBe(true);
      }),
    );
  });

  it('the same piece every time where a program copies it, a known displacement of the ink where stations are numbered', () => {
    const strip: RollStrip = {
      widthMm: 300,
      spacingMm: 250,
      stations: 20,
      sides: ['left', 'right'],
      form: 'piece',
      hasDiscs: true,
    };
    const shifted = (n: number): readonly number[] =>
      stationFigures(strip, n).flatMap((f) => [f.origin.x, f.origin.y - (n - 1) * 250, f.ditherMm]);
    expect(shifted(7)).toEqual(shifted(1));
    expect(stationAtMm(strip, 7)).toBe(1625);
    const numbered = [1, 2, 3].map(
      (n) => stripFigureOf({ ...strip, form: 'strip' }, { stationNo: n, side: 'left', axis: 'along' })?.ditherMm,
    );
    expect(new Set(numbered).size).toBe(3);
  });

  it('has no figure where it has no station or side', () => {
    const strip: RollStrip = {
      widthMm: 300,
      spacingMm: 250,
      stations: 20,
      sides: ['left', 'right'],
      form: 'strip',
      hasDiscs: true,
    };
    expect(stripFigureOf(strip, { stationNo: 21, side: 'left', axis: 'along' })).toBeUndefined();
    expect(stripFigureOf(strip, { stationNo: 1, side: 'centre', axis: 'along' })).toBeUndefined();
  });

  it('finds a station again by its disc\u2019s word, from any station on', () => {
    fc.assert(
      fc.property(strips, fc.integer({ min: 1, max: 300 }), fc.nat(), (strip, stations, pick) => {
        const long = { ...strip, stations, form: 'strip' as const };
        const stationNo = 1 + (pick % stations);
        for (const side of long.sides) {
          const { codeNo } = stationDiscOf(long, { stationNo, side });
          expect(stripCodes(long)).toContain(codeNo);
          const first = Math.max(1, stationNo - codeCycle(long) + 1);
          expect(placeOfCode(long, codeNo, first)).toEqual({ stationNo, side });
          expect(placeOfCode(long, codeNo, stationNo)).toEqual({ stationNo, side });
          const later = placeOfCode(long, codeNo, stationNo + 1);
          expect(later?.stationNo ?? stationNo + codeCycle(long)).toBe(stationNo + codeCycle(long));
          if (!later) expect(stationNo + codeCycle(long)).toBeGreaterThan(stations);
        }
      }),
    );
  });

  it('a copied piece tells its side alone, and another strip\u2019s word nothing', () => {
    const strip: RollStrip = {
      ...{ widthMm: 300, spacingMm: 250, stations: 20, sides: ['left', 'right'], form: 'piece', hasDiscs: true },
    };
    expect(stripCodes(strip)).toEqual([0, 1]);
    expect(placeOfCode(strip, 1, 7)).toEqual({ stationNo: 7, side: 'right' });
    expect(placeOfCode(strip, 2, 7)).toBeNull();
    expect(placeOfCode({ ...strip, form: 'strip' }, 40, 1)).toBeNull();
  });
});
