import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

jest.setTimeout(60_000);

/** A checkout of its own as far as the cluster's folder is concerned: that is named by the working directory. */
const place = mkdtempSync(join(tmpdir(), 'red-plumb-start-'));
const library = pathToFileURL(join(process.cwd(), 'scripts/lib/cluster.mjs')).href;

function inPlace(code: string): { status: number | null; output: string } {
  const program = `import { startCluster, clusterFolder, isPortOpen } from '${library}'; ${code}`;
  const done = spawnSync(process.execPath, ['--input-type=module', '-e', program], { cwd: place, encoding: 'utf8' });
  return { status: done.status, output: `${done.stdout}${done.stderr}` };
}

const folder = inPlace(`console.log(clusterFolder('start'));`).output.trim();

afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  rmSync(place, { recursive: true, force: true });
});

it('a data folder left half-made is put aside and said; the database then starts', () => {
  mkdirSync(join(folder, 'data'), { recursive: true });
  writeFileSync(join(folder, 'data', 'PG_VERSION'), '15\n');
  const first = inPlace(
    `const c = await startCluster('start'); console.log('open', await isPortOpen(c.port)); c.stop();`,
  );
  expect(first.output).toMatch(/unfinished data folder was put aside/);
  expect(first.output).toMatch(/open true/);
  expect(readdirSync(folder).some((name) => name.startsWith('data.half-made-'))).toBe(true);
});

it('a second start finds it running; a stale lock file is removed and said', () => {
  const twice = inPlace(
    `const a = await startCluster('start'); const b = await startCluster('start'); console.log(a.wasRunning, b.wasRunning); a.stop();`,
  );
  expect(twice.output).toMatch(/false true/);
  writeFileSync(join(folder, 'data', 'postmaster.pid'), `999999\n${join(folder, 'data')}\n0\n5999\n\n127.0.0.1\n`);
  const after = inPlace(
    `const c = await startCluster('start'); console.log('open', await isPortOpen(c.port)); c.stop();`,
  );
  expect(after.output).toMatch(/stale lock file/);
  expect(after.output).toMatch(/open true/);
});

it('data of a PostgreSQL that is not installed is named, not touched', () => {
  writeFileSync(join(folder, 'data', 'PG_VERSION'), '9\n');
  const done = inPlace(`try { await startCluster('start'); } catch (e) { console.log(e.message); }`);
  expect(done.output).toMatch(/made by PostgreSQL 9, which is not installed/);
  expect(existsSync(join(folder, 'made'))).toBe(true);
});

it('a port in use is named with what to do', async () => {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const done = await new Promise<{ status: number | null; output: string }>((resolve) => {
    const child = spawnSync(process.execPath, ['scripts/demo.mjs'], {
      encoding: 'utf8',
      env: { ...process.env, PORT: String(port) },
    });
    resolve({ status: child.status, output: child.stderr });
  });
  server.close();
  expect(done.status).toBe(1);
  expect(done.output).toMatch(new RegExp(`Port ${port} is in use.*PORT=3211 npm run demo`, 's'));
});
