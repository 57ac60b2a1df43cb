import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { askChild } from './bounded-child';
import { computeInChild, makePrintablePicture, readPictureFacts } from './decoder';

jest.setTimeout(60_000);

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-child-'));
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});
const BOUNDS = { longestMs: 20_000, mostBytes: 200e6 };

function child(words: string): string {
  const file = join(folder, `${Math.random()}.mjs`);
  writeFileSync(file, `process.once('message', async (task) => { ${words} });`);
  return file;
}

it('gives the answer of its process, bytes and all', async () => {
  const file = child('process.send({ length: task.content.length, first: task.content[0] });');
  const answer = await askChild(file, { content: new Uint8Array([7, 8, 9]) }, BOUNDS);
  expect(answer).toEqual({ ok: true, value: { length: 3, first: 7 } });
});

it.each([
  ['never ends', 'for (;;);', { ...BOUNDS, longestMs: 500 }, 'took-too-long'],
  // Array buffers are outside the heap, where no limit of a thread reaches them.
  [
    'takes more memory than it may',
    'const all = []; for (;;) { all.push(new Uint8Array(1e7).fill(1)); await new Promise((r) => setTimeout(r, 1)); }',
    BOUNDS,
    'took-too-much-memory',
  ],
  ['ends without a word', 'process.exit(0);', BOUNDS, 'ended-without-an-answer'],
  ['is killed by what it decodes', "process.kill(process.pid, 'SIGSEGV');", BOUNDS, 'ended-without-an-answer'],
])('a process that %s is ended and named', async (_what, words, bounds, failure) => {
  expect(await askChild(child(words), {}, bounds)).toEqual({ ok: false, failure });
});

it('pictures are read and made ready there, and a damaged one is refused in words', async () => {
  const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#123456' } })
    .png()
    .toBuffer();
  expect(await readPictureFacts(png)).toEqual({ ok: true, value: { format: 'png', widthPx: 30, heightPx: 20 } });
  const ready = await makePrintablePicture<{ format: string; content: Uint8Array }>(png);
  expect(ready.ok && [ready.value.format, ready.value.content.length > 50]).toEqual(['png', true]);
  expect(await makePrintablePicture(png.subarray(0, 40))).toMatchObject({
    ok: false,
    error: expect.any(String) as string,
  });
  expect(await readPictureFacts(new Uint8Array([1, 2, 3]))).toMatchObject({ ok: false });
});

it('questions that hold drawings are computed there as well', async () => {
  const answered = await computeInChild('drawing', { file: { text: 'IN;SP1;PU0,0;PD400,400;' } });
  expect(answered).toMatchObject({ parsed: true, result: { ok: true } });
});
