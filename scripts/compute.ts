/**
 * Computes without server or database: `npm run -s compute -- fit < readings.json`. JSON in, JSON out; a problem goes to
 * standard error with status 1.
 */
import { readFileSync } from 'node:fs';
import { answer } from '@/compute/answer';

const [what = ''] = process.argv.slice(2);
const answered = answer(what, readFileSync(0, 'utf8'));
if (!answered.ok) {
  process.stderr.write(`${JSON.stringify({ problem: answered.error })}\n`);
  process.exit(1);
}
process.stdout.write(`${JSON.stringify(answered.value, null, 2)}\n`);
