import fc from 'fast-check';
import { apply, translation } from '../geometry/affine';
import { leastSquares, matrix } from '../math/qr';
import { seededRng } from '../math/random';
import { readCombPicture } from '../simulate/read-picture';
import { SHEET_NAMES } from '../units/sheet-size';
import { blockNamed, layOutBlock } from './block';
import {
  COMB_PITCH_MM,
  COMB_REACH_MM,
  combAnswers,
  combCuts,
  combToSheet,
  cutTickMm,
  nearestAnswer,
  printedTickMm,
  type CombPlace,
} from './comb';
import { combGridOf } from './comb-layout';
import { checkKindsOf, defineSheet, stylesOf } from './sheet-definition';

const place = (over: Partial<CombPlace> = {}): CombPlace => ({
  spotNo: 1,
  axis: 'across',
  centre: { x: 10, y: -20 },
  approach: 1,
  ...over,
});

describe('the vernier of a comb', () => {
  it('printed pitch is a whole number of dots at 300, 360, 600, 720 and 1200 to the inch', () => {
    for (const dpi of [300, 360, 600, 720, 1200]) {
      const dots = (COMB_PITCH_MM * dpi) / 25.4;
      expect(Math.abs(dots - Math.round(dots))).toBeLessThan(1e-9);
    }
  });

  it('by hand: cut tick 3 in line with printed tick 3 is three tenths; with tick 4, a pitch more', () => {
    // A spot without a part of the step of its own, and ticks put on whole units of 0.025 mm: within half a unit.
    const spotNo = [1, 2, 3, 4, 5, 6, 7, 8, 9].find((n) => cutTickMm(n, 0) === 0) ?? 1;
    expect(printedTickMm(3) - cutTickMm(spotNo, 3)).toBeCloseTo(0.3, 1);
    expect(printedTickMm(4) - cutTickMm(spotNo, 3)).toBeCloseTo(0.3 + COMB_PITCH_MM, 1);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9])('answers of spot %i rise without a gap over the whole reach', (spotNo) => {
    const answers = combAnswers({ spotNo });
    const steps = answers.slice(1).map((a, i) => a.readingMm - answers[i]!.readingMm);
    expect(Math.min(...steps)).toBeGreaterThan(0.02);
    expect(Math.max(...steps)).toBeLessThan(0.085);
    expect(answers[0]!.readingMm).toBeLessThanOrEqual(-COMB_REACH_MM + 0.03);
    expect(answers.at(-1)!.readingMm).toBeGreaterThanOrEqual(COMB_REACH_MM - 0.03);
  });

  it('nine spots share the step out: their whole answers differ by parts of it', () => {
    const parts = [1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => cutTickMm(n, 0));
    expect(Math.max(...parts) - Math.min(...parts)).toBeCloseTo(0.05, 9);
    expect(parts.reduce((sum, p) => sum + p, 0)).toBeCloseTo(0, 9);
  });

  it('a shift within the reach is read to less than half a tick (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -COMB_REACH_MM, max: COMB_REACH_MM, noNaN: true }),
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom('across' as const, 'along' as const),
        fc.constantFrom(1 as const, -1 as const),
        (shift, spotNo, axis, approach) => {
          const comb = place({ spotNo, axis, approach });
          const move = axis === 'across' ? translation(shift, 0.7) : translation(-0.7, shift);
          const seen = readCombPicture(
            comb,
            combCuts(comb).map((stroke) => stroke.map((p) => apply(move, p))),
          );
          expect(seen).toBeCloseTo(shift, 9);
          const answer = nearestAnswer(combAnswers(comb), seen ?? NaN);
          expect(Math.abs(answer.readingMm - shift)).toBeLessThan(0.0425);
        },
      ),
    );
  });

  it('ticks are cut all one way, from one end to the other, and the other way round from the other side', () => {
    const there = combCuts(place());
    const back = combCuts(place({ approach: -1 }));
    expect(back).toEqual([...there].reverse());
    for (const [from, to] of there) expect(to!.y).toBeGreaterThan(from!.y);
    expect(there.map(([from]) => from!.x)).toEqual([...there.map(([from]) => from!.x)].sort((a, b) => a - b));
  });

  it('a comb with a tick missing is not read', () => {
    expect(readCombPicture(place(), combCuts(place()).slice(1))).toBeNull();
  });

  it('along is across turned a quarter, seen from the ink', () => {
    const across = combToSheet(place({ centre: { x: 0, y: 0 } }), { s: 3, w: 1 });
    const along = combToSheet(place({ centre: { x: 0, y: 0 }, axis: 'along' }), { s: 3, w: 1 });
    expect(along).toEqual({ x: -across.y, y: across.x });
  });
});

describe('sheets of combs', () => {
  it('A4 and Letter hold nine spots each, half of them cut from either side', () => {
    const spots = (['A4', 'Letter'] as const).map((name) => {
      const { combs } = defineSheet({ block: blockNamed(name), checkKind: 'full', style: 'comb' });
      const sides = combs.filter((c) => c.axis === 'across').map((c) => c.approach);
      expect(Math.abs(sides.reduce<number>((sum, side) => sum + side, 0))).toBeLessThanOrEqual(1);
      return sides.length;
    });
    expect(spots).toEqual([9, 9]);
    expect(checkKindsOf(blockNamed('A4'), 'comb')).toEqual(['quick', 'full']);
  });

  it('on every page what is lost at a change of direction hardly blurs scale and turn', () => {
    for (const name of SHEET_NAMES) {
      const block = blockNamed(name);
      if (!stylesOf(block).includes('comb')) continue;
      for (const checkKind of checkKindsOf(block, 'comb')) {
        const combs = defineSheet({ block, checkKind, style: 'comb' }).combs.filter((c) => c.axis === 'across');
        const rows = combs.map((c) => [1, c.centre.x, c.centre.y, c.approach]);
        const slopes = (columns: number): readonly number[] => {
          const solved = leastSquares(
            matrix(rows.length, columns, (r, c) => rows[r]![c]!),
            new Float64Array(rows.length),
          );
          if (!solved.ok) throw new Error(`${name} ${checkKind}: ${solved.error.kind}`);
          const at = (i: number): number => Math.sqrt(solved.value.inverseNormal[i * columns + i]!);
          return [at(1), at(2)];
        };
        const [plain, sided] = [slopes(3), slopes(4)];
        for (const i of [0, 1]) expect(sided[i]! / plain[i]!).toBeLessThan(1.2);
      }
    }
  });

  it('a page that is too small for combs offers none, and says so when asked all the same', () => {
    const rng = seededRng(3);
    let without = 0;
    for (let i = 0; i < 200; i++) {
      const page = { name: 'piece', widthMm: 120 + 80 * rng(), lengthMm: 160 + 120 * rng() };
      const block = layOutBlock(page);
      if (!block.ok || combGridOf(block.value)) continue;
      without++;
      expect(stylesOf(block.value)).not.toContain('comb');
      expect(() => defineSheet({ block: block.value, checkKind: 'quick', style: 'comb' })).toThrow('too few combs');
    }
    expect(without).toBeGreaterThan(5);
  });
});
