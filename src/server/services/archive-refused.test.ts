import { readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { runCalibration } from '../../../scripts/run-calibration';
import { splitLines } from '@/formats/archive/split-lines';
import { ArchiveRefused, readArchive } from './archive-read';
import { lookAtArchive, namesBeside } from './archive-restore';
import { edited, folder, forged, linesOf, rowsOf, savedArchive } from './archive.testing';
import { jobWork } from './jobs.testing';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(240_000);

let test: TestDatabase;
let shop: TestShop;
let archive: string;

beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.6 }, markSdMm: 0.01 });
  const order = { setupId: shop.setupId, materialId: shop.materialId, toleranceMm: 0.3, id: randomUUID() };
  await runCalibration(
    test.database,
    shop.actor,
    { ...order, kind: 'full', page: 'A4', way: 'settings' },
    seededRng(3),
  );
  await jobWork(test.database, shop).locked();
  archive = await savedArchive(test.url, shop.shopId);
});

afterAll(async () => {
  await test.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('refused whole, with the reason', () => {
  const refused = async (path: string): Promise<string> => {
    const before = rowsOf(await savedArchive(test.url, shop.shopId));
    const done = lookAtArchive(test.url, path);
    const words = await done.then(
      () => 'taken',
      (error: unknown) => (error instanceof ArchiveRefused ? error.message : `broken: ${String(error)}`),
    );
    const databases = await test.query('select 1 from pg_database where datname = $1', [namesBeside(test.url).fresh]);
    expect(databases).toHaveLength(0);
    expect(rowsOf(await savedArchive(test.url, shop.shopId))).toEqual(before);
    return words;
  };
  const file = (bytes: Uint8Array | string): string => {
    const path = join(folder, `${randomUUID()}.gz`);
    writeFileSync(path, bytes);
    return path;
  };

  it('cut short anywhere', async () => {
    const whole = readFileSync(archive);
    for (const share of [0.2, 0.7, 0.999]) {
      const path = file(whole);
      truncateSync(path, Math.floor(whole.length * share));
      expect(await refused(path)).toMatch(/cut short/);
    }
    expect(await refused(edited(archive, (lines) => lines.slice(0, -1)))).toMatch(/cut short/);
    expect(await refused(edited(archive, (lines) => lines.slice(0, 1)))).toMatch(/cut short/);
  });

  it('one letter changed anywhere, one line gone, something added (property)', async () => {
    const lines = linesOf(archive);
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: lines.length - 1 }), fc.nat(), async (at, place) => {
        const path = edited(archive, (all) =>
          all.map((line, i) => {
            if (i !== at) return line;
            const here = place % line.length;
            return `${line.slice(0, here)}${line[here] === '7' ? '3' : '7'}${line.slice(here + 1)}`;
          }),
        );
        expect(await refused(path)).not.toMatch(/taken|broken/);
      }),
      { numRuns: 25 },
    );
    expect(await refused(edited(archive, (all) => all.filter((_, i) => i !== 9)))).toMatch(/hash at its end|no row/);
    expect(await refused(file(Buffer.concat([readFileSync(archive), Buffer.from('x')])))).toMatch(
      /added|damaged|cut short/,
    );
  });

  it('one that unpacks to more than is allowed, or has a line longer than any', async () => {
    const read = async (mostBytes: number): Promise<string> => {
      try {
        const { rows } = await readArchive(archive, mostBytes);
        while ((await rows.next()).done !== true);
        return 'taken';
      } catch (error) {
        return (error as Error).message;
      }
    };
    const { length } = linesOf(archive).join('\n');
    expect(await read(length * 2)).toBe('taken');
    expect(await read(length / 2)).toMatch(/unpacks to more/);
    const pieces = async function* (): AsyncGenerator<Uint8Array> {
      for (let i = 0; i < 5; i++) yield await Promise.resolve(new Uint8Array(10));
    };
    await expect(splitLines(pieces(), 40).next()).rejects.toThrow(RangeError);
  });

  it('made by a newer version, or no archive at all', async () => {
    const head = (change: object) =>
      edited(archive, ([first = '', ...rest]) => [
        JSON.stringify({ ...(JSON.parse(first) as object), ...change }),
        ...rest,
      ]);
    expect(await refused(head({ version: 2 }))).toMatch(/newer Red Plumb \(archive version 2/);
    expect(await refused(head({ schema: '9999_later' }))).toMatch(/newer Red Plumb/);
    expect(await refused(head({ schema: '0003_shops' }))).toMatch(/older than the first/);
    expect(await refused(head({ format: 'other' }))).toMatch(/no archive/);
    expect(await refused(file('plain words'))).toMatch(/no archive/);
    expect(await refused(file(gzipSync('{"a":1}\n{}\n')))).toMatch(/no archive/);
    expect(await refused(file(gzipSync('not json\n')))).toMatch(/no archive/);
    expect(await refused(file(gzipSync('')))).toMatch(/no archive/);
  });

  const change = (table: string, from: RegExp, to: string) =>
    forged(archive, (rows) => {
      const at = rows.findIndex((r) => r.startsWith(`["${table}"`) && from.test(r));
      expect(at).toBeGreaterThanOrEqual(0);
      return rows.map((r, i) => (i === at ? r.replace(from, to) : r));
    });
  it.each<[string, () => string, RegExp]>([
    [
      'a table that is none',
      () => forged(archive, (rows) => [...rows, '["pg_authid", {"rolname": "x"}]']),
      /none belongs/,
    ],
    ['who may come in', () => forged(archive, (rows) => ['["access", {"only": true}]', ...rows]), /none belongs/],
    ['a table out of its turn', () => forged(archive, (rows) => [...rows].reverse()), /none belongs/],
    ['a column that is none', () => change('person', /"name": /, '"x\\" is": 1, "name": '), /no column/],
    ['a column left out', () => change('person', /"time_zone": "[^"]*", /, ''), /has no "time_zone"/],
    ['a value of another kind', () => change('person', /"unit_system": "mm"/, '"unit_system": "ell"'), /cannot stand/],
    [
      'a number beyond all sizes',
      () => change('reading', /"displacement_mm": -?[\d.e-]+/, '"displacement_mm": 1e300'),
      /cannot stand/,
    ],
    [
      'a reference to nothing',
      () => change('cut_set', /"cut_by": "[^"]*"/, `"cut_by": "${randomUUID()}"`),
      /cannot stand/,
    ],
    [
      'another shop beside it',
      () =>
        forged(archive, (rows) => [
          rows[0] ?? '',
          (rows[0] ?? '').replace(shop.shopId, randomUUID()),
          ...rows.slice(1),
        ]),
      /another shop/,
    ],
    [
      'a reading twice',
      () => forged(archive, (rows) => rows.flatMap((r) => (r.startsWith('["reading"') ? [r, r] : [r]))),
      /cannot stand/,
    ],
    [
      'a kept file with other bytes',
      () => change('job_art', /"content": "\\\\x[0-9a-f]{2}/, '"content": "\\\\xff'),
      /does not give the hash/,
    ],
    [
      'a job whose draft is none',
      () => change('job', /"laysOut": "here"/, '"laysOut": "there"'),
      /not as Red Plumb writes it/,
    ],
    [
      'numbers written otherwise',
      () => change('machine_setting', /"gain": 1[,}]/, '"gain": 1.00e0,'),
      /not as Red Plumb writes them/,
    ],
    [
      'a moment without end',
      () => change('shop', /"made_at": "[^"]*"/, '"made_at": "infinity"'),
      /"made_at" in a row of "shop" is no moment/,
    ],
    [
      'a moment before any shop',
      () => change('cut_set', /"cut_at": "[^"]*"/, '"cut_at": "0044-03-15T12:00:00+00:00 BC"'),
      /no moment that a shop can have seen/,
    ],
    [
      'a name of 15,000 letters',
      () => change('person', /"name": "[^"]*"/, `"name": "${'a'.repeat(15_000)}"`),
      /"name" in a row of "person" is longer than a name can be/,
    ],
    [
      'a saved entry without its pass',
      () => change('confirmation', /"verdict": "pass"/, '"verdict": "cannot_tell"'),
      /cannot stand/,
    ],
  ])('%s', async (_, path, words) => {
    expect(await refused(path())).toMatch(words);
  });
});
