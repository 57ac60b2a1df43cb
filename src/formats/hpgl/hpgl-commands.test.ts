import fc from 'fast-check';
import { eachInstruction, type HpglInstruction } from './hpgl-commands';

function read(text: string): readonly HpglInstruction[] {
  const found: HpglInstruction[] = [];
  const wrong = eachInstruction(text, (instruction) => {
    found.push(instruction);
    return null;
  });
  if (wrong) throw new Error(`${wrong.where}: ${wrong.words}`);
  return found;
}

const number = fc.oneof(
  fc.integer({ min: -9999, max: 9999 }).map(String),
  fc.integer({ min: -9999, max: 9999 }).map((n) => `${n}.5`),
  fc.integer({ min: 0, max: 99 }).map((n) => `+${n}`),
  fc.constantFrom('.5', '-.25', '7.'),
);
const separator = fc.constantFrom(',', ' ', ', ', '\n');
const instruction = fc.record({
  name: fc.constantFrom('PU', 'PD', 'pa', 'Pr'),
  pairs: fc.array(fc.tuple(number, number), { maxLength: 6 }),
  between: separator,
  end: fc.constantFrom(';', '; ', '\n', ';;'),
});

describe('instructions of a plotter file', () => {
  it('names, numbers and places are those that were written (property)', () => {
    fc.assert(
      fc.property(fc.array(instruction, { minLength: 1, maxLength: 12 }), (given) => {
        const written = given.map(({ name, pairs, between }) => name + pairs.flat().join(between));
        const text = written.map((w, i) => w + (given[i]?.end ?? '')).join('');
        const found = read(text);
        expect(found.map((f) => f.name)).toEqual(given.map((g) => g.name.toUpperCase()));
        expect(found.map((f) => f.values)).toEqual(given.map((g) => g.pairs.flat().map(Number)));
        found.forEach((f, i) => {
          expect(text.slice(f.start, f.end).replace(/[;\s]+$/, '')).toBe((written[i] ?? '').trim());
        });
      }),
    );
  });
  it('numbers may follow each other by their sign alone', () => {
    expect(read('PD10-20+30-.5;').map((f) => f.values)).toEqual([[10, -20, 30, -0.5]]);
  });
  it.each([
    ['two points in a number', 'PD1.2.3,4;'],
    ['an exponent', 'PD1e3,4;'],
    ['a lone sign', 'PD-,4;'],
    ['a percent sign', 'PD%,4;'],
    ['three numbers', 'PD1,2,3;'],
  ])('%s is refused, and never read as something else', (_name, text) => {
    expect(() => read(text)).toThrow(/PD|instruction/);
  });
  it('labels, their end mark and device settings are stepped over', () => {
    const text = '\u001b%0BIN;DT*;LBPD9,9;*PU1,2;\u001b.I80;;17:PD3,4;DTX;LBanX';
    expect(read(text).map((f) => [f.name, f.values])).toEqual([
      ['IN', []],
      ['PU', [1, 2]],
      ['PD', [3, 4]],
    ]);
  });
  it('what takes an instruction may refuse it, and nothing more is read', () => {
    const seen: string[] = [];
    const refused = eachInstruction('PU1,2;PD3,4;PD5,6;', ({ name, start }) => {
      seen.push(`${name} ${start}`);
      return seen.length === 2 ? { kind: 'not-finite', where: 'there', words: 'It lies nowhere.' } : null;
    });
    expect(refused).toMatchObject({ where: 'there' });
    expect(seen).toEqual(['PU 0', 'PD 6']);
  });
});
