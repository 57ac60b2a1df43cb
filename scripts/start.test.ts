import { spawn, spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

jest.setTimeout(60_000);

const place = mkdtempSync(join(tmpdir(), 'red-plumb-start-'));
// The database's own user has to get in.
spawnSync('chmod', ['755', place]);
const library = (name: string): string => pathToFileURL(join(process.cwd(), 'scripts/lib', name)).href;

function inNode(code: string): string {
  const program = `import { startPrivateServer } from '${library('private-server.mjs')}';
    import { databaseFolder } from '${library('data-folder.mjs')}';
    import { isPortOpen } from '${library('ports.mjs')}';
    ${code}`;
  const done = spawnSync(process.execPath, ['--input-type=module', '-e', program], { encoding: 'utf8' });
  return `${done.stdout}${done.stderr}`;
}

afterAll(() => {
  rmSync(place, { recursive: true, force: true });
});

describe('the private database server', () => {
  const folder = join(place, 'database');
  const started = `const c = await startPrivateServer('${folder}'); console.log('open', await isPortOpen(c.port));`;

  it('a data folder left half-made is put aside and said; the database then starts', () => {
    mkdirSync(join(folder, 'data'), { recursive: true });
    writeFileSync(join(folder, 'data', 'PG_VERSION'), '15\n');
    const first = inNode(`${started} await c.stop();`);
    expect(first).toMatch(/unfinished data folder was put aside/);
    expect(first).toMatch(/open true/);
    expect(readdirSync(folder).some((name) => name.startsWith('data.half-made-'))).toBe(true);
  });

  it('a second start finds it running; a stale lock file is removed and said', () => {
    const twice = inNode(
      `${started} const b = await startPrivateServer('${folder}'); console.log(c.wasRunning, b.wasRunning); await b.stop();`,
    );
    expect(twice).toMatch(/false true/);
    writeFileSync(join(folder, 'data', 'postmaster.pid'), `999999\n${join(folder, 'data')}\n0\n5999\n\n127.0.0.1\n`);
    const after = inNode(`${started} await c.stop();`);
    expect(after).toMatch(/stale lock file/);
    expect(after).toMatch(/open true/);
  });

  it('data of a PostgreSQL that is not installed is named with the way out, and not touched', () => {
    const versionFile = join(folder, 'data', 'PG_VERSION');
    const version = readFileSync(versionFile, 'utf8');
    writeFileSync(versionFile, '9\n');
    const said = inNode(`try { await startPrivateServer('${folder}'); } catch (e) { console.log(e.message); }`);
    expect(said).toMatch(/made by PostgreSQL 9, which is not installed/);
    expect(said).toMatch(/apt-get install postgresql-9/);
    expect(said).toMatch(/docs\/running\.md/);
    expect(readFileSync(versionFile, 'utf8')).toBe('9\n');
    writeFileSync(versionFile, version);
  });

  it('killed with no warning it comes back by itself on its port, within 10 seconds', () => {
    const said = inNode(`${started}
      import { keepServer } from '${library('keeper.mjs')}';
      import { readFileSync } from 'node:fs';
      const keeper = keepServer(c, (words) => console.log(words));
      process.kill(Number(readFileSync('${folder}/data/postmaster.pid', 'utf8').split('\\n')[0]), 'SIGKILL');
      const since = Date.now();
      await new Promise((r) => setTimeout(r, 300));
      while (!(await isPortOpen(c.port)) && Date.now() - since < 20000) await new Promise((r) => setTimeout(r, 50));
      console.log('back', await isPortOpen(c.port), 'soon', Date.now() - since < 10000);
      await keeper.end(); await c.stop();
      await new Promise((r) => setTimeout(r, 1500));
      console.log('ended', !(await isPortOpen(c.port)));`);
    expect(said).toMatch(/The database has stopped\. Starting it again/);
    expect(said).toMatch(/The database runs again\./);
    expect(said).toMatch(/back true soon true/);
    expect(said).toMatch(/ended true/);
  });
});

describe('an upgrade of the private database', () => {
  const folder = join(place, 'upgrade');
  const settings = (backups: string) =>
    JSON.stringify({ DATABASE_URL: null, RED_PLUMB_DATA: folder, RED_PLUMB_BACKUPS: backups });
  const open = (backups: string): string =>
    inNode(`import { openShopDatabase } from '${library('shop-database.mjs')}';
      import { withConnection } from '${library('database.mjs')}';
      try {
        const { url, server } = await openShopDatabase(${settings(backups)});
        const { rows } = await withConnection(url, (c) => c.query('select count(*)::int as n from drizzle.__drizzle_migrations'));
        console.log('migrations', rows[0].n);
        await server.stop();
      } catch (error) { console.log('refused:', error.message); }`);

  it('writes a backup that can be read back before it changes anything; without one nothing is changed', () => {
    const old = inNode(`import { ensureDatabase, migrateDatabase } from '${library('database.mjs')}';
      const c = await startPrivateServer('${join(folder, 'database')}');
      await ensureDatabase(c, 'red_plumb');
      await migrateDatabase(c.url('red_plumb'), { upTo: '0020_mark_sd' });
      await c.stop(); console.log('made');`);
    expect(old).toMatch(/made/);
    // A file where the folder should be.
    writeFileSync(join(place, 'no-folder'), '');
    expect(open(join(place, 'no-folder', 'backups'))).toMatch(
      /refused: The folder .* cannot be made .*RED_PLUMB_BACKUPS/,
    );
    const backups = join(place, 'backups');
    const done = open(backups);
    expect(done).toMatch(/Making a backup before the upgrade: .*before-upgrade-from-0020_mark_sd-.*\.dump/);
    const journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8')) as { readonly entries: unknown[] };
    expect(done).toContain(`migrations ${journal.entries.length}`);
    const [file = '', ...others] = readdirSync(backups);
    expect(others).toEqual([]);
    const listed = spawnSync('sh', ['-c', `/usr/lib/postgresql/*/bin/pg_restore --list '${join(backups, file)}'`], {
      encoding: 'utf8',
    });
    expect(listed.stdout).toMatch(/TABLE DATA public reading red_plumb/);
    // Nothing to upgrade: nothing to back up.
    expect(open(backups)).not.toMatch(/backup/);
    expect(readdirSync(backups)).toHaveLength(1);
  });
});

describe('the folder of the database', () => {
  const old = (base: string, key: string, daysAgo: number): string => {
    const folder = join(base, `demo-${key}`);
    mkdirSync(join(folder, 'data', 'global'), { recursive: true });
    writeFileSync(join(folder, 'made'), 'yes');
    writeFileSync(join(folder, 'data', 'PG_VERSION'), '15\n');
    const control = join(folder, 'data', 'global', 'pg_control');
    writeFileSync(control, key);
    const at = new Date(Date.now() - daysAgo * 86_400_000);
    utimesSync(control, at, at);
    return folder;
  };
  const found = (base: string, checkout = '/somewhere/else'): string =>
    inNode(`console.log('in', databaseFolder('${base}', '${checkout}'));`);
  const keyIn = (base: string): string => readFileSync(join(base, 'database', 'data', 'global', 'pg_control'), 'utf8');

  it('is "database" in the data folder, whatever the checkout is called', () => {
    const base = join(place, 'new');
    expect(found(base, '/a')).toContain(`in ${base}/database`);
    expect(found(base, '/b')).toContain(`in ${base}/database`);
  });

  it('takes over what an earlier version left under the name of a checkout, and says so', () => {
    const base = join(place, 'one');
    old(base, 'aaaaaaaaaaaa', 3);
    const said = found(base);
    expect(said).toMatch(/data of an earlier Red Plumb was found in .*demo-aaaaaaaaaaaa/);
    expect(keyIn(base)).toBe('aaaaaaaaaaaa');
    expect(found(base)).not.toMatch(/earlier/);
  });

  it("of several takes this checkout's own, else the last used; the others stay and are named", () => {
    const several = join(place, 'several');
    old(several, 'aaaaaaaaaaaa', 1);
    // The first letters of the SHA-256 of "/my/checkout".
    const own = inNode(
      `import { createHash } from 'node:crypto'; console.log(createHash('sha256').update('/my/checkout').digest('hex').slice(0, 12));`,
    ).trim();
    old(several, own, 30);
    expect(found(several, '/my/checkout')).toMatch(/Left as they are: .*demo-aaaaaaaaaaaa/);
    expect(keyIn(several)).toBe(own);
    const others = join(place, 'others');
    old(others, 'aaaaaaaaaaaa', 30);
    old(others, 'bbbbbbbbbbbb', 1);
    found(others);
    expect(keyIn(others)).toBe('bbbbbbbbbbbb');
    expect(existsSync(join(others, 'demo-aaaaaaaaaaaa'))).toBe(true);
  });

  it('a test database of this checkout is never taken for a shop', () => {
    const base = join(place, 'tests');
    mkdirSync(join(base, 'test-aaaaaaaaaaaa', 'data'), { recursive: true });
    writeFileSync(join(base, 'test-aaaaaaaaaaaa', 'made'), 'yes');
    found(base);
    expect(existsSync(join(base, 'test-aaaaaaaaaaaa'))).toBe(true);
  });
});

describe('the start command', () => {
  const start = (env: Record<string, string>, args: readonly string[] = []) =>
    new Promise<{ status: number | null; output: string }>((resolve) => {
      const child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
        env: { ...process.env, RED_PLUMB_DATA: join(place, 'never'), ...env },
      });
      let output = '';
      child.stderr.on('data', (bytes: Buffer) => (output += bytes.toString()));
      child.stdout.on('data', (bytes: Buffer) => (output += bytes.toString()));
      child.on('close', (status) => {
        resolve({ status, output });
      });
    });

  it('names a port in use and what to do', async () => {
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : 0;
    const done = await start({ PORT: String(port) });
    server.close();
    expect(done.status).toBe(1);
    expect(done.output).toMatch(new RegExp(`Port ${port} is in use.*PORT=${port + 2} npm start`, 's'));
  });

  it('names a wrong setting, its value and what is expected, and starts nothing', async () => {
    const { status, output } = await start({ PORT: 'abc' });
    expect(status).toBe(1);
    expect(output).toMatch(/PORT is "abc"\. It must be a whole number from 1 to 65535\./);
    expect(existsSync(join(place, 'never'))).toBe(false);
  });

  it.each([
    [
      'nobody listens',
      '@127.0.0.1:9/plumb',
      /DATABASE_URL is "postgresql:\/\/me:\*\*\*@127\.0\.0\.1:9\/plumb"\. Nothing answers there/,
    ],
    ['no such host', '@nowhere.invalid/plumb', /There is no such host/],
  ])('names a database that cannot be reached: %s', async (_, rest, words) => {
    const { status, output } = await start({ PORT: '39471', DATABASE_URL: `postgresql://me:secret${rest}` });
    expect(status).toBe(1);
    expect(output).toMatch(words);
    expect(output).not.toContain('secret');
  });

  it('lists its settings on --help, and refuses what it does not know', async () => {
    const { status, output } = await start({}, ['--help']);
    expect(status).toBe(0);
    expect(output).toMatch(/DATABASE_URL[\s\S]*RED_PLUMB_DATA|RED_PLUMB_DATA[\s\S]*DATABASE_URL/);
    expect((await start({}, ['--port', '80'])).output).toMatch(
      /"--port" is not understood\. All settings: npm start -- --help/,
    );
  });
});
