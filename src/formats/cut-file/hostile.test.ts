import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { LONGEST_MS, PATIENCE_MS, type Answer } from './ask-file.testing';

const isLong = process.env.JEST_LONG === '1';
// Ten thousand of each kind are in the fuzz tests; here what can be surveyed must also be moved.
const CASES = isLong ? 1000 : 600;
/** Node itself with the compiler of its programs takes about 130 MB of this. */
const MOST_MB = 700;
const MOST_HEAP_MB = 420;

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

  it('files made to keep a reader busy are each answered within 5 s', () => {
    const { answers, mostMb } = answerOf('hostile-files.testing.ts') as {
      readonly answers: Readonly<Record<string, Readonly<Record<string, Answer>>>>;
      readonly mostMb: number;
    };
    expect(mostMb).toBeLessThan(MOST_MB);
    const slow = Object.entries(answers).filter(([, of]) => Object.values(of).some(({ ms }) => ms >= LONGEST_MS));
    expect(slow).toEqual([]);
    const outcomes = Object.fromEntries(
      Object.entries(answers).map(([name, of]) => [
        name,
        Object.values(of)
          .map(({ outcome }) => outcome)
          .join(', '),
      ]),
    );
    expect(outcomes).toMatchInlineSnapshot(`
     {
       "a DXF of a million empty lines": "not-a-drawing, not-a-drawing, not-a-drawing",
       "a circle of a thousand kilometres": "not-finite, not-finite, not-finite",
       "a label without end": "read, nothing-to-move, nothing-to-move",
       "a path of a million letters": "read, moved, not-understood",
       "a style sheet of a megabyte": "too-large, too-large, too-large",
       "a transform of a megabyte": "read, not-understood, not-understood",
       "a use of itself": "read, moved, cannot-bend",
       "an arc of no size": "read, moved, moved",
       "an instruction of a megabyte": "read, moved, moved",
       "an instruction of two million numbers": "read, moved, moved",
       "blocks that insert each other and themselves": "read, nothing-to-move, nothing-to-move",
       "fifty thousand lines of a hundred metres": "read, moved, too-large",
       "fifty thousand lines to move": "read, moved, moved",
       "twenty thousand DXF lines of a hundred metres": "read, moved, too-large",
       "two hundred thousand groups side by side": "too-large, too-large, too-large",
       "uses of uses, ten to the twelfth": "read, nothing-to-move, nothing-to-move",
     }
    `);
  }, 120_000);
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
        readonly answers: Readonly<Record<string, Answer>>;
      };
      expect(mostMb).toBeLessThan(MOST_MB);
      for (const { ms } of Object.values(answers)) expect(ms).toBeLessThan(PATIENCE_MS);
      expect(Object.values(answers).map((a) => a.outcome)).toEqual(REFUSED[name] ?? ['read', 'moved', 'moved']);
    },
    120_000,
  );
});
