import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { isUpToDate, markDone } from './packages.mjs';
import { runShown } from './run.mjs';
import { say, stop } from './say.mjs';
import { buildThreads, THREADS } from './threads.mjs';

function filesUnder(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesUnder(path) : [path];
  });
}

/** Hash of everything the build is made of; tests do not count. */
function sourceDigest() {
  const hash = createHash('sha256').update(process.version);
  const sources = [
    ...filesUnder('src').filter((f) => !f.includes('.test.')),
    'package-lock.json',
    'next.config.ts',
    'tsconfig.json',
  ];
  for (const file of sources.sort())
    hash
      .update(file)
      .update(String(statSync(file).size))
      .update(readFileSync(file));
  return hash.digest('hex');
}

export const NEXT = 'node_modules/next/dist/bin/next';

/** Builds the application and its threads unless they are as their sources say. */
export async function ensureBuild() {
  const digest = sourceDigest();
  if (existsSync('.next/BUILD_ID') && existsSync(THREADS) && isUpToDate('build', digest)) return;
  say('Building the application (under a minute) ...');
  const status = await runShown(process.execPath, [NEXT, 'build'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  if (status !== 0) stop('The build failed. Run "npm run build" to see why.');
  await buildThreads();
  markDone('build', digest);
}
