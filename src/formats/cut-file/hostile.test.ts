import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import type { MoveRequest } from './cut-file';
import { moveCutFile, surveyCutFile } from './move-cut-file';
import { timed } from './work-time.testing';

const isLong = process.env.JEST_LONG === '1';
const CASES = isLong ? 10_000 : 600;
const LONGEST_MS = 5000;
/** Node itself with the compiler of its programs takes about 130 MB of this. */
const MOST_MB = 700;
const MOST_HEAP_MB = 420;

const request: MoveRequest = {
  by: 'colour',
  names: ['#ff0000', 'pen 1', 'colour 1', 'colour 7'],
  move: { affine: { xx: 1.001, xy: 0.002, yx: -0.001, yy: 0.999, tx: 1, ty: 2 } },
};
const bowed: MoveRequest = {
  ...request,
  move: { ...request.move, bow: { perMm: 1e-5, along: 'y', pivot: { x: 0, y: 0 } } },
};

/** Runs a program of this folder with a bounded heap; what it printed. A crash is an error with its last words. */
function answerOf(program: string, ...args: readonly string[]): unknown {
  const node = ['--conditions=react-server', `--max-old-space-size=${MOST_HEAP_MB}`, '--import', 'tsx'];
  const done = spawnSync(process.execPath, [...node, join(__dirname, program), ...args], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`${program} ended with ${done.status}: ${done.stderr.slice(-400)}`);
  return JSON.parse(done.stdout);
}

