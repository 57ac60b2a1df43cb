/** `npm start`: Red Plumb for a real shop. */
import { begin } from './lib/begin.mjs';

await begin(async () => (await import('./commands/run-shop.mjs')).runShop({ withDemo: false }));
