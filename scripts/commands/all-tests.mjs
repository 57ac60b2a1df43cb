/**
 * All tests on a fresh machine. `short` (npm test): lint, types, rooms, Jest with database, Playwright on a production build.
 * `long` (npm run test:long): the acceptance simulations at full length and the sheets-to-true table.
 */
import { readdirSync } from 'node:fs';
import { ensureBuild } from '../lib/build.mjs';
import { scratchFolder } from '../lib/data-folder.mjs';
import { freePort } from '../lib/ports.mjs';
import { startPrivateServer } from '../lib/private-server.mjs';
import { ensureDatabase, migrateDatabase, withConnection } from '../lib/database.mjs';
import {
  CHROMIUM,
  ensureDebianPackages,
  ensureNodePackages,
  EZDXF,
  HP2XX,
  OPENCV,
  MUPDF,
  POPPLER,
  POSTGRES,
  STATSMODELS,
} from '../lib/packages.mjs';
import { runHeld, runShown } from '../lib/run.mjs';
import { buildThreads } from '../lib/threads.mjs';
import { say, stop, tookWords } from '../lib/say.mjs';
import {
  clearReports,
  countJest,
  countPlaywright,
  countStatus,
  endedWith,
  failuresOfJest,
  failuresOfPlaywright,
  reportPath,
  sum,
  writeTotal,
} from '../lib/tally.mjs';

const node = process.execPath;
const BIN = 'node_modules/.bin';
/** A runner that hangs is ended: the others still tell what they found. */
const LONGEST_RUN_MS = 40 * 60_000;
const quiet = { NEXT_TELEMETRY_DISABLED: '1' };
/** Times and names of failures, said again at the end: a long output is often seen by its last lines only. */
const notes = [];

function note(text) {
  notes.push(text);
  say(text);
}

/** Runs one runner with its output shown and says how long it took; resolves to its exit code. */
async function run(title, command, args, environment = {}) {
  say(`\n== ${title}`);
  const since = Date.now();
  const env = { ...process.env, ...quiet, ...environment };
  const status = await runShown(command, args, { env, timeout: LONGEST_RUN_MS });
  note(`== ${title}: ${tookWords(since)}${status === 0 ? '' : `, status ${status}`}`);
  return status;
}

/** Runs one-processor runners one after another beside something else; their output comes with the result. Resolves to counts. */
async function runBeside(runners, environment = {}) {
  const since = Date.now();
  const env = { ...process.env, ...quiet, ...environment };
  const done = [];
  for (const [title, command, args] of runners) {
    const { status, output } = await runHeld(command, args, { env, timeout: LONGEST_RUN_MS });
    done.push({ title, output, status, counts: countStatus(status) });
  }
  const took = tookWords(since);
  return {
    counts: done.map((d) => d.counts),
    show: () => {
      for (const { title, output } of done) say(`\n== ${title}\n${output}`);
      for (const { title } of done.filter((d) => d.status !== 0)) note(`failed: ${title}`);
      note(`== ${runners.map(([title]) => title).join(', ')}: ${took}`);
    },
  };
}

/** Tests that are longer, or there at all, in the long run; the others have run before. */
const LONGER = [
  'src/core/fit/coverage',
  'src/core/fit/mark-noise',
  'src/core/fit/scan-coverage',
  'src/core/verdict/verdict.test',
  'src/core/simulate/sheets-to-true',
  'src/core/scan/scan.test',
  'src/core/scan/opencv.long',
  'src/core/drift/slip-belief',
  'src/core/drift/slip-filter.long',
  'src/core/drift/section-length',
  'src/core/drift/section-cells',
  'src/formats/cut-file/hostile',
  'scripts/fuzz',
];

const LOOKS = [
  ['Types of the whole', `${BIN}/tsc`, ['--noEmit']],
  ['Types of the core, no platform', `${BIN}/tsc`, ['--noEmit', '-p', 'tsconfig.core.json']],
  ['Lint', `${BIN}/eslint`, ['.', '--max-warnings', '0']],
  ['Rooms', `${BIN}/depcruise`, ['--config', '.dependency-cruiser.cjs', 'src', 'e2e', 'bench']],
];

async function freshDatabase(server, name) {
  await withConnection(server.url('postgres'), (c) => c.query(`drop database if exists ${name} with (force)`));
  await ensureDatabase(server, name);
  await migrateDatabase(server.url(name));
}

async function copyDatabase(server, from, to) {
  await withConnection(server.url('postgres'), async (c) => {
    await c.query(`drop database if exists ${to} with (force)`);
    await c.query(`create database ${to} template ${from}`);
  });
}

/** Specs of the second half: about as long as all others together, and all that make shops of their own. A new one joins the first. */
const SECOND_HALF = ['screens', 'own-shop', 'scan', 'jobs', 'cut-lines', 'archive', 'read', 'wizard'].map(
  (s) => `${s}.spec.ts`,
);

