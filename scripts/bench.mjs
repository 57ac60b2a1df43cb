/** Speed as ratios: installs what the references need, then runs them beside our own. */
import { CHROMIUM, ensureDebianPackages, ensureNodePackages, NUMPY, OPENCV, STATSMODELS } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';
import { main } from './lib/say.mjs';

await main(async () => {
  await ensureDebianPackages([NUMPY, OPENCV, STATSMODELS, CHROMIUM]);
  await ensureNodePackages();
  for (const part of ['bench/speed.ts', 'bench/drift-speed.ts', 'bench/layout-speed.ts', 'bench/scan-speed.ts'])
    process.exitCode ||= await runShown(process.execPath, ['--import', 'tsx', part], {});
});
