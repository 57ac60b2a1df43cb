/** `npm test` and `npm run test:long`. */
import { begin } from './lib/begin.mjs';

await begin(async () => (await import('./commands/all-tests.mjs')).allTests(process.argv[2]));
