import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';

const FOLDER = 'reports';

export function clearReports(mode) {
  mkdirSync(FOLDER, { recursive: true });
  rmSync(join(FOLDER, `${mode}.json`), { force: true });
}

export const reportPath = (name) => {
  const path = join(FOLDER, name);
  rmSync(path, { force: true });
  return path;
};

function read(path) {
  if (!existsSync(path)) return null;
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return null;
  }
}

/** Counts of a Jest report. No report, or none run: one failed. Skipped tests count as failed: nothing here is skipped. */
export function countJest(path) {
  const report = read(path);
  if (!(report?.numTotalTests > 0)) return { passed: 0, failed: 1 };
  const failed =
    report.numFailedTests + report.numPendingTests + report.numTodoTests + report.numRuntimeErrorTestSuites;
  return { passed: report.numPassedTests, failed };
}

/** Counts of a Playwright report; flaky and skipped count as failed. */
export function countPlaywright(path) {
  const stats = read(path)?.stats;
  if (!(stats?.expected + stats?.unexpected + stats?.flaky > 0)) return { passed: 0, failed: 1 };
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped };
}

/** Counts of a runner that ended with this status. One that ended badly though its report names no failure: one failed. */
export const endedWith = (status, counts) => (status !== 0 && counts.failed === 0 ? { ...counts, failed: 1 } : counts);

export const countStatus = (status) => (status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });

export function sum(counts) {
  return counts.reduce((a, b) => ({ passed: a.passed + b.passed, failed: a.failed + b.failed }), {
    passed: 0,
    failed: 0,
  });
}

/** Names of what failed in a Jest report: file, then the test or that the file did not run. */
export function failuresOfJest(path) {
  const suites = read(path)?.testResults ?? [];
  return suites.flatMap((suite) => {
    const file = relative(process.cwd(), suite.name);
    const failed = suite.assertionResults.filter((test) => test.status !== 'passed').map((test) => test.fullName);
    if (failed.length === 0 && suite.status === 'failed') return [`${file}: did not run`];
    return failed.map((name) => `${file}: ${name}`);
  });
}

/** Names of the browser tests that did not pass at their first run. */
export function failuresOfPlaywright(path) {
  const inSuite = (suite, file) => [
    ...(suite.specs ?? [])
      .filter((spec) => spec.tests.some((test) => test.status !== 'expected'))
      .map((spec) => `${file}: ${spec.title}`),
    ...(suite.suites ?? []).flatMap((inner) => inSuite(inner, file)),
  ];
  return (read(path)?.suites ?? []).flatMap((suite) => inSuite(suite, suite.file));
}

/** Keeps a run's total and its notes (times, names of failures): the end of a long run shows them again. */
export function writeTotal(mode, total, notes = []) {
  writeFileSync(join(FOLDER, `${mode}.json`), JSON.stringify({ ...total, notes }));
}

/** Total of one run of the test command, for who sums them up; no total counts as one failed. */
export const readTotal = (mode) => read(join(FOLDER, `${mode}.json`)) ?? { passed: 0, failed: 1 };
