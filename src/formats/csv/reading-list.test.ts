import fc from 'fast-check';
import { parseReadingList, type ListedReading } from './reading-list';

const plain = (list: readonly ListedReading[]) => list.map(({ spotNo, axis, readingMm }) => [spotNo, axis, readingMm]);
const mm = (value: number) => expect.closeTo(value, 9) as number;

describe('a list of readings', () => {
  it.each([
    ['commas, decimal points', 'spot,across,along\n1,0.25,-0.10\n2,,0.05\n'],
    ['semicolons, decimal commas, Windows line ends', 'Spot;Across (mm);Along (mm)\r\n1;0,25;-0,10\r\n2;;0,05\r\n'],
    ['tabs, as copied from a spreadsheet, a true minus sign', 'spot\tacross\talong\n1\t0.25\t\u22120.10\n2\t\t0.05'],
    ['one reading a line', 'spot,axis,reading\n1,across,0.25\n1,along,-0.1\n2,Y,0.05\n'],
    [
      'other columns between, quoted cells, a byte order mark',
      '\ufeffspot,note,across,along\n1,"fine, I think",0.25,"-0.10"\n2,,,0.05',
    ],
    ['a unit in a cell', 'spot,across,along\n1,0.25 mm,-0.01 cm\n2,,0.05\n'],
  ])('%s', (_name, text) => {
    const { readings, problems } = parseReadingList(text, 'mm');
    expect(problems).toEqual([]);
    expect(plain(readings)).toEqual([
      [1, 'across', mm(0.25)],
      [1, 'along', mm(-0.1)],
      [2, 'along', mm(0.05)],
    ]);
  });
  it('inches by the head, and by the person where the head says nothing', () => {
    expect(plain(parseReadingList('spot,across (in),along (mm)\n1,0.01,0.5\n', 'mm').readings)).toEqual([
      [1, 'across', mm(0.254)],
      [1, 'along', mm(0.5)],
    ]);
    expect(plain(parseReadingList('spot,across\n3,0.01\n', 'in-decimal').readings)).toEqual([[3, 'across', mm(0.254)]]);
  });
  it.each([
    ['no head', '1,0.25,-0.10\n', { line: 1, field: 'head' }],
    ['an empty list', '', { line: 1, field: 'head' }],
    ['a word for a number', 'spot,across\n1,left\n', { line: 2, field: 'across' }],
    ['a spot that is none', 'spot,across\n1,0.1\nB,0.1\n', { line: 3, field: 'spot' }],
    ['an axis that is none', 'spot,axis,reading\n1,up,0.1\n', { line: 2, field: 'axis' }],
    ['the same figure twice', 'spot,across\n1,0.1\n2,0\n1,0.2\n', { line: 4, field: 'across' }],
    ['more than any sheet has', `spot,across\n${'1,\n'.repeat(600)}`, { line: 502, field: 'list' }],
  ])('%s is told by line and field', (_name, text, wanted) => {
    const { problems } = parseReadingList(text, 'mm');
    expect(problems).toHaveLength(1);
    expect(problems[0]).toMatchObject(wanted);
    expect(problems[0]?.words.length).toBeGreaterThan(10);
  });
  it('what is written is what is read, whatever separates it (property)', () => {
    const value = fc.integer({ min: -40, max: 40 }).map((n) => n / 20);
    const figures = fc.uniqueArray(fc.record({ spotNo: fc.integer({ min: 1, max: 12 }), a: value, b: value }), {
      selector: (f) => f.spotNo,
      maxLength: 12,
    });
    fc.assert(
      fc.property(figures, fc.constantFrom(',', ';', '\t'), fc.boolean(), (rows, separator, wantsComma) => {
        const number = (v: number): string => (wantsComma && separator !== ',' ? `${v}`.replace('.', ',') : `${v}`);
        const text = [['spot', 'across', 'along'], ...rows.map((r) => [String(r.spotNo), number(r.a), number(r.b)])]
          .map((cells) => cells.join(separator))
          .join('\n');
        const { readings, problems } = parseReadingList(text, 'mm');
        expect(problems).toEqual([]);
        expect(plain(readings)).toEqual(
          rows.flatMap((r) => [
            [r.spotNo, 'across', mm(r.a)],
            [r.spotNo, 'along', mm(r.b)],
          ]),
        );
      }),
    );
  });
  it('never fails on any text (property)', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary' }),
        fc.constantFrom('', 'spot,across,along\n', 'spot;axis;reading\n'),
        (text, head) => {
          const { readings } = parseReadingList(head + text, 'mm');
          expect(readings.every((r) => Number.isFinite(r.readingMm))).toBe(true);
        },
      ),
    );
  });
});
