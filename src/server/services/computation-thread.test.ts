import { Worker } from 'node:worker_threads';
import { answerWithin } from './computation-thread';

const program = (words: string) => (resourceLimits: object) => new Worker(words, { eval: true, resourceLimits });
const BOUNDS = { longestMs: 20_000, mostMemoryMb: 30 };
const TOO_MUCH = { parsed: true, result: { ok: false, error: { kind: 'too-large', where: 'file' } } };

describe('a computation in a thread of its own', () => {
  beforeEach(() => {
    jest.spyOn(console, 'error').mockImplementation(() => undefined);
  });
  afterEach(() => {
    jest.restoreAllMocks();
  });

  it('gives its answer', async () => {
    const answer = { parsed: true, result: { ok: true, value: { movedCount: 3 } } };
    const words = `require('node:worker_threads').parentPort.postMessage(${JSON.stringify(answer)})`;
    expect(await answerWithin(program(words), BOUNDS)).toEqual(answer);
  });
  it.each([
    ['never ends', 'for (;;);', { ...BOUNDS, longestMs: 200 }],
    [
      'takes more memory than it may',
      'const all = []; for (;;) all.push(Array.from({ length: 1e4 }, Math.random));',
      BOUNDS,
    ],
    ['fails', 'throw new Error("broken");', BOUNDS],
    ['ends without a word', 'void 0;', BOUNDS],
  ])('one that %s is ended, and the program goes on', async (_what, words, bounds) => {
    const from = performance.now();
    expect(await answerWithin(program(words), bounds)).toMatchObject(TOO_MUCH);
    expect(performance.now() - from).toBeLessThan(15_000);
  });
});
