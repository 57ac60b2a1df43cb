import fc from 'fast-check';
import { BORDER_CALIPER_SD_MM, readBorders, type FourBorders } from './borders';
import { seededRng, standardNormal } from '../math/random';
import { isLadder, labelOf, learnStep, lineOf, LINE_LABELS, namedLine, readLadder, type Ladder } from './ladder';
import { EYE_SD_MM } from './uncertainty';

const near = (value: number): unknown => expect.closeTo(value, 12);
const RULES = { side: 'outside', nominalMm: 1.5, borderSdMm: 0.07, toleranceMm: 0.3 } as const;

describe('four borders of a finished piece', () => {
  it('by hand: 1.8 left and 1.2 right of a print cut round, 1.7 below and 1.3 above', () => {
    const read = readBorders({ leftMm: 1.8, rightMm: 1.2, topMm: 1.3, bottomMm: 1.7 }, RULES);
    if (!read.ok) throw new Error(read.error.kind);
    // More white on the left: the cut lies to the left. More below: it lies low.
    expect(read.value.shift).toEqual({ x: near(-0.3), y: near(-0.2) });
    expect(read.value.sizeMm).toEqual({ across: near(0), along: near(0) });
    expect(read.value.standardUncertaintyMm).toBeCloseTo(0.07 / Math.SQRT2, 12);
    expect(read.value.bounds.worstMm).toBeCloseTo(Math.hypot(0.3, 0.2), 12);
    expect(read.value.verdict).toBe('cannot_tell');
  });
  it('inside a print the signs turn about', () => {
    const borders = { leftMm: 1.8, rightMm: 1.2, topMm: 1.5, bottomMm: 1.5 };
    const read = readBorders(borders, { ...RULES, side: 'inside' });
    expect(read.ok && read.value.shift.x).toBeCloseTo(0.3, 12);
  });
  it('gain of the ink on all sides is no shift (property)', () => {
    const border = fc.double({ min: 0.5, max: 3, noNaN: true });
    const four = fc.record({ leftMm: border, rightMm: border, topMm: border, bottomMm: border });
    const grown = (b: FourBorders, d: number): FourBorders => ({
      leftMm: b.leftMm - d,
      rightMm: b.rightMm - d,
      topMm: b.topMm - d,
      bottomMm: b.bottomMm - d,
    });
    fc.assert(
      fc.property(four, fc.double({ min: 0, max: 0.4, noNaN: true }), (borders, gain) => {
        const clean = readBorders(borders, RULES);
        const fat = readBorders(grown(borders, gain), RULES);
        if (!clean.ok || !fat.ok) throw new Error('unread');
        expect(fat.value.shift.x).toBeCloseTo(clean.value.shift.x, 12);
        expect(fat.value.shift.y).toBeCloseTo(clean.value.shift.y, 12);
      }),
    );
  });
  it('a clear pass, a clear fail, and a border that is none', () => {
    const even = { leftMm: 1.5, rightMm: 1.5, topMm: 1.5, bottomMm: 1.5 };
    expect(readBorders(even, RULES)).toMatchObject({ value: { verdict: 'pass' } });
    expect(readBorders({ ...even, leftMm: 3 }, RULES)).toMatchObject({ value: { verdict: 'fail' } });
    expect(readBorders({ ...even, topMm: -1 }, RULES)).toEqual({
      ok: false,
      error: { kind: 'no-border', side: 'topMm' },
    });
    expect(readBorders({ ...even, topMm: NaN }, RULES).ok).toBe(false);
  });
});