const specsOf = (half) =>
  readdirSync('e2e')
    .filter((file) => file.endsWith('.spec.ts') && SECOND_HALF.includes(file) === (half === 2))
    .map((file) => `e2e/${file}`);

/** Half of the browser's tests, on an application and a database of their own. Resolves to its counts and failures. */
async function browserHalf(half, url, beside) {
  const report = reportPath(`playwright-${half}.json`);
  const args = ['test', ...specsOf(half), `--output=test-results/half-${half}`];
  const environment = {
    DATABASE_URL: url,
    E2E_PORT: String(await freePort()),
    E2E_DOOR_PORT: String(await freePort()),
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
    PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1',
  };
  const title = `Browser, half ${half}`;
  const command = `${BIN}/playwright`;
  const status = beside
    ? await runHeld(command, args, { env: { ...process.env, ...quiet, ...environment }, timeout: LONGEST_RUN_MS }).then(
        (done) => {
          say(`\n== ${title}\n${done.output}`);
          return done.status;
        },
      )
    : await run(title, command, args, environment);
  return { counts: endedWith(status, countPlaywright(report)), failures: failuresOfPlaywright(report) };
}

async function short(server) {
  const counts = [];
  counts.push(countStatus(await run('Types', `${BIN}/next`, ['typegen'])));
  await buildThreads();
  const jest = reportPath('jest.json');
  const unit = await run('Jest', `${BIN}/jest`, ['--json', `--outputFile=${jest}`], {
    TEST_DATABASE_URL: server.url('postgres'),
  });
  counts.push(endedWith(unit, countJest(jest)));
  failuresOfJest(jest).forEach((name) => note(`failed: ${name}`));

  const [first, second] = ['red_plumb_e2e', 'red_plumb_e2e_2'];
  await freshDatabase(server, first);
  const url = server.url(first);
  const seeded = await run('Demo shop', node, ['--conditions=react-server', '--import', 'tsx', 'scripts/seed.ts'], {
    DATABASE_URL: url,
  });
  counts.push(countStatus(seeded));
  await ensureBuild();
  await copyDatabase(server, first, second);
  const halves = await Promise.all([browserHalf(1, url, false), browserHalf(2, server.url(second), true)]);
  for (const { counts: half, failures } of halves) {
    counts.push(half);
    failures.forEach((name) => note(`failed: ${name}`));
  }
  const [types, lint] = [LOOKS.filter(([title]) => title !== 'Lint'), LOOKS.filter(([title]) => title === 'Lint')];
  const looked = await Promise.all([runBeside(types), runBeside(lint)]);
  looked.forEach((l) => l.show());
  return sum([...counts, ...looked.flatMap((l) => l.counts)]);
}

async function long() {
  await ensureBuild();
  const jest = reportPath('jest-long.json');
  const figures = await run(
    'Acceptance figures at full length',
    `${BIN}/jest`,
    ['--json', `--outputFile=${jest}`, ...LONGER],
    { JEST_LONG: '1' },
  );
  // Without another runner of many processes: they hold how soon the application is back against the clock.
  const sheets = runBeside([['Sheets to true', node, ['--import', 'tsx', 'bench/sheets-to-true.ts']]]);
  const killed = reportPath('jest-kills.json');
  const kills = await run(
    'Kills and a full disk',
    `${BIN}/jest`,
    ['--json', `--outputFile=${killed}`, '--runInBand', 'scripts/kills', 'scripts/running'],
    { JEST_LONG: '1' },
  );
  const sheet = await sheets;
  sheet.show();
  for (const report of [jest, killed]) failuresOfJest(report).forEach((name) => note(`failed: ${name}`));
  return sum([endedWith(kills, countJest(killed)), endedWith(figures, countJest(jest)), ...sheet.counts]);
}

/** All tests of one mode, `short` or `long`: installs what they need, runs them, writes and says the total. */
export async function allTests(mode) {
  if (mode !== 'short' && mode !== 'long') stop('Say which tests: npm test, or npm run test:long.');
  clearReports(mode);
  const since = Date.now();
  const needed = [POSTGRES, CHROMIUM, HP2XX, POPPLER, MUPDF, EZDXF];
  await ensureDebianPackages(mode === 'long' ? [...needed, OPENCV, STATSMODELS] : needed);
  await ensureNodePackages();
  say(`== Install: ${tookWords(since)}`);
  let total;
  if (mode === 'long') total = await long();
  else {
    const server = await startPrivateServer(scratchFolder('test'), { isUnkept: true });
    try {
      await freshDatabase(server, 'red_plumb_template');
      total = await short(server);
    } finally {
      await server.stop();
    }
  }
  note(`\n${mode} tests: ${total.passed} passed, ${total.failed} failed, ${tookWords(since)}`);
  writeTotal(mode, total, notes);
  if (total.failed > 0) process.exitCode = 1;
}
