import { spawn } from 'node:child_process';

jest.setTimeout(600_000);

const MUTANTS = 10_000;
/** A reader that says nothing for this long hangs. */
const SILENCE_MS = 60_000;

interface Told {
  readonly count: number;
  readonly longestMs: number;
  readonly mostBytes: number;
}

/** Runs the reader of one kind of file on its mutants, in a process that is ended when it falls silent. */
function run(
  kind: string,
): Promise<{ readonly code: number | null; readonly told: Told | null; readonly words: string }> {
  return new Promise((resolve) => {
    const args = ['--conditions=react-server', '--import', 'tsx', 'scripts/fuzz.testing.ts', kind, String(MUTANTS)];
    const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let out = '';
    let words = '';
    const silence = setTimeout(() => {
      words += 'silent for too long';
      child.kill('SIGKILL');
    }, SILENCE_MS);
    child.stdout.on('data', (bytes: Buffer) => {
      out += bytes.toString();
      silence.refresh();
    });
    child.stderr.on('data', (bytes: Buffer) => (words = `${words}${bytes.toString()}`.slice(-3000)));
    child.on('close', (code) => {
      clearTimeout(silence);
      const last = out.trim().split('\n').at(-1) ?? '';
      resolve({ code, told: last.startsWith('{') ? (JSON.parse(last) as Told) : null, words });
    });
  });
}

it.each(['png', 'jpeg', 'tiff', 'csv', 'archive', 'archive-packed', 'svg', 'dxf', 'hpgl'])(
  `${String(MUTANTS)} mutants of real files, %s: each answered, none after 5 s, in under 700 MB`,
  async (kind) => {
    const { code, told, words } = await run(kind);
    expect({ code, words: code === 0 ? '' : words }).toEqual({ code: 0, words: '' });
    expect(told?.count).toBe(MUTANTS);
    expect(told?.longestMs).toBeLessThan(5000);
    expect(told?.mostBytes).toBeLessThan(700e6);
  },
);