describe('a machine\u2019s own ladder', () => {
  const ladder: Ladder = { labels: 'numbers', firstNumber: 1, lines: 21, middle: 11, takesHalves: true, stepMm: 0.1 };
  it('line 14 of 21 is three steps from the 11th (common practice, no published source)', () => {
    expect(readLadder(ladder, 14)).toEqual({
      ok: true,
      value: {
        steps: 3,
        shift: {
          valueMm: near(0.3),
          standardUncertaintyMm: near(Math.hypot(0.05 / Math.sqrt(12), 0.04)),
        },
        isNearEnd: false,
      },
    });
  });
  it('two lines equally good are the half between them; without a step there is no length', () => {
    expect(readLadder({ ...ladder, stepMm: null }, 13.5)).toEqual({
      ok: true,
      value: { steps: 2.5, shift: null, isNearEnd: false },
    });
  });
  it.each([
    [1, true],
    [2, true],
    [2.5, false],
    [19.5, false],
    [20, true],
    [21, true],
  ])('line %s: near the end %s', (line, isNearEnd) => {
    expect(readLadder(ladder, line)).toMatchObject({ value: { isNearEnd } });
  });
  it.each([
    ['a line that is not there', ladder, 22, { kind: 'beyond-ladder', lines: 21 }],
    ['a third of a line', ladder, 11.3, { kind: 'no-half', got: 11.3 }],
    ['a middle outside the row', { ...ladder, middle: 30 }, 11, { kind: 'no-ladder' }],
    ['no line at all', ladder, NaN, { kind: 'beyond-ladder', lines: 21 }],
  ])('%s is its own answer', (_name, own, line, error) => {
    expect(readLadder(own, line)).toEqual({ ok: false, error });
  });
});

describe('labels of lines', () => {
  const row = (over: Partial<Ladder>): Ladder => ({
    ...{ labels: 'numbers', firstNumber: 1, lines: 11, middle: 6, takesHalves: true, stepMm: null },
    ...over,
  });
  it('are numbers from 1 or from 0, letters, or counted from the middle with a sign', () => {
    const all = (of: Ladder): string => Array.from({ length: of.lines }, (_, i) => labelOf(of, i + 1)).join(' ');
    expect(all(row({}))).toBe('1 2 3 4 5 6 7 8 9 10 11');
    expect(all(row({ firstNumber: 0, lines: 4, middle: 2 }))).toBe('0 1 2 3');
    expect(all(row({ labels: 'letters', lines: 5, middle: 3 }))).toBe('A B C D E');
    expect(all(row({ labels: 'signed' }))).toBe('\u22125 \u22124 \u22123 \u22122 \u22121 0 +1 +2 +3 +4 +5');
  });
  it.each([
    ['letters', 'c', 3],
    ['letters', 'C/D', 3.5],
    ['letters', 'c & d', 3.5],
    ['letters', 'A/C', null],
    ['letters', '3', null],
    ['signed', '2', 8],
    ['signed', '-2', 4],
    ['signed', '\u22121,5', 4.5],
    ['signed', '+1/+2', 7.5],
    ['signed', '6', null],
    ['signed', '5.5', null],
    ['numbers', '11', 11],
    ['numbers', '10.5', 10.5],
    ['numbers', '10.3', null],
    ['numbers', '', null],
  ] as const)('%s, %j: line %s', (labels, text, line) => {
    expect(lineOf(row({ labels }), text)).toBe(line);
  });
  it('what a line is called is read back as that line, half ones too (property)', () => {
    const rows = fc
      .record({
        labels: fc.constantFrom(...LINE_LABELS),
        firstNumber: fc.integer({ min: -5, max: 5 }),
        lines: fc.integer({ min: 2, max: 26 }),
        takesHalves: fc.boolean(),
        stepMm: fc.constant(null),
      })
      .chain((r) =>
        fc.record({
          row: fc.integer({ min: 1, max: r.lines }).map((middle) => ({ ...r, middle })),
          twice: fc.integer({ min: 2, max: 2 * r.lines }),
        }),
      );
    fc.assert(
      fc.property(rows, ({ row: of, twice }) => {
        expect(isLadder(of)).toBe(true);
        expect(lineOf(of, namedLine(of, twice / 2))).toBe(twice / 2);
      }),
    );
  });
  it.each([
    ['one line', { lines: 1, middle: 1 }],
    ['more letters than there are', { labels: 'letters', lines: 27 }],
    ['the middle outside', { middle: 12 }],
    ['a step of nothing', { stepMm: 0 }],
  ] as const)('%s is no row', (_name, over) => {
    expect(isLadder(row(over))).toBe(false);
  });
});

