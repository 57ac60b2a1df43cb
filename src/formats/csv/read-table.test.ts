import { csvFormatRows, dsvFormat } from 'd3';
import fc from 'fast-check';
import { parseDecimal, parseMoment, readTable, type TableColumn } from './read-table';

const COLUMNS: readonly TableColumn[] = [
  { key: 'at', title: 'at', alike: ['date', 'when'], kind: 'moment', isRequired: true },
  { key: 'left', title: 'left mm', alike: ['left border'], kind: 'length', isRequired: true },
  { key: 'count', title: 'count', alike: [], kind: 'number', isRequired: false },
  { key: 'note', title: 'note', alike: ['remark'], kind: 'text', isRequired: false },
  {
    key: 'side',
    title: 'side',
    alike: [],
    kind: 'choice',
    isRequired: false,
    choices: { in: 'inside', out: 'outside' },
  },
];
const read = (text: string, changes: object = {}) =>
  readTable(text, { columns: COLUMNS, system: 'mm', isDayFirst: true, mostLines: 1000, ...changes });
const values = (text: string, changes: object = {}) => read(text, changes).lines.map((l) => l.values);

describe('numbers', () => {
  it.each([
    ['1.25', 1.25],
    ['1,25', 1.25],
    ['-0,5', -0.5],
    ['\u22120,5', -0.5],
    ['1.234,5', 1234.5],
    ['1,234.5', 1234.5],
    ['1 234,5', 1234.5],
    ['12', 12],
    ['1e-3', 0.001],
    ['', null],
    ['1,2,3', null],
    ['12,34.5', null],
    ['two', null],
    ['1.2 mm', null],
  ])('%p', (text, value) => {
    expect(parseDecimal(text)).toBe(value);
  });
});

describe('moments', () => {
  it.each([
    ['2026-11-26', true, '2026-11-26T12:00:00.000Z'],
    ['2026-11-26T08:30:00Z', true, '2026-11-26T08:30:00.000Z'],
    ['2026-11-26 08:30', true, '2026-11-26T08:30:00.000Z'],
    ['2026-11-26T08:30:00+02:00', true, '2026-11-26T06:30:00.000Z'],
    ['26.11.2026', false, '2026-11-26T12:00:00.000Z'],
    ['3/4/2026', true, '2026-04-03T12:00:00.000Z'],
    ['3/4/2026 9:05', false, '2026-03-04T09:05:00.000Z'],
  ])('%s, day first %p', (text, isDayFirst, iso) => {
    expect(new Date(parseMoment(text, isDayFirst) ?? NaN).toISOString()).toBe(iso);
  });
  it.each(['31.2.2026', '2026-13-01', '13/13/2026', 'yesterday', '26.11.26', '2026-11-26 25:00'])(
    '%s is none',
    (text) => {
      expect(parseMoment(text, true)).toBeNull();
    },
  );
});

describe('a table', () => {
  it('knows its separator, units in the head and in cells, decimal commas, quotes, a mark at its begin', () => {
    expect(values('\ufeffDate;Left border (in);remark\n26.11.2026;0,1;"a; b"\n\n27.11.2026;2,5 mm;')).toEqual([
      { at: Date.UTC(2026, 10, 26, 12), left: 2.54, count: null, note: 'a; b', side: null },
      { at: Date.UTC(2026, 10, 27, 12), left: 2.5, count: null, note: null, side: null },
    ]);
    expect(values('at\tleft\n2026-11-26\t1/8', { system: 'in-fraction' })[0]?.left).toBeCloseTo(3.175, 9);
    expect(values('at|left mm|SIDE\n2026-11-26|3|Out')[0]?.side).toBe('outside');
  });
  it('tells what is wrong with its line and field, and takes nothing then', () => {
    const { problems, lines } = read('at,left mm,count,side\nsoon,3,x,up\n2026-11-26,,1,in');
    expect(problems.map((p) => `${String(p.line)} ${p.field}`)).toEqual(['2 at', '2 count', '2 side', '3 left mm']);
    expect(lines).toHaveLength(2);
    expect(read('when,count\n2026-11-26,1').problems).toMatchObject([{ line: 1, field: 'left mm' }]);
    expect(read('at,date,left mm\n2026-11-26,2026-11-26,1').problems).toMatchObject([{ field: 'date' }]);
    expect(read('').problems.length).toBeGreaterThan(0);
    expect(read('at,left mm').problems).toMatchObject([{ field: 'lines' }]);
    expect(read('at,left mm\n2026-11-26,1\n2026-11-27,2', { mostLines: 1 }).problems).toMatchObject([
      { field: 'lines' },
    ]);
  });
  it('reads what was written, by any separator and either decimal sign (property)', () => {
    const row = fc.tuple(
      fc.date({ min: new Date('2001-01-01'), max: new Date('2026-01-01'), noInvalidDate: true }),
      fc.integer({ min: 0, max: 900_000 }),
      fc.string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 12 }).map((s) => `w${s.trim()}`),
    );
    fc.assert(
      fc.property(
        fc.array(row, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(';', '\t', '|', ','),
        fc.constantFrom('.', ','),
        (rows, separator, sign) => {
          const text = dsvFormat(separator).formatRows([
            ['at', 'left mm', 'note'],
            ...rows.map(([at, um, note]) => [
              at.toISOString().slice(0, 19),
              (um / 1000).toFixed(3).replace('.', sign),
              note,
            ]),
          ]);
          const found = read(text);
          expect(found.problems).toEqual([]);
          expect(found.lines.map((l) => [l.values.at, l.values.left, l.values.note])).toEqual(
            rows.map(([at, um, note]) => [Math.floor(at.getTime() / 1000) * 1000, um / 1000, note]),
          );
        },
      ),
    );
  });
  it('no text at all makes it fall over (fuzz)', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(fc.array(fc.string())).map((rows) => csvFormatRows(rows)),
        ),
        (text) => {
          const { problems, lines } = read(text);
          expect(problems.length + lines.length).toBeGreaterThan(0);
        },
      ),
      { numRuns: 500 },
    );
  });
});
