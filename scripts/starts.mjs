/** `npm run test:starts`: Red Plumb started from a clone with nothing installed. */
import { begin } from './lib/begin.mjs';

await begin(async () => (await import('./commands/check-starts.mjs')).checkStarts());
