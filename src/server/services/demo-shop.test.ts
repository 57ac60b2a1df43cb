import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { onConnection } from '@/db/archive/databases';
import { countRows } from '@/db/archive/rows';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { addDemoShop, removeDemoShop } from './demo-shop';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(180_000);

let test: TestDatabase;
let own: TestShop;
beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
  own = await makeShop(test.database, { error: NO_ERROR });
});
afterAll(async () => {
  delete process.env.DATABASE_URL;
  await test.close();
});

const demos = () => test.query('select id from shop where is_demo') as Promise<{ readonly id: string }[]>;
const rowsOf = (shopId: string) => onConnection(test.url, (client) => countRows(client, shopId));
const rowsLeft = async (): Promise<number> => {
  const [row] = (await test.query('select count(*)::int as n from calibration')) as { readonly n: number }[];
  return row?.n ?? NaN;
};

it('cut off in the middle nothing of the demo shop was ever there; then it comes whole, once, and goes whole', async () => {
  const abort = new AbortController();
  const steps: number[] = [];
  const cut = addDemoShop((done) => {
    steps.push(done);
    if (done === 2) abort.abort();
  }, abort.signal);
  await expect(cut).rejects.toThrow();
  expect(steps).toContain(2);
  expect(await demos()).toEqual([]);
  expect(await rowsLeft()).toBe(0);

  const never = new AbortController().signal;
  const [shares, of]: [number[], Set<number>] = [[], new Set()];
  const add = () =>
    addDemoShop((done, all) => {
      shares.push(done);
      of.add(all);
    }, never);
  // Asked for twice at once, it is made once.
  await Promise.all([add(), add()]);
  const [demo, ...others] = await demos();
  expect(others).toEqual([]);
  expect(of.size).toBe(1);
  const before = await rowsOf(own.shopId);
  const counts = await rowsOf(demo?.id ?? '');
  for (const table of [
    'setup',
    'calibration',
    'reading',
    'correction',
    'confirmation',
    'history_entry',
    'daily_check',
    'job',
    'cut_release',
  ])
    expect([table, (counts[table] ?? 0) > 0]).toEqual([table, true]);

  await removeDemoShop(test.database);
  expect(await demos()).toEqual([]);
  const left = Object.entries(await rowsOf(demo?.id ?? '')).filter(([, n]) => n > 0);
  expect(left).toEqual([]);
  expect(await rowsLeft()).toBe(0);
  expect(await rowsOf(own.shopId)).toEqual(before);
  // Gone twice is gone once.
  await removeDemoShop(test.database);
});

it('records stay append-only: only a demo can be named, and only in the transaction that removes it', async () => {
  await test.query(`insert into event (id, setup_id, kind, note, at, by) values ($1, $2, 'power_cut', '', now(), $3)`, [
    randomUUID(),
    own.setupId,
    own.actor.personId,
  ]);
  const refused = { code: 'RP001' };
  await expect(test.query('delete from event')).rejects.toMatchObject(refused);
  for (const named of [own.shopId, randomUUID()])
    await expect(
      test.database.transaction(async (t) => {
        await t.execute(`select set_config('red_plumb.removes_demo', '${named}', true)`);
        await t.execute('delete from event');
      }),
    ).rejects.toMatchObject({ cause: refused });
});
