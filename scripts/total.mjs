/** The closing lines of a whole run: times and failures once more, then the sum of what the test commands counted. */
import { readTotal, sum } from './lib/tally.mjs';

const totals = ['short', 'starts', 'long'].map(readTotal);
for (const { notes } of totals) for (const note of notes ?? []) process.stdout.write(`${note}\n`);
const total = sum(totals);
process.stdout.write(`${total.passed} passed, ${total.failed} failed\n`);
process.exit(total.failed === 0 ? 0 : 1);
