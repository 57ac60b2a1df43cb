/** Starts Red Plumb with its demo shop on a fresh machine or again: installs what lacks, then runs until Ctrl-C. */
import { spawn } from 'node:child_process';
import { ensureBuild } from './lib/build.mjs';
import { isPortOpen, startCluster } from './lib/cluster.mjs';
import { ensureDatabase, migrateDatabase } from './lib/database.mjs';
import { askDoor, keepDoor } from './lib/door.mjs';
import { ensureDebianPackages, ensureNodePackages, POSTGRES } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';
import { main, say, stop } from './lib/say.mjs';

const PORT = Number(process.env.PORT ?? 3210);
/** Where phones are answered while they are let in. */
const DOOR_PORT = Number(process.env.DOOR_PORT ?? PORT + 1);

const isPort = (port) => Number.isInteger(port) && port >= 1 && port <= 65535;

function startServer(url, { host, port, bound }) {
  return spawn(process.execPath, ['scripts/serve.mjs', '-H', host, '-p', String(port)], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: url,
      RED_PLUMB_BOUND: bound,
      RED_PLUMB_DOOR_PORT: String(DOOR_PORT),
      NEXT_TELEMETRY_DISABLED: '1',
      NODE_ENV: 'production',
    },
  });
}

async function seed(url) {
  const status = await runShown(process.execPath, ['--conditions=react-server', '--import', 'tsx', 'scripts/seed.ts'], {
    env: { ...process.env, DATABASE_URL: url },
  });
  if (status !== 0) stop('The demo shop could not be made (see above).');
}

/** A database whose seeding was cut off has no shop row: it is made anew, so that nothing is there twice. */
async function ensureDemo(cluster) {
  const { withConnection } = await import('./lib/database.mjs');
  const isNew = await ensureDatabase(cluster, 'red_plumb');
  await migrateDatabase(cluster.url('red_plumb'));
  const shops = await withConnection(cluster.url('red_plumb'), (c) => c.query('select 1 from shop where is_demo'));
  if (shops.rowCount > 0) return;
  if (!isNew) {
    say('An unfinished demo shop was found and is made anew.');
    await withConnection(cluster.url('postgres'), (c) => c.query('drop database red_plumb with (force)'));
    await ensureDatabase(cluster, 'red_plumb');
    await migrateDatabase(cluster.url('red_plumb'));
  }
  say('Making the demo shop ...');
  await seed(cluster.url('red_plumb'));
}

await main(async () => {
  if (!isPort(PORT)) stop(`PORT is "${process.env.PORT}". It must be a whole number from 1 to 65535.`);
  if (!isPort(DOOR_PORT) || DOOR_PORT === PORT)
    stop(`DOOR_PORT is "${DOOR_PORT}". It must be a whole number from 1 to 65535 other than ${PORT}.`);
  if (await isPortOpen(PORT))
    stop(
      `Port ${PORT} is in use, perhaps by Red Plumb itself: open http://localhost:${PORT} to see. To use another port: PORT=3211 npm run demo`,
    );
  await ensureDebianPackages([POSTGRES]);
  await ensureNodePackages();
  const cluster = await startCluster('demo');
  try {
    await ensureDemo(cluster);
    await ensureBuild();
  } catch (error) {
    cluster.stop();
    throw error;
  }
  const url = cluster.url('red_plumb');
  const app = startServer(url, { host: '127.0.0.1', port: PORT, bound: 'loopback' });
  const asked = askDoor(url);
  const door = keepDoor({
    isOpen: asked.isOpen,
    start: () => startServer(url, { host: '0.0.0.0', port: DOOR_PORT, bound: 'beyond' }),
  });
  let isEnding = false;
  const end = () => {
    if (isEnding) return;
    isEnding = true;
    door.end();
    app.kill('SIGTERM');
  };
  process.on('SIGINT', end);
  process.on('SIGTERM', end);
  app.on('close', async (code) => {
    door.end();
    await asked.end();
    cluster.stop();
    say('Red Plumb has stopped. What was kept is kept.');
    process.exit(isEnding ? 0 : (code ?? 1));
  });
  for (let i = 0; i < 100 && !(await isPortOpen(PORT)); i++) await new Promise((r) => setTimeout(r, 100));
  say(`\nRed Plumb with its demo shop: http://localhost:${PORT}\nCtrl-C stops it; what was kept stays.`);
});