describe('the step of a ladder from two runs', () => {
  it('six lines for 0.6 mm: a tenth, known to 2 %', () => {
    const learned = learnStep(11, 17, -0.6);
    if (!learned.ok) throw new Error(learned.error.kind);
    expect(learned.value.stepMm).toBeCloseTo(0.1, 12);
    // (0.5 / sqrt 12) x sqrt 2 / 6 of a step.
    expect(learned.value.standardUncertaintyMm).toBeCloseTo((0.1 * 0.2041) / 6, 5);
  });
  it.each([
    [11, 13.5, 0.3, 'too-near'],
    [11, 11, 0.3, 'too-near'],
    [11, 15, 0, 'no-change'],
    [11, 15, NaN, 'no-change'],
  ])('line %s, then %s, after %s mm: %s', (before, after, changeMm, kind) => {
    expect(learnStep(before, after, changeMm)).toMatchObject({ ok: false, error: { kind } });
  });
  it('claims what comes: 2,000 steps learned, either line read to the nearest half', () => {
    const rng = seededRng(7);
    const half = (line: number): number => Math.round(2 * line) / 2;
    let squares = 0;
    let claimed = 0;
    for (let i = 0; i < 2000; i++) {
      const stepMm = 0.05 + 0.1 * rng();
      const start = 3 + 2 * rng();
      const lines = 4 + 4 * rng();
      const learned = learnStep(half(start), half(start + lines), lines * stepMm);
      if (!learned.ok) throw new Error(learned.error.kind);
      squares += ((learned.value.stepMm - stepMm) / stepMm) ** 2;
      claimed += (learned.value.standardUncertaintyMm / stepMm) ** 2;
    }
    expect(Math.sqrt(squares / claimed)).toBeGreaterThan(0.9);
    expect(Math.sqrt(squares / claimed)).toBeLessThan(1.1);
  });
});

describe('coverage of 95 % intervals by simulation, 4,000 trials', () => {
  const TRIALS = 4000;
  const inside = (error: number, u: number): boolean => Math.abs(error) <= 1.959964 * u;

  it('the shift from four borders by caliper', () => {
    const rng = seededRng(41);
    const noisy = (mm: number): number => mm + BORDER_CALIPER_SD_MM * standardNormal(rng);
    let hits = 0;
    for (let i = 0; i < TRIALS; i++) {
      const [x, y] = [rng() - 0.5, rng() - 0.5];
      const borders = { leftMm: noisy(3 - x), rightMm: noisy(3 + x), bottomMm: noisy(3 - y), topMm: noisy(3 + y) };
      const read = readBorders(borders, { ...RULES, borderSdMm: BORDER_CALIPER_SD_MM });
      if (!read.ok) throw new Error(read.error.kind);
      const { shift, standardUncertaintyMm: u } = read.value;
      hits += Number(inside(shift.x - x, u)) + Number(inside(shift.y - y, u));
    }
    expect(hits / (2 * TRIALS)).toBeGreaterThanOrEqual(0.94);
    expect(hits / (2 * TRIALS)).toBeLessThanOrEqual(0.96);
  });

  it('the shift from a machine\u2019s own ladder, the best line or the half between two taken', () => {
    const rng = seededRng(42);
    const stepMm = 0.1;
    const ladder: Ladder = { labels: 'numbers', firstNumber: 1, lines: 21, middle: 11, takesHalves: true, stepMm };
    let hits = 0;
    for (let i = 0; i < TRIALS; i++) {
      const trueMm = 1.4 * (rng() - 0.5);
      const line = 11 + Math.round((2 * (trueMm + EYE_SD_MM * standardNormal(rng))) / stepMm) / 2;
      const read = readLadder(ladder, line);
      if (!read.ok || !read.value.shift) throw new Error('not read');
      hits += Number(inside(read.value.shift.valueMm - trueMm, read.value.shift.standardUncertaintyMm));
    }
    expect(hits / TRIALS).toBeGreaterThanOrEqual(0.94);
    expect(hits / TRIALS).toBeLessThanOrEqual(0.97);
  });
});
