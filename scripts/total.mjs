/** The closing line of a whole run: the sum of what both test commands counted. */
import { readTotal, sum } from './lib/tally.mjs';

const total = sum([readTotal('short'), readTotal('starts'), readTotal('long')]);
process.stdout.write(`${total.passed} passed, ${total.failed} failed\n`);
process.exit(total.failed === 0 ? 0 : 1);
