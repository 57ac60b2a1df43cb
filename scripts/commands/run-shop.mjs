import { readFileSync } from 'node:fs';
import { keepChild, startServer } from '../lib/children.mjs';
import { ensureBuild } from '../lib/build.mjs';
import { importOwn, withConnection } from '../lib/database.mjs';
import { ensureFolder } from '../lib/data-folder.mjs';
import { askDoor, keepDoor } from '../lib/door.mjs';
import { keepServer } from '../lib/keeper.mjs';
import { openLog } from '../lib/log-files.mjs';
import { ensureDebianPackages, ensureNodePackages, POSTGRES } from '../lib/packages.mjs';
import { isPortOpen } from '../lib/ports.mjs';
import { runShown } from '../lib/run.mjs';
import { say, stop } from '../lib/say.mjs';
import { openShopDatabase } from '../lib/shop-database.mjs';

const isRoot = process.getuid?.() === 0;
const LONGEST_START_MS = 30_000;
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

async function readChecked() {
  const { readSettings } = await importOwn('env/settings.ts');
  const settings = readSettings(process.env, isRoot);
  if ('problems' in settings) stop(`${settings.problems.join('\n')}\nAll settings: npm start -- --help`);
  return settings;
}

async function checkPorts({ PORT, DOOR_PORT }, command) {
  if (await isPortOpen(PORT))
    stop(
      `Port ${PORT} is in use, perhaps by Red Plumb itself: open http://localhost:${PORT} to see. To use another port: PORT=${PORT + 2} ${command}`,
    );
  if (await isPortOpen(DOOR_PORT))
    stop(`Port ${DOOR_PORT}, for phones, is in use. To use another one: DOOR_PORT=${DOOR_PORT + 2} ${command}`);
}

/** Adds the demo shop where there is none. It comes whole or not at all. */
async function addDemo(url) {
  const { rowCount } = await withConnection(url, (client) => client.query('select 1 from shop where is_demo'));
  if (rowCount > 0) return;
  say('Making the demo shop ...');
  const args = ['--no-deprecation', '--conditions=react-server', '--import', 'tsx', 'scripts/seed.ts'];
  const status = await runShown(process.execPath, args, {
    env: { ...process.env, DATABASE_URL: url },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (status !== 0) stop('The demo shop could not be made (see above). Nothing of it was kept.');
}

/** Environment of both servers: the one for this machine, and the one for phones. */
function environmentOf(settings, url) {
  return {
    ...process.env,
    DATABASE_URL: url,
    RED_PLUMB_DATA: settings.RED_PLUMB_DATA,
    RED_PLUMB_DOOR_PORT: String(settings.DOOR_PORT),
    RED_PLUMB_URL: settings.RED_PLUMB_URL ?? '',
    RED_PLUMB_TRUSTED_PROXIES: settings.RED_PLUMB_TRUSTED_PROXIES.join(','),
    RED_PLUMB_LOG_LEVEL: settings.RED_PLUMB_LOG_LEVEL,
    NEXT_TELEMETRY_DISABLED: '1',
    NODE_ENV: 'production',
  };
}

const lastLines = (file) => readFileSync(file, 'utf8').trim().split('\n').slice(-8).join('\n');

/** Runs both servers, the keeper of the database and the door until SIGINT or SIGTERM. */
async function run(settings, { url, server }, hello) {
  const { PORT, DOOR_PORT } = settings;
  const env = environmentOf(settings, url);
  const { log, file } = await openLog(settings.RED_PLUMB_DATA);
  const tell = (words) => {
    say(words);
    log.write(`${JSON.stringify({ time: Date.now(), msg: words })}\n`);
  };
  const asked = await askDoor(url);
  let isEnding = false;
  const end = async (code, words) => {
    if (isEnding) return;
    isEnding = true;
    await Promise.all([door.end(), app.end(), keeper?.end(), asked.end()]);
    await server?.stop();
    say(words);
    process.exit(code);
  };
  const app = keepChild({
    start: () => startServer({ address: '127.0.0.1', port: PORT, env: { ...env, RED_PLUMB_BOUND: 'loopback' }, log }),
    isUp: () => isPortOpen(PORT),
    onFirstFailure: () => end(1, `Red Plumb did not start. Its last words (${file}):\n${lastLines(file)}`),
  });
  const keeper = server && keepServer(server, tell);
  const door = keepDoor({
    isOpen: asked.isOpen,
    start: () =>
      startServer({ address: settings.RED_PLUMB_ADDRESS, port: DOOR_PORT, env: { ...env, RED_PLUMB_BOUND: 'beyond' }, log }),
  });
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => end(0, 'Red Plumb has stopped. What was saved is kept.'));
  const since = Date.now();
  while (!isEnding && !(await isPortOpen(PORT)) && Date.now() - since < LONGEST_START_MS) await pause(100);
  app.markUp();
  if (!isEnding) say(`\n${hello}: http://localhost:${PORT}\nLog: ${file}\nCtrl-C stops it; what was saved stays.`);
}

/** `npm start`, and with `withDemo` `npm run demo`: sets up what is missing, then runs until Ctrl-C. */
export async function runShop({ withDemo }) {
  const command = withDemo ? 'npm run demo' : 'npm start';
  const [unknown] = process.argv.slice(2).filter((arg) => arg !== '--help' && arg !== '-h');
  if (unknown !== undefined) stop(`"${unknown}" is not understood. All settings: ${command} -- --help`);
  await ensureNodePackages();
  if (process.argv.length > 2) {
    const { settingsHelp } = await importOwn('env/settings.ts');
    say(settingsHelp(process.env, isRoot));
    return;
  }
  const settings = await readChecked();
  await checkPorts(settings, command);
  ensureFolder(settings.RED_PLUMB_DATA, 'RED_PLUMB_DATA');
  if (settings.DATABASE_URL === null) await ensureDebianPackages([POSTGRES]);
  const database = await openShopDatabase(settings);
  try {
    if (withDemo) await addDemo(database.url);
    await ensureBuild();
  } catch (error) {
    await database.server?.stop();
    throw error;
  }
  await run(settings, database, withDemo ? 'Red Plumb with its demo shop' : 'Red Plumb');
}