describe('files that are no files: an answer, never a crash, a hang or a flood', () => {
  it.each(['SVG', 'DXF', 'HPGL'])(
    `%s, ${CASES} spoiled files`,
    (format) => {
      const { outcomes, longestMs, mostMb } = answerOf('spoiled-files.testing.ts', format, String(CASES)) as {
        readonly outcomes: Readonly<Record<string, number>>;
        readonly longestMs: number;
        readonly mostMb: number;
      };
      expect(longestMs).toBeLessThan(LONGEST_MS);
      expect(mostMb).toBeLessThan(MOST_MB);
      expect(outcomes).not.toHaveProperty('moved what could not be surveyed');
      expect(outcomes).not.toHaveProperty('refused without words');
      // The mix must reach both the writers and the refusals, else it proves nothing.
      const { moved = 0, ...refused } = outcomes;
      const refusedCount = Object.values(refused).reduce((sum, n) => sum + n, 0);
      expect(moved + refusedCount).toBe(CASES);
      expect(moved).toBeGreaterThan(CASES / 20);
      expect(refusedCount).toBeGreaterThan(CASES / 20);
    },
    isLong ? 600_000 : 120_000,
  );

  const svg = (inside: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">${inside}</svg>`;
  const chain = (n: number): string =>
    Array.from({ length: n }, (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`).join('');
  it.each([
    [
      'uses of uses, ten to the twelfth',
      svg(`<defs><path id="g0" stroke="red" d="M0 0h1"/>${chain(12)}</defs><use href="#g12"/>`),
    ],
    ['a use of itself', svg('<use id="u" stroke="red" href="#u"/>')],
    ['a path of a million letters', svg(`<path stroke="red" d="${'M'.repeat(1e6)}"/>`)],
    ['a transform of a megabyte', svg(`<path stroke="red" d="M0 0h1" transform="${'scale(1) '.repeat(1e5)}"/>`)],
    ['two hundred thousand groups side by side', svg('<g/>'.repeat(2e5))],
    ['fifty thousand lines to move', svg('<path stroke="red" d="M0 0h1"/>\n'.repeat(5e4))],
    ['a style sheet of a megabyte', svg(`<style>${'.a{stroke:red}'.repeat(8e4)}</style>`)],
    ['an instruction of a megabyte', `PD${'1,'.repeat(5e5)}`],
    ['an instruction of two million numbers', `PD${'7,'.repeat(2e6)}`],
    ['a label without end', `LB${'x'.repeat(1e6)}`],
    ['fifty thousand lines of a hundred metres', `SP1;${'PD0,0;PD0,3900000;'.repeat(25_000)}`],
    ['a circle of a thousand kilometres', 'SP1;CI99999999999;'],
    ['a DXF of a million empty lines', '\n'.repeat(1e6)],
    [
      'twenty thousand DXF lines of a hundred metres',
      `0\nSECTION\n2\nENTITIES\n${'0\nLINE\n62\n1\n8\n0\n10\n0\n20\n0\n11\n0\n21\n99000\n'.repeat(20_000)}0\nENDSEC\n`,
    ],
    [
      'an arc of no size',
      '0\nSECTION\n2\nENTITIES\n0\nARC\n62\n1\n8\n0\n10\n0\n20\n0\n40\n0\n50\n0\n51\n1e8\n0\nENDSEC\n',
    ],
  ])('%s is answered within 5 s', (_name, text) => {
    const bytes = Uint8Array.from(Buffer.from(text, 'latin1'));
    for (const answer of [
      () => surveyCutFile(bytes),
      () => moveCutFile(bytes, request),
      () => moveCutFile(bytes, bowed),
    ]) {
      expect(timed<unknown>(answer).busyMs).toBeLessThan(LONGEST_MS);
    }
  });

  it('blocks that insert each other and themselves are looked into once each', () => {
    const block = (name: string, inside: string): string =>
      `0\nBLOCK\n2\n${name}\n0\nLINE\n8\n0\n62\n5\n10\n1\n20\n1\n11\n2\n21\n2\n${inside}0\nENDBLK\n`;
    const insert = (name: string): string => `0\nINSERT\n8\nK\n2\n${name}\n10\n0\n20\n0\n`;
    const blocks = Array.from({ length: 1000 }, (_, i) =>
      block(`B${i}`, insert(`B${i + 1}`).repeat(20) + insert(`B${i}`)),
    );
    const text = `0\nSECTION\n2\nBLOCKS\n${blocks.join('')}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${insert('B0').repeat(1000)}0\nENDSEC\n0\nEOF\n`;
    const { value: survey, busyMs } = timed(() => surveyCutFile(Uint8Array.from(Buffer.from(text, 'latin1'))));
    expect(survey).toMatchObject({ ok: true, value: { groups: [{ name: 'colour 5' }, { name: 'K' }] } });
    expect(busyMs).toBeLessThan(LONGEST_MS);
  });
});

describe('the largest files that are taken', () => {
  /** What comes of looking, moving and bending, where a file is beyond what is taken. */
  const REFUSED: Readonly<Record<string, readonly string[]>> = {
    'SVG of a million groups': ['too-large', 'too-large', 'too-large'],
    // A matrix in front of it moves a path of any length; only to bend it must its pieces be held.
    'SVG of 64 MB of paths': ['read', 'moved', 'not-understood'],
    'HPGL of 64 MB of numbers': ['too-large', 'too-large', 'too-large'],
    'HPGL of 64 MB of instructions': ['too-large', 'too-large', 'too-large'],
    'DXF of 64 MB of groups': ['too-large', 'too-large', 'too-large'],
  };
  // As long as other software is made to wait for a file at most.
  const PATIENCE_MS = 30_000;
  const names = isLong
    ? (answerOf('large-files.testing.ts') as readonly string[])
    : ['HPGL instruction of a million points'];
  it('every file that is refused is among those tried', () => {
    if (isLong) expect(names).toEqual(expect.arrayContaining(Object.keys(REFUSED)));
    expect(names).toContain('HPGL instruction of a million points');
  });
  it.each(names)(
    '%s is answered within 700 MB',
    (name) => {
      const { mostMb, answers } = answerOf('large-files.testing.ts', name) as {
        readonly mostMb: number;
        readonly answers: Readonly<Record<string, { readonly ms: number; readonly outcome: string }>>;
      };
      expect(mostMb).toBeLessThan(MOST_MB);
      for (const { ms } of Object.values(answers)) expect(ms).toBeLessThan(PATIENCE_MS);
      expect(Object.values(answers).map((a) => a.outcome)).toEqual(REFUSED[name] ?? ['read', 'moved', 'moved']);
    },
    120_000,
  );
});
