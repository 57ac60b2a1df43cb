import { spawnSync } from 'node:child_process';
import { answer } from '../src/compute/answer';

function inShell(what: string, input: string) {
  const done = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/compute.ts', what], {
    input,
    encoding: 'utf8',
  });
  return { status: done.status, out: done.stdout, problems: done.stderr };
}

const FILE = JSON.stringify({
  file: { text: 'IN;SP1;PU4000,4000;PD8000,4000,8000,8000;PU;' },
  ...{ cut: ['pen 1'], error: { offsetAcrossMm: 0.5, rotationRad: 0.002 }, centre: { xMm: 150, yMm: 150 } },
});

it('in a shell: JSON in, the same JSON out as from within', () => {
  const { status, out, problems } = inShell('corrected-file', FILE);
  expect([status, problems]).toEqual([0, '']);
  const within = answer('corrected-file', FILE);
  expect({ ok: true, value: JSON.parse(out) as unknown }).toEqual(within);
});

it.each([
  ['magic', '{}', 'unknown-command'],
  ['fit', '{"readings": [', 'not-json'],
  ['fit', '{}', 'not-understood'],
])('in a shell, %s of %s: a problem to standard error, status 1', (what, input, kind) => {
  const { status, out, problems } = inShell(what, input);
  expect([status, out]).toEqual([1, '']);
  expect(JSON.parse(problems)).toMatchObject({ problem: { kind } });
});
