import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { get } from 'node:http';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

jest.setTimeout(30_000);

const place = mkdtempSync(join(tmpdir(), 'red-plumb-processes-'));
const library = pathToFileURL(join(process.cwd(), 'scripts/lib/processes.mjs')).href;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const begun: ChildProcess[] = [];
/** A test that fails leaves nothing behind: Jest would wait for it without end. */
afterEach(() => {
  for (const child of begun.splice(0)) if (child.exitCode === null) child.kill('SIGTERM');
});
afterAll(() => {
  rmSync(place, { recursive: true, force: true });
});

async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  await new Promise((resolve) => server.close(resolve));
  return port;
}

/** A server that answers with the number of its process, kept by the library. */
function keep(code: string, port: number) {
  const server = join(place, 'server.cjs');
  writeFileSync(server, code);
  const order = `{ exec: ${JSON.stringify(server)}, args: ['${port}'], count: 2 }`;
  const program = `import { keepProcesses } from '${library}'; keepProcesses(${order});`;
  const child = spawn(process.execPath, ['--input-type=module', '-e', program], { stdio: 'ignore' });
  begun.push(child);
  return { child, ended: new Promise<number | null>((resolve) => child.on('close', resolve)) };
}

const SERVER = `require('node:http').createServer((_, answer) => answer.end(String(process.pid))).listen(Number(process.argv[2]), '127.0.0.1');`;

/** Who answers; null where nobody does. A connection dealt to a process in the moment it is killed is never answered. */
const ask = (port: number): Promise<number | null> =>
  new Promise((resolve) => {
    const asked = get({ host: '127.0.0.1', port, agent: false, timeout: 1000 }, (answer) => {
      let text = '';
      answer.on('data', (bytes: Buffer) => (text += bytes.toString()));
      answer.on('end', () => {
        resolve(Number(text));
      });
    });
    asked.on('timeout', () => asked.destroy(new Error('nobody answers')));
    asked.on('error', () => {
      resolve(null);
    });
  });

/** Processes that answered, until there are so many. */
async function answering(port: number, count: number, without: readonly number[] = []): Promise<readonly number[]> {
  const found = new Set<number>();
  for (let tried = 0; tried < 300 && found.size < count; tried++) {
    const pid = await ask(port);
    if (pid !== null && !without.includes(pid)) found.add(pid);
    await pause(20);
  }
  return [...found];
}

it('two processes answer behind one port; one that is killed is replaced; asked to end, all of them do', async () => {
  const port = await freePort();
  const { child, ended } = keep(SERVER, port);
  const first = await answering(port, 2);
  expect(first).toHaveLength(2);
  const [lost = 0, left = 0] = first;
  process.kill(lost, 'SIGKILL');
  const second = await answering(port, 2, [lost]);
  expect(second).toHaveLength(2);
  expect(second).toContain(left);
  child.kill('SIGTERM');
  expect(await ended).toBe(0);
  expect(await ask(port)).toBeNull();
});

it('a server that cannot begin is not begun again and again', async () => {
  const { ended } = keep('process.exit(3);', await freePort());
  expect(await ended).toBe(3);
});
