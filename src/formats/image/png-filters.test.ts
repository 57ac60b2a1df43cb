import { seededRng } from '@/core/math/random';
import { unfilterRow } from './png-filters';

/** Predictors in the words of PNG (second edition) 9.2 and 9.4: a left, b above, c upper left. */
const PREDICTORS = [
  () => 0,
  (a: number) => a,
  (_a: number, b: number) => b,
  (a: number, b: number) => Math.floor((a + b) / 2),
  (a: number, b: number, c: number) => {
    const p = a + b - c;
    const [pa, pb, pc] = [Math.abs(p - a), Math.abs(p - b), Math.abs(p - c)];
    if (pa <= pb && pa <= pc) return a;
    return pb <= pc ? b : c;
  },
] as const;

const rng = seededRng(17);
const randomRow = (length: number, levels: number): Uint8Array =>
  Uint8Array.from({ length }, () => Math.floor((rng() * 256) / levels) * levels);

describe.each([0, 1, 2, 3, 4])('filter %i undone is the row that was filtered', (filter) => {
  // Few levels bring many ties.
  test.each([
    [1, 1],
    [1, 64],
    [2, 1],
    [3, 32],
    [4, 1],
    [8, 64],
  ])('%i bytes a pixel, levels %i apart', (back, levels) => {
    for (let length = back; length < back * 40; length += back) {
      const row = randomRow(length, levels);
      const above = randomRow(length, levels);
      const filtered = Uint8Array.from({ length: length + 1 }, (_, i) => {
        if (i === 0) return filter;
        const at = i - 1;
        const [a, c] = at < back ? [0, 0] : [row[at - back]!, above[at - back]!];
        return row[at]! - PREDICTORS[filter]!(a, above[at]!, c);
      });
      const out = new Uint8Array(length);
      expect(unfilterRow(filtered, above, out, back)).toBe(true);
      expect(out).toEqual(row);
    }
  });
});

test('a filter that does not exist is told', () => {
  expect(unfilterRow(Uint8Array.of(5, 0), new Uint8Array(1), new Uint8Array(1), 1)).toBe(false);
});
