import fc from 'fast-check';
import { rowOf, splitLines } from './split-lines';

async function linesOf(bytes: Uint8Array, cuts: readonly number[]): Promise<readonly string[]> {
  const places = [0, ...[...cuts].map((c) => c % (bytes.length + 1)).sort((a, b) => a - b), bytes.length];
  const chunks = async function* (): AsyncGenerator<Uint8Array> {
    for (const [i, at] of places.slice(1).entries()) yield await Promise.resolve(bytes.subarray(places[i], at));
  };
  const lines: string[] = [];
  for await (const line of splitLines(chunks())) lines.push(new TextDecoder().decode(line));
  return lines;
}

it('lines are the same wherever the stream is cut, in the middle of a letter too (property)', async () => {
  const line = fc.string({ unit: 'grapheme' }).filter((s) => !s.includes('\n'));
  await fc.assert(
    fc.asyncProperty(fc.array(line), fc.array(fc.nat({ max: 400 })), async (lines, cuts) => {
      const text = lines.map((l) => `${l}\n`).join('');
      expect(await linesOf(new TextEncoder().encode(text), cuts)).toEqual(lines);
    }),
  );
});

it.each([
  ['["reading", {"a": 1}]', { table: 'reading', object: '{"a": 1}' }],
  ['["reading",{"a": 1}]', null],
  ['["reading", {"a": 1}', null],
  ['["Reading", {}]', null],
  ['{"rows": 1}', null],
])('%s', (line, row) => {
  expect(rowOf(line)).toEqual(row);
});
