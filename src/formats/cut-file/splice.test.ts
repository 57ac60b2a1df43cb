import fc from 'fast-check';
import { joiner, spliced, splicer, type Edit } from './splice';

/** A text and edits of it that do not overlap, in order. */
const edited = fc.string({ maxLength: 60 }).chain((text) =>
  fc
    .uniqueArray(fc.integer({ min: 0, max: text.length }), { maxLength: 12 })
    .chain((cuts) => {
      const places = [...cuts].sort((a, b) => a - b);
      const spans = places.flatMap((start, i) => (i % 2 === 0 ? [[start, places[i + 1] ?? start] as const] : []));
      return fc
        .array(fc.string({ maxLength: 5 }), { minLength: spans.length, maxLength: spans.length })
        .map((words) => spans.map(([start, end], i): Edit => ({ start, end, words: words[i] ?? '' })));
    })
    .map((edits) => ({ text, edits })),
);

/** The slow and plain way: from the last edit to the first. */
const plainly = (text: string, edits: readonly Edit[]): string =>
  [...edits]
    .sort((a, b) => b.start - a.start)
    .reduce((now, { start, end, words }) => now.slice(0, start) + words + now.slice(end), text);

describe('edits of a text', () => {
  it('are what replacing from the end gives, in any order (property)', () => {
    fc.assert(
      fc.property(edited, ({ text, edits }) => {
        expect(spliced(text, edits)).toBe(plainly(text, edits));
        expect(spliced(text, [...edits].reverse())).toBe(plainly(text, edits));
      }),
    );
  });
  it('none leave the text as it is', () => {
    expect(splicer('as it is').finished()).toBe('as it is');
  });
  it('an insertion and a replacement may meet', () => {
    const edits = [
      { start: 2, end: 2, words: '-' },
      { start: 2, end: 4, words: 'XY' },
    ];
    expect(spliced('abcdef', edits)).toBe('ab-XYef');
  });
  it('thirty thousand small pieces come out in order', () => {
    const out = joiner();
    for (let i = 0; i < 30_000; i++) out.take(`${i},`);
    expect(out.joined()).toBe(Array.from({ length: 30_000 }, (_, i) => `${i},`).join(''));
  });
});
