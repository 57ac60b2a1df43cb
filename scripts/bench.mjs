/** `npm run bench`, and `npm run bench:true` with the name of one part. */
import { begin } from './lib/begin.mjs';

await begin(async () => (await import('./commands/all-benches.mjs')).benches(process.argv[2]));
