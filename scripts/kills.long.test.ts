import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Client } from 'pg';
import { seededRng } from '@/core/math/random';
import { idOf, kindOf } from './kills.testing';

jest.setTimeout(600_000);

const WRITES = 200;
const KILLS = 20;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const place = mkdtempSync(join(tmpdir(), 'red-plumb-kills-'));
// The database's own user has to get in.
chmodSync(place, 0o755);
const library = (name: string): string => pathToFileURL(join(process.cwd(), 'scripts/lib', name)).href;

function inPlace(code: string): string {
  const program = `import { startPrivateServer } from '${library('private-server.mjs')}'; ${code}`;
  const done = spawnSync(process.execPath, ['--input-type=module', '-e', program], { cwd: place, encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`${done.stdout}${done.stderr}`);
  return done.stdout.trim();
}

const folder = join(place, 'database');

/** Starts the database on its port; after a kill its processes may take a moment to go. */
async function startDatabase(port?: number): Promise<{ readonly url: string; readonly port: number }> {
  for (let tried = 1; ; tried++) {
    try {
      const said = inPlace(
        `const c = await startPrivateServer('${folder}', ${port === undefined ? '{}' : `{ port: ${String(port)} }`}); console.log(JSON.stringify({ url: c.url('kills'), port: c.port }));`,
      );
      return JSON.parse(said.split('\n').at(-1) ?? '') as { url: string; port: number };
    } catch (error) {
      if (tried === 40) throw error;
      await pause(250);
    }
  }
}

const postmaster = (): number => Number(readFileSync(join(folder, 'data', 'postmaster.pid'), 'utf8').split('\n')[0]);

interface Writer {
  readonly child: ChildProcess;
  readonly ended: Promise<number | null>;
}

function startWriter(url: string, from: number, onKept: (n: number) => void): Writer {
  const shop = join(place, 'shop.json');
  const child = spawn(
    process.execPath,
    [
      '--conditions=react-server',
      '--import',
      'tsx',
      'scripts/kills-writer.testing.ts',
      shop,
      String(from),
      String(WRITES),
    ],
    { env: { ...process.env, DATABASE_URL: url }, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  let held = '';
  child.stdout.on('data', (bytes: Buffer) => {
    const lines = (held + bytes.toString()).split('\n');
    held = lines.pop() ?? '';
    for (const line of lines) if (line.startsWith('kept ')) onKept(Number(line.slice(5)));
  });
  return { child, ended: new Promise((resolve) => child.on('close', resolve)) };
}

async function query(url: string, text: string): Promise<Record<string, unknown>[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(text)).rows;
  } finally {
    await client.end();
  }
}

afterAll(async () => {
  try {
    process.kill(postmaster(), 'SIGKILL');
  } catch {
    // It never started.
  }
  await pause(1000);
  rmSync(place, { recursive: true, force: true });
});

it(`${String(KILLS)} kills of the database and of the application over ${String(WRITES)} writes: all that was answered is there, nothing by halves`, async () => {
  const { url, port } = await startDatabase();
  const root = url.replace(/\/kills$/, '/postgres');
  await query(root, 'create database kills');
  const migrated = spawnSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { migrateDatabase } from '${library('database.mjs')}'; await migrateDatabase('${url}');`,
    ],
    { encoding: 'utf8' },
  );
  expect(migrated.stderr).toBe('');

  const kept = new Set<number>();
  const onKept = (n: number): void => void kept.add(n);
  const random = seededRng(20);
  let kills = 0;
  let writer = startWriter(url, 0, onKept);
  // Each kill waits until some more was kept, and then a moment, so that it falls anywhere within a write.
  while (kills < KILLS) {
    const wanted = Math.ceil(((kills + 0.5) * WRITES) / (KILLS + 1));
    while (kept.size < wanted) {
      if (writer.child.exitCode !== null) throw new Error('the writer ended by itself: its last words stand above');
      await pause(5);
    }
    await pause(random() * 120);
    if (kills % 2 === 0) {
      process.kill(postmaster(), 'SIGKILL');
      await startDatabase(port);
    } else {
      writer.child.kill('SIGKILL');
      await writer.ended;
      writer = startWriter(url, kept.size, onKept);
    }
    kills += 1;
  }
  expect(await writer.ended).toBe(0);
  expect(kills).toBe(KILLS);
  expect([...kept].sort((a, b) => a - b)).toEqual(Array.from({ length: WRITES }, (_, n) => n));

  const numbers = (kind: string): number[] => [...kept].filter((n) => kindOf(n) === kind);
  const ids = async (text: string): Promise<unknown[]> => (await query(url, text)).map((r) => r.id).sort();
  const wanted = (kind: string, what?: string): string[] =>
    numbers(kind)
      .map((n) => idOf(n, what))
      .sort();
  // Each is there once, as it was asked for.
  expect(await ids('select id from daily_check')).toEqual(wanted('daily'));
  expect(await ids(`select id from event where kind = 'power_cut'`)).toEqual(wanted('happened'));
  expect(await ids('select id from test_cut')).toEqual(wanted('testCut'));
  expect(await ids('select id from calibration')).toEqual(wanted('calibration'));
  expect(await ids('select id from job')).toEqual(wanted('lockedJob'));
  expect(await ids('select id from locked_layout')).toEqual(wanted('lockedJob', 'lock'));
  // Nothing by halves: what belongs together stands together.
  expect(
    await ids(
      `select c.id from calibration c where (select count(*) from calibration_sheet s where s.calibration_id = c.id) <> 1`,
    ),
  ).toEqual([]);
  expect(
    await ids(
      `select d.id from sheet_definition d where not exists (select 1 from sheet_figure f where f.sheet_definition_id = d.id) or not exists (select 1 from sheet_spot f where f.sheet_definition_id = d.id)`,
    ),
  ).toEqual([]);
  const files = await query(
    url,
    `select l.id, j.state, count(f.kind)::int as n from locked_layout l join job j on j.id = l.job_id left join locked_file f on f.locked_layout_id = l.id group by l.id, j.state`,
  );
  expect(new Set(files.map((f) => `${String(f.state)} ${String(f.n)}`)).size).toBe(1);
  expect(files[0]).toMatchObject({ state: 'locked' });
  const [values] = await query(
    url,
    `select (select count(*) from setting_value where source = 'typed' and seq > 1)::int as told, (select count(*) from event where kind = 'setting_changed')::int as entries`,
  );
  expect(values?.told).toBe(values?.entries);
  const [first] = await query(
    url,
    `select count(distinct machine_setting_id || ' ' || seq)::int as places, count(*)::int as rows, max(seq) as last from setting_value group by machine_setting_id order by 2 desc limit 1`,
  );
  expect(first?.places).toBe(first?.rows);
  expect(first?.last).toBe(first?.rows);
});
