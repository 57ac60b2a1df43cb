/** Computes without server or database. Says what to run where nothing is installed: its output is read by other programs. */
import { existsSync } from 'node:fs';
import { begin } from './lib/begin.mjs';
import { stop } from './lib/say.mjs';

await begin(async () => {
  if (!existsSync('node_modules/tsx/package.json')) stop('The packages are not installed. Run: npm ci --ignore-scripts');
  const { register } = await import('tsx/esm/api');
  register();
  await import('./compute.ts');
});
