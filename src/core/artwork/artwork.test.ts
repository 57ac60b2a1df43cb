import fc from 'fast-check';
import type { Point } from '../geometry/affine';
import { lineLength, samplesOf, type CutLine } from './cut-line';
import {
  doubledLines,
  letteringAmong,
  linesOffArt,
  originalsUnderOffsets,
  SAME_LINE_MM,
  SPECK_MM,
  specks,
  TALLEST_LETTER_MM,
  WIDEST_OFFSET_MM,
} from './line-checks';
import { effectiveDpi, keptLength, LEAST_DPI, STRETCH_SHARE, stretchOf } from './picture-checks';

const line = (points: readonly (readonly [number, number])[], isClosed = true, place = 'somewhere'): CutLine => ({
  points: points.map(([x, y]): Point<'page'> => ({ x, y })),
  isClosed,
  place,
});
const box = (left: number, bottom: number, [w, h]: readonly [number, number], place = 'box'): CutLine =>
  line(
    [
      [left, bottom],
      [left + w, bottom],
      [left + w, bottom + h],
      [left, bottom + h],
    ],
    true,
    place,
  );
const circle = (x: number, y: number, r: number, place = 'circle'): CutLine => polygon(90, [x, y], r, place);
function polygon(corners: number, [x, y]: readonly [number, number], r: number, place: string): CutLine {
  const at = (i: number): readonly [number, number] => {
    const turn = (2 * Math.PI * i) / corners;
    return [x + r * Math.cos(turn), y + r * Math.sin(turn)];
  };
  return line(
    Array.from({ length: corners }, (_, i) => at(i)),
    true,
    place,
  );
}
const reversed = (l: CutLine): CutLine => ({ ...l, points: [...l.points].reverse() });

describe('samples along a line', () => {
  it('are evenly spaced and stay on it', () => {
    const samples = samplesOf(box(0, 0, [10, 5]), 0.5);
    expect(samples).toHaveLength(61);
    expect(lineLength(box(0, 0, [10, 5]))).toBe(30);
    expect(samples.every((p) => p.x === 0 || p.x === 10 || p.y === 0 || p.y === 5 || Math.abs(p.y) < 1e-9)).toBe(true);
  });
});

describe('doubled lines', () => {
  it('are found whichever way they run, from wherever they start, drawn with other points, a hair apart', () => {
    const first = circle(20, 20, 10, 'first');
    const twins = [first, reversed(first), polygon(400, [20, 20], 10, 'finer'), circle(20.03, 20, 10, 'a hair off')];
    for (const twin of twins) {
      const [found, ...rest] = doubledLines([first, { ...twin, place: 'twin' }]);
      expect(rest).toEqual([]);
      expect(found).toMatchObject({ kind: 'doubled', places: ['twin', 'first'] });
      expect(found?.amount).toBeCloseTo(lineLength(twin), 0);
    }
  });
  it('a shared side of two boxes is a quarter of each and not called doubled; two shared sides are', () => {
    expect(doubledLines([box(0, 0, [10, 10]), box(10, 0, [10, 10])])).toEqual([]);
    const corner = line(
      [
        [0, 0],
        [10, 0],
        [10, 10],
      ],
      false,
      'open corner',
    );
    expect(doubledLines([box(0, 0, [10, 10]), corner])).toHaveLength(1);
  });
  it('neighbours 0.2 mm apart are not (common practice, no published source: 0.05 mm)', () => {
    expect(SAME_LINE_MM).toBe(0.05);
    expect(doubledLines([circle(0, 0, 10), circle(0, 0, 10.2)])).toEqual([]);
  });
  it('every copy on top of another is found, wherever the drawing lies (property)', () => {
    const at = fc.double({ min: -2000, max: 2000, noNaN: true });
    fc.assert(
      fc.property(at, at, fc.double({ min: 2, max: 200, noNaN: true }), (x, y, r) => {
        expect(doubledLines([circle(x, y, r), circle(x, y, r)])).toHaveLength(1);
      }),
      { numRuns: 30 },
    );
  });
});

