import { CODE_BITS, CODE_WORDS, codeNoOf, dotAngles } from './code-book';

const ALL = 2 ** CODE_BITS - 1;
const LEAST_DISTANCE = 4;

function bitsIn(word: number): number {
  let [left, count] = [word, 0];
  while (left > 0) {
    left &= left - 1;
    count++;
  }
  return count;
}
const turned = (word: number, by: number): number => ((word << by) | (word >>> (CODE_BITS - by))) & ALL;
/** Seen from behind: bit b comes to lie at -b. */
function mirrored(word: number): number {
  let out = 0;
  for (let b = 0; b < CODE_BITS; b++) if ((word >> b) & 1) out |= 1 << ((CODE_BITS - b) % CODE_BITS);
  return out;
}
const turns = Array.from({ length: CODE_BITS }, (_, k) => k);
const formsOf = (word: number): readonly number[] => [
  ...turns.map((k) => turned(word, k)),
  ...turns.map((k) => turned(mirrored(word), k)),
];

it('is the first list that keeps every form of every word four bits apart: 84 words', () => {
  const book: number[] = [];
  for (let word = 0; word <= ALL; word++) {
    if (bitsIn(word) < 5 || bitsIn(word) > 13) continue;
    const forms = formsOf(word);
    const isOwnApart = forms.slice(1).every((f) => bitsIn(f ^ word) >= LEAST_DISTANCE);
    if (!isOwnApart) continue;
    if (book.every((known) => forms.every((f) => bitsIn(f ^ known) >= LEAST_DISTANCE))) book.push(word);
  }
  expect(book).toEqual(CODE_WORDS);
  expect(book).toHaveLength(84);
});

it('with one dot lost or gained a word is still nearer to itself than to any form of another', () => {
  for (const [i, word] of CODE_WORDS.entries())
    for (let bit = 0; bit < CODE_BITS; bit += 5) {
      const spoilt = word ^ (1 << bit);
      const others = CODE_WORDS.flatMap((other, k) => (k === i ? [] : formsOf(other)));
      expect(Math.min(...others.map((f) => bitsIn(f ^ spoilt)))).toBeGreaterThanOrEqual(3);
    }
});

it('every spot of both sets has a word of its own; a spot beyond the book is refused', () => {
  const numbers = ([1, 2] as const).flatMap((setNo) => Array.from({ length: 42 }, (_, i) => codeNoOf(setNo, i + 1)));
  expect(new Set(numbers).size).toBe(84);
  expect(Math.max(...numbers)).toBe(83);
  expect(() => codeNoOf(1, 43)).toThrow('no code for spot 43');
  expect(() => dotAngles(84)).toThrow('no code 84');
});

it('dots stand where their bits say: 0x00097 is bits 0, 1, 2, 4 and 7', () => {
  expect(dotAngles(0).map((a) => Math.round((a * 180) / Math.PI))).toEqual([0, 20, 40, 80, 140]);
});
