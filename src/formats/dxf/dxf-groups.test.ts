import fc from 'fast-check';
import { codeAt, endAt, pairStartAt, readDxfFile, readGroups, startAt, valueAt } from './dxf-groups';
import { shownBy } from './dxf-blocks';
import { itemsOf } from './dxf-items';

const value = fc.string({ unit: fc.constantFrom('a', 'Z', '0', '7', '.', '-', ' '), maxLength: 12 });
const pairs = fc.array(fc.tuple(fc.integer({ min: -5, max: 1071 }), value), { minLength: 1, maxLength: 30 });

describe('groups of a DXF', () => {
  it.each([
    ['line feeds', '\n'],
    ['Windows line ends', '\r\n'],
    ['old line ends', '\r'],
  ])('%s: codes, values and places are those of the lines (property)', (_name, end) => {
    fc.assert(
      fc.property(pairs, fc.boolean(), (given, endsWithLine) => {
        const lines = given.flatMap(([code, words]) => [String(code).padStart(3), words]);
        const text = lines.join(end) + (endsWithLine ? end : '');
        // A last value that is nothing at all, without a line end, is no line.
        fc.pre(endsWithLine || (given.at(-1)?.[1] ?? '') !== '');
        const read = readGroups(text);
        if (!read.ok) throw new Error(read.error.words);
        const groups = read.value;
        expect(groups.count).toBe(given.length);
        given.forEach(([code, words], i) => {
          expect(codeAt(groups, i)).toBe(code);
          expect(valueAt(groups, i)).toBe(words.trim());
          expect(text.slice(startAt(groups, i), endAt(groups, i))).toBe(words.trim());
          expect(text.slice(pairStartAt(groups, i), pairStartAt(groups, i + 1)).split(end)[1]).toBe(words);
        });
      }),
    );
  });
  it.each([
    ['a word for a code', '0\nSECTION\nred\n5\n', 'line 3'],
    ['a fraction for a code', '0\nSECTION\n1.5\n5\n', 'line 3'],
    ['a code beyond the format', '0\nSECTION\n99999\n5\n', 'line 3'],
    ['an empty line for a code', '0\nSECTION\n\n5\n', 'line 3'],
  ])('%s is told by its line', (_name, text, where) => {
    expect(readGroups(text)).toMatchObject({ ok: false, error: { kind: 'not-a-drawing', where } });
  });
});

describe('blocks', () => {
  const line = (layer: string, colour: number): string =>
    `0\nLINE\n8\n${layer}\n62\n${colour}\n10\n0\n20\n0\n11\n1\n21\n1\n`;
  const insert = (name: string, layer = 'P'): string => `0\nINSERT\n8\n${layer}\n2\n${name}\n10\n0\n20\n0\n`;
  const block = (name: string, inside: string): string => `0\nBLOCK\n2\n${name}\n${inside}0\nENDBLK\n`;
  const drawing = (blocks: string, entities: string): string =>
    `0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
  const shown = (text: string): unknown => {
    const file = readDxfFile(text);
    if (!file.ok) throw new Error(file.error.words);
    const by = shownBy(file.value);
    return [...itemsOf(file.value, file.value.entities)].map((item) =>
      [...by(item)].map(({ colour, layer, count }) => [colour, layer, count]),
    );
  };

  it('show their lines by colour and layer; layer 0 takes that of the insertion', () => {
    const text = drawing(block('B', line('K', 1) + line('0', 5) + line('K', 1)), insert('B', 'P') + insert('B', 'Q'));
    expect(shown(text)).toEqual([
      [
        ['colour 1', 'K', 2],
        ['colour 5', 'P', 1],
      ],
      [
        ['colour 1', 'K', 2],
        ['colour 5', 'Q', 1],
      ],
    ]);
  });
  it('show what is in blocks inside them, as often as it is there', () => {
    const text = drawing(block('A', line('K', 1)) + block('B', insert('A').repeat(3) + line('L', 2)), insert('B'));
    expect(shown(text)).toEqual([
      [
        ['colour 1', 'K', 3],
        ['colour 2', 'L', 1],
      ],
    ]);
  });
  it('a block that is not there shows nothing; one that shows itself ends', () => {
    expect(shown(drawing(block('A', insert('A') + line('K', 1)), insert('missing')))).toEqual([[]]);
    expect(shown(drawing(block('A', line('K', 1) + insert('A')), insert('A')))).toEqual([[['colour 1', 'K', 1]]]);
  });
});