describe('an original left under its offset', () => {
  it('is found by its even distance, 0.05 in and 0.25 in alike', () => {
    for (const d of [1.27, 6.35]) {
      const [found, ...rest] = originalsUnderOffsets([
        circle(0, 0, 20, 'original'),
        polygon(360, [0, 0], 20 + d, 'offset'),
      ]);
      expect(rest).toEqual([]);
      expect(found?.places).toEqual(['original', 'offset']);
      expect(found?.amount).toBeCloseTo(d, 1);
    }
  });
  it('a piece beside another, one much larger, one askew inside: none of them', () => {
    expect(originalsUnderOffsets([circle(0, 0, 10), circle(30, 0, 10)])).toEqual([]);
    expect(originalsUnderOffsets([circle(0, 0, 5), circle(0, 0, 30)])).toEqual([]);
    expect(originalsUnderOffsets([circle(2, 0, 10), circle(0, 0, 14)])).toEqual([]);
  });
  it('looks as far as 10 mm (common practice, no published source)', () => {
    expect(WIDEST_OFFSET_MM).toBe(10);
  });
});

describe('lines off their art', () => {
  const art = [{ left: 0, bottom: 0, width: 30, height: 30 }];
  it('are those that touch none of it', () => {
    expect(linesOffArt([box(-2, -2, [34, 34]), box(50, 0, [10, 10], 'lost')], art, 3)).toMatchObject([
      { places: ['lost'] },
    ]);
    expect(linesOffArt([box(32, 0, [10, 10])], art, 3)).toEqual([]);
  });
});

describe('specks and lettering', () => {
  it('a closed line under 1 mm is a speck (common practice, no published source)', () => {
    expect(SPECK_MM).toBe(1);
    expect(specks([circle(0, 0, 0.4), circle(0, 0, 0.6)])).toHaveLength(1);
  });
  it('letters on a line are told from steps of one piece and from pieces apart', () => {
    const letters = [5, 4.2, 5.5, 3.9, 5].map((w, i) => box(i * 7, i % 2 === 0 ? 0 : 0.2, [w, 6 + (i % 2)], 'a word'));
    expect(letteringAmong(letters)).toMatchObject([{ kind: 'lettering', amount: 5 }]);
    expect(letteringAmong(Array.from({ length: 6 }, (_, i) => box(i * 7, 0, [5, 6])))).toEqual([]);
    expect(
      letteringAmong(letters.map((l) => ({ ...l, points: l.points.map((p) => ({ x: p.x * 4, y: p.y })) }))),
    ).toEqual([]);
    expect(letteringAmong(letters.slice(0, 3))).toEqual([]);
  });
  it('lettering is no taller than 15 mm (common practice, no published source)', () => {
    expect(TALLEST_LETTER_MM).toBe(15);
  });
});

describe('pictures at their size', () => {
  it('600 px on 50.8 mm are 300 to the inch', () => {
    expect(effectiveDpi({ widthPx: 600, heightPx: 300 }, 50.8, 50.8)).toEqual({ across: 300, along: 150 });
  });
  it('1 wide gives 2.631 tall, 1 tall 0.380 wide (common practice, no published source)', () => {
    const own = { width: 380, height: 1000 };
    expect(keptLength(own, 1)).toBeCloseTo(2.6316, 3);
    expect(keptLength({ width: 1000, height: 380 }, 1)).toBeCloseTo(0.38, 9);
  });
  it('a tenth too wide is a stretch of 0.1, a kept proportion none', () => {
    expect(stretchOf({ width: 100, height: 50 }, { width: 110, height: 50 })).toBeCloseTo(0.1, 9);
    expect(stretchOf({ width: 100, height: 50 }, { width: 30, height: 15 })).toBeCloseTo(0, 12);
  });
  it('150 to the inch and a stretch of one in a hundred are where it is told (common practice, no published source)', () => {
    expect([LEAST_DPI, STRETCH_SHARE]).toEqual([150, 0.01]);
  });
});
