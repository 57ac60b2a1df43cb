/**
 * Computes without server or database: `npm run -s compute -- fit < readings.json`. JSON in, JSON out; a problem goes to
 * standard error with status 1.
 */
import { readFileSync } from 'node:fs';
import { COMPUTATION_NAMES, COMPUTATIONS, isComputation } from '@/compute/computations';

function stop(problem: object): never {
  process.stderr.write(`${JSON.stringify({ problem })}\n`);
  process.exit(1);
}

const [what = ''] = process.argv.slice(2);
if (!isComputation(what)) stop({ kind: 'unknown-command', got: what, expected: COMPUTATION_NAMES });
let raw: unknown;
try {
  raw = JSON.parse(readFileSync(0, 'utf8'));
} catch (error) {
  stop({ kind: 'not-json', detail: error instanceof Error ? error.message : '' });
}
const done = COMPUTATIONS[what].run(raw);
if (!done.parsed)
  stop({
    kind: 'not-understood',
    detail: done.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('\n'),
  });
if (!done.result.ok) stop(done.result.error);
process.stdout.write(`${JSON.stringify(done.result.value, null, 2)}\n`);
