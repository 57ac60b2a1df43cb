import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { builtinModules } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { minVersion, satisfies, subset } from 'semver';
import ts from 'typescript';

interface Manifest {
  readonly engines: { readonly node: string };
  readonly scripts: Readonly<Record<string, string>>;
}

const manifest = JSON.parse(readFileSync('package.json', 'utf8')) as Manifest;

/** Commands that somebody may run first, in a checkout where nothing is installed. */
const FIRST = ['demo', 'start', 'test', 'test:long', 'test:starts', 'bench', 'bench:true', 'compute'];

const entryOf = (command: string): string => {
  const [, entry] = /^node (scripts\/[\w-]+\.mjs)/.exec(manifest.scripts[command] ?? '') ?? [];
  if (entry === undefined) throw new Error(`npm run ${command} must be a plain "node scripts/....mjs"`);
  return entry;
};

const isOfNode = (name: string): boolean => name.startsWith('node:') || builtinModules.includes(name);

/** What a module imports before it runs, and what it imports later by a plain text. */
function importsOf(path: string): { readonly first: readonly string[]; readonly later: readonly string[] } {
  const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true, ts.ScriptKind.JS);
  const first = source.statements.flatMap((statement) =>
    (ts.isImportDeclaration(statement) || ts.isExportDeclaration(statement)) &&
    statement.moduleSpecifier !== undefined &&
    ts.isStringLiteral(statement.moduleSpecifier)
      ? [statement.moduleSpecifier.text]
      : [],
  );
  const all = ts.preProcessFile(source.text, true, true).importedFiles.map((f) => f.fileName);
  return { first, later: all.filter((name) => !first.includes(name)) };
}

/** Every package that a script imports before it runs, with the scripts of ours that it imports, then or later. */
function packagesOf(entry: string, seen = new Set<string>()): string[] {
  if (seen.has(entry) || !existsSync(entry)) return [];
  seen.add(entry);
  const { first, later } = importsOf(entry);
  // What is written in TypeScript is imported through a package, so only when packages are there.
  const own = [...first, ...later].filter((n) => n.startsWith('.') && n.endsWith('.mjs'));
  const packages = first.filter((n) => !n.startsWith('.') && !isOfNode(n)).map((n) => `${entry}: ${n}`);
  return [...packages, ...own.flatMap((n) => packagesOf(resolve(dirname(entry), n), seen))];
}

it.each(FIRST)('npm run %s imports only Node itself until packages are installed', (command) => {
  expect(packagesOf(resolve(entryOf(command)))).toEqual([]);
});

it('the walk sees packages: those of a process of the running application, and what a command imports later', () => {
  const named = packagesOf(resolve('scripts/server/worker.mjs')).map((p) => p.replace(/^.*: /, ''));
  expect(named).toEqual(['next', 'pg', 'pino']);
  expect(importsOf(resolve('scripts/start.mjs'))).toEqual({
    first: ['./lib/begin.mjs'],
    later: ['./commands/run-shop.mjs'],
  });
});

describe('in a folder without node_modules', () => {
  const place = mkdtempSync(join(tmpdir(), 'red-plumb-bare-'));
  cpSync('scripts', join(place, 'scripts'), { recursive: true });
  for (const file of ['package.json', 'package-lock.json']) cpSync(file, join(place, file));
  afterAll(() => {
    rmSync(place, { recursive: true, force: true });
  });
  const run = (args: readonly string[], options: { readonly node?: string } = {}) =>
    spawnSync(process.execPath, [...args], {
      cwd: place,
      encoding: 'utf8',
      env: { ...process.env, PATH: '/nowhere', PORT: '0', ...(options.node && { RED_PLUMB_TEST_NODE: options.node }) },
    });

  it.each(['start', 'demo'])('npm run %s starts and speaks for itself', (command) => {
    const { status, stderr } = run([entryOf(command)]);
    expect(stderr).not.toMatch(/ERR_MODULE_NOT_FOUND|Cannot find package/);
    expect([status, stderr.trim()]).toEqual([1, expect.stringMatching(/npm|PORT/)]);
  });

  it('compute says in one line what to run, and nothing on standard output', () => {
    const { status, stdout, stderr } = run([entryOf('compute'), 'fit']);
    expect([status, stdout]).toEqual([1, '']);
    expect(stderr.trim()).toMatch(/^The packages are not installed\. Run: npm ci --ignore-scripts$/);
  });
});

describe('the least version of Node', () => {
  const range = manifest.engines.node;

  it('is one that every package in the lock takes', () => {
    const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
      packages: Record<string, { engines?: { node?: string }; optional?: boolean }>;
    };
    const refused = Object.entries(lock.packages)
      .filter(([name, p]) => name !== '' && p.optional !== true && p.engines?.node !== undefined)
      .filter(([, p]) => !subset(range, p.engines?.node ?? '*'))
      .map(([name, p]) => `${name} wants ${p.engines?.node ?? ''}`);
    expect(refused).toEqual([]);
  });

  it('is taken, and one before it refused in words that name both', () => {
    const least = minVersion(range)?.version ?? '';
    const ask = (version: string) =>
      spawnSync(
        process.execPath,
        [
          '--input-type=module',
          '-e',
          `import { nodeProblem } from './scripts/lib/node-version.mjs'; console.log(nodeProblem('${version}'));`,
        ],
        { encoding: 'utf8' },
      ).stdout.trim();
    expect(ask(least)).toBe('null');
    for (const version of [
      '16.20.2',
      '18.20.4',
      '20.11.0',
      '20.18.3',
      '21.7.3',
      '22.12.0',
      '22.13.0',
      '23.11.0',
      '24.0.0',
    ])
      expect([version, ask(version) === 'null']).toEqual([version, satisfies(version, range)]);
    expect(ask('18.20.4')).toBe(
      `Red Plumb needs Node ${range}. This is Node 18.20.4. Install a newer Node and start again.`,
    );
  });
});
