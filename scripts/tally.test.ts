import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-tally-'));
const library = pathToFileURL(join(process.cwd(), 'scripts/lib/tally.mjs')).href;
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});

function inNode(call: string, name: string): unknown {
  const program = `import { ${name} } from '${library}'; console.log(JSON.stringify(${call}));`;
  return JSON.parse(spawnSync(process.execPath, ['--input-type=module', '-e', program], { encoding: 'utf8' }).stdout);
}

/** The counting functions run as the test command runs them: in Node, on a report in a file. */
function count(name: 'countJest' | 'countPlaywright', report: string | null): unknown {
  const file = join(folder, `${name}-${Math.random()}.json`);
  if (report !== null) writeFileSync(file, report);
  return inNode(`${name}(${JSON.stringify(file)})`, name);
}

const jestReport = (over: object) =>
  JSON.stringify({
    numTotalTests: 9,
    numPassedTests: 9,
    numFailedTests: 0,
    numPendingTests: 0,
    numTodoTests: 0,
    numRuntimeErrorTestSuites: 0,
    ...over,
  });

describe('a runner that leaves no good report counts as failed', () => {
  it.each(['countJest', 'countPlaywright'] as const)('%s', (name) => {
    expect(count(name, null)).toEqual({ passed: 0, failed: 1 });
    expect(count(name, '{ cut off')).toEqual({ passed: 0, failed: 1 });
    expect(count(name, '{}')).toMatchObject({ passed: 0, failed: 1 });
  });
});

it('skipped tests and suites that did not start count as failed', () => {
  expect(count('countJest', jestReport({}))).toEqual({ passed: 9, failed: 0 });
  expect(
    count('countJest', jestReport({ numPassedTests: 7, numPendingTests: 2, numRuntimeErrorTestSuites: 1 })),
  ).toEqual({
    passed: 7,
    failed: 3,
  });
});

it('flaky and skipped browser tests count as failed', () => {
  const stats = { expected: 5, unexpected: 1, flaky: 2, skipped: 1 };
  expect(count('countPlaywright', JSON.stringify({ stats }))).toEqual({ passed: 5, failed: 4 });
});

it('failures are named by file and test', () => {
  const jest = join(folder, 'named-jest.json');
  const result = (fullName: string, status: string) => ({ fullName, status });
  writeFileSync(
    jest,
    JSON.stringify({
      testResults: [
        {
          name: join(process.cwd(), 'a.test.ts'),
          status: 'failed',
          assertionResults: [result('x y', 'failed'), result('z', 'passed')],
        },
        { name: join(process.cwd(), 'b.test.ts'), status: 'failed', assertionResults: [] },
        { name: join(process.cwd(), 'c.test.ts'), status: 'passed', assertionResults: [result('q', 'passed')] },
      ],
    }),
  );
  expect(inNode(`failuresOfJest(${JSON.stringify(jest)})`, 'failuresOfJest')).toEqual([
    'a.test.ts: x y',
    'b.test.ts: did not run',
  ]);
  const browser = join(folder, 'named-browser.json');
  const spec = (title: string, status: string) => ({ title, tests: [{ status }] });
  writeFileSync(
    browser,
    JSON.stringify({
      suites: [{ file: 'd.spec.ts', specs: [spec('good', 'expected')], suites: [{ specs: [spec('bad', 'flaky')] }] }],
    }),
  );
  expect(inNode(`failuresOfPlaywright(${JSON.stringify(browser)})`, 'failuresOfPlaywright')).toEqual([
    'd.spec.ts: bad',
  ]);
});

it('a runner that ends badly counts as failed, whatever its report says', () => {
  const ended = (status: number, failed: number) =>
    inNode(`endedWith(${status}, { passed: 5, failed: ${failed} })`, 'endedWith');
  expect(ended(0, 0)).toEqual({ passed: 5, failed: 0 });
  expect(ended(1, 0)).toEqual({ passed: 5, failed: 1 });
  expect(ended(1, 3)).toEqual({ passed: 5, failed: 3 });
});
