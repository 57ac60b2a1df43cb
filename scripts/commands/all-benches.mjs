/** Speed as ratios: installs what the references need, then runs them beside our own. */
import { spawn } from 'node:child_process';
import { ensureBuild } from '../lib/build.mjs';
import { scratchFolder } from '../lib/data-folder.mjs';
import { freePort, isPortOpen } from '../lib/ports.mjs';
import { startPrivateServer } from '../lib/private-server.mjs';
import { ensureDatabase, migrateDatabase, withConnection } from '../lib/database.mjs';
import {
  CHROMIUM,
  ensureDebianPackages,
  ensureNodePackages,
  NUMPY,
  OPENCV,
  POSTGRES,
  STATSMODELS,
} from '../lib/packages.mjs';
import { runShown } from '../lib/run.mjs';

const LARGE = 'red_plumb_large';

/** A database with a shop of ten years in it, made anew. */
async function largeShop() {
  const server = await startPrivateServer(scratchFolder('bench'));
  await withConnection(server.url('postgres'), (query) =>
    query.query(`drop database if exists ${LARGE} with (force)`),
  );
  await ensureDatabase(server, LARGE);
  await migrateDatabase(server.url(LARGE));
  const order = ['--conditions=react-server', '--import', 'tsx', 'bench/large-shop.ts'];
  process.exitCode ||= await runShown(process.execPath, order, {
    env: { ...process.env, DATABASE_URL: server.url(LARGE) },
  });
  return server;
}

/** The production build under a hundred connections. */
async function load(env) {
  await ensureBuild();
  const port = await freePort();
  const server = spawn(process.execPath, ['scripts/serve.mjs', '-H', '127.0.0.1', '-p', String(port)], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...env, RED_PLUMB_BOUND: 'loopback', NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  try {
    while (!(await isPortOpen(port))) await new Promise((resolve) => setTimeout(resolve, 100));
    const order = ['--conditions=react-server', '--import', 'tsx', 'bench/load.ts'];
    return await runShown(process.execPath, order, { env: { ...env, PORT: String(port) } });
  } finally {
    server.kill('SIGTERM');
  }
}

/** Every benchmark, or one of them that needs neither database nor browser. */
export async function benches(one) {
  if (one !== undefined) {
    await ensureNodePackages();
    process.exitCode = await runShown(process.execPath, ['--import', 'tsx', `bench/${one}.ts`], {});
    return;
  }
  await ensureDebianPackages([POSTGRES, NUMPY, OPENCV, STATSMODELS, CHROMIUM]);
  await ensureNodePackages();
  for (const part of ['bench/speed.ts', 'bench/drift-speed.ts', 'bench/layout-speed.ts', 'bench/scan-speed.ts'])
    process.exitCode ||= await runShown(process.execPath, ['--import', 'tsx', part], {});
  const server = await largeShop();
  try {
    const env = { ...process.env, DATABASE_URL: server.url(LARGE) };
    for (const part of ['bench/record-speed.ts', 'bench/archive-speed.ts']) {
      const order = ['--conditions=react-server', '--import', 'tsx', part];
      process.exitCode ||= await runShown(process.execPath, order, { env });
    }
    process.exitCode ||= await load(env);
  } finally {
    await server.stop();
  }
}
