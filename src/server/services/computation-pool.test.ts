import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { makePool, type ComputationPool, type PoolBounds } from './computation-pool';

jest.setTimeout(60_000);

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-pool-'));
const pools: ComputationPool[] = [];
afterEach(async () => {
  for (const pool of pools.splice(0)) await pool.end();
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});

const BOUNDS: PoolBounds = { threads: 1, mostWaiting: 2, longestMs: 20_000, mostHeapMb: 40 };

/** A pool whose threads run these words; what they are asked for is in `question`. */
function poolOf(words: string, bounds: Partial<PoolBounds> = {}): ComputationPool {
  const file = join(folder, `${Math.random()}.mjs`);
  writeFileSync(
    file,
    `export async function answerQuestion(question) { const text = new TextDecoder().decode(question.body); ${words} }`,
  );
  const pool = makePool(file, { ...BOUNDS, ...bounds });
  pools.push(pool);
  return pool;
}
const body = (text: string): Uint8Array => new TextEncoder().encode(text);

it('the real thread answers a question as bytes of JSON, and names what is wrong', async () => {
  const pool = makePool(resolve('.red-plumb/threads/computation.mjs'), { ...BOUNDS, mostHeapMb: 300 });
  pools.push(pool);
  const settings = {
    ...{ error: { offsetAcrossMm: 0.5 }, workWidthMm: 180, workLengthMm: 260 },
    settings: [
      { id: 'x', actsOn: 'offset_across', unit: 'mm', step: 0.05, minValue: -5, maxValue: 5, sense: 1, value: 0 },
    ],
  };
  const answer = await pool.ask('settings', body(JSON.stringify(settings)));
  expect(answer.kind).toBe('value');
  expect(answer.kind === 'value' && new TextDecoder().decode(answer.json)).toContain('-0.5');
  expect(await pool.ask('fit', body('{"readings": ['))).toMatchObject({ kind: 'not-json' });
  expect(await pool.ask('fit', new Uint8Array([0xff, 0xfe]))).toMatchObject({ kind: 'not-json' });
  expect(await pool.ask('fit', body('{}'))).toMatchObject({ kind: 'not-understood' });
  const none = { readings: [], workWidthMm: 180, workLengthMm: 260, toleranceMm: 0.3 };
  expect(await pool.ask('fit', body(JSON.stringify(none)))).toMatchObject({ kind: 'refused' });
});

it.each([
  ['never ends', 'for (;;);', { longestMs: 3000 }],
  ['takes more memory than it may', 'const all = []; for (;;) all.push(Array.from({ length: 1e4 }, Math.random));', {}],
])('one that %s is given up, and the next one is answered', async (_what, words, bounds) => {
  const pool = poolOf(`if (text === 'bad') { ${words} } return { kind: 'not-json', detail: text };`, bounds);
  expect(await pool.ask('fit', body('bad'))).toEqual({ kind: 'too-much' });
  expect(await pool.ask('fit', body('good'))).toEqual({ kind: 'not-json', detail: 'good' });
});

it('with every thread busy a few wait their turn, and one more is turned away at once', async () => {
  const pool = poolOf(`await new Promise((r) => setTimeout(r, 400)); return { kind: 'not-json', detail: text };`);
  await pool.ask('fit', body('begun'));
  const asked = ['1', '2', '3', '4', '5'].map((text) => pool.ask('fit', body(text)));
  const kinds = (await Promise.all(asked)).map((a) => a.kind);
  expect(kinds.filter((k) => k === 'not-json')).toHaveLength(3);
  expect(kinds.filter((k) => k === 'busy')).toHaveLength(2);
});

it('whoever waits behind slow ones is not given up for the time they took', async () => {
  const pool = poolOf(
    `await new Promise((r) => setTimeout(r, Number(text))); return { kind: 'not-json', detail: text };`,
    { longestMs: 2000 },
  );
  await pool.ask('fit', body('1'));
  const asked = ['1500', '1500', '1500'].map((text) => pool.ask('fit', body(text)));
  expect((await Promise.all(asked)).map((a) => a.kind)).toEqual(['not-json', 'not-json', 'not-json']);
});

it('a thread that breaks is a fault, and is reported as one', async () => {
  await expect(poolOf('throw new Error("broken");').ask('fit', body(''))).rejects.toThrow('broken');
});

it('this process goes on while a thread computes', async () => {
  const pool = poolOf(
    'const end = Date.now() + 600; while (Date.now() < end); return { kind: "not-json", detail: "" };',
  );
  let ticks = 0;
  const ticking = setInterval(() => ticks++, 10);
  await pool.ask('fit', body(''));
  clearInterval(ticking);
  expect(ticks).toBeGreaterThan(20);
});
