/** Speed as ratios: installs what the references need, then runs them beside our own. */
import { CHROMIUM, ensureDebianPackages, ensureNodePackages, NUMPY, OPENCV } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';
import { main } from './lib/say.mjs';

await main(async () => {
  await ensureDebianPackages([NUMPY, OPENCV, CHROMIUM]);
  await ensureNodePackages();
  for (const part of ['bench/speed.ts', 'bench/scan-speed.ts'])
    process.exitCode ||= await runShown(process.execPath, ['--import', 'tsx', part], {});
});
