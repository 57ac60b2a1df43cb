/** `npm run demo`: Red Plumb with its demo shop. */
import { begin } from './lib/begin.mjs';

await begin(async () => (await import('./commands/run-shop.mjs')).runShop({ withDemo: true }));
