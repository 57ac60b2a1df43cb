import { csvParseRows } from 'd3';
import fc from 'fast-check';
import { markFormulas, unmarkFormulas } from './formula-marks';
import { writeTable } from './write-table';

describe('a table as CSV', () => {
  it('comes back as it was, whatever stands in its cells (property)', () => {
    const cell = fc.string().map((words) => words.replace(/[=+\-@\t\r\n\uff1d\uff0b\uff0d\uff20]/g, ' '));
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, fc.double({ noNaN: true })), { minLength: 1 }), (rows) => {
        const back = csvParseRows(writeTable(['a', 'b', 'c mm'], rows));
        expect(back[0]).toEqual(['a', 'b', 'c mm']);
        expect(back.slice(1).map(([a, b, c]) => [a, b, Number(c)])).toEqual(rows.map(([a, b, c]) => [a, b, c + 0]));
      }),
    );
  });
  it('marks of formulas come off again, whatever the words were (property)', () => {
    const words = fc.string({
      unit: fc.constantFrom(
        'a',
        'b',
        '=',
        '+',
        '-',
        '@',
        ';',
        '\t',
        '\r',
        '\n',
        ',',
        '"',
        "'",
        ' ',
        '\uff1d',
        '\uff20',
      ),
    });
    fc.assert(
      fc.property(words, (text) => {
        expect(unmarkFormulas(markFormulas(text))).toBe(text);
        expect(markFormulas(text)).not.toMatch(/(^|[;\t\r\n])[ "]*[=+\-@\uff1d\uff0b\uff0d\uff20]/);
      }),
      { numRuns: 2000 },
    );
  });
  it('keeps words that look like a formula from being one, and figures figures', () => {
    expect(
      writeTable(
        ['what', 'mm'],
        [
          ['=1+1', -0.5],
          ['@x', null],
        ],
      ),
    ).toBe("what,mm\r\n'=1+1,-0.5\r\n'@x,\r\n");
  });
  it.each([
    ['a;=1+1', "a;'=1+1"],
    ['a; =1+1', "a; '=1+1"],
    ['a\t@sum', "a\t'@sum"],
    ['\uff1d1+1', "'\uff1d1+1"],
    ['\uff0b1', "'\uff0b1"],
    ['\uff20x', "'\uff20x"],
    ['a;"-2', 'a;"\'-2'],
    ['a = b - c', 'a = b - c'],
    ['2 x 3 @ 4', '2 x 3 @ 4'],
    ['blade-side', 'blade-side'],
  ])('%j goes out as %j', (words, wanted) => {
    const [, row] = csvParseRows(writeTable(['words'], [[words]]));
    expect(row).toEqual([wanted]);
  });
});
