/** Speed as ratios: installs what the references need, then runs them beside our own. */
import { ensureDebianPackages, ensureNodePackages, NUMPY } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';
import { main } from './lib/say.mjs';

await main(async () => {
  await ensureDebianPackages([NUMPY]);
  await ensureNodePackages();
  process.exitCode = await runShown(process.execPath, ['--import', 'tsx', 'bench/speed.ts'], {});
});
