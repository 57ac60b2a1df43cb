import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { EVENT_KINDS } from '@/core/trust/event-kinds';
import { DAY_MS } from '@/core/trust/looks';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findEventsOf } from '@/db/queries/bench';
import { findSetup, type SetupRow } from '@/db/queries/shop';
import { setClock } from '../clock';
import { keepDailyCheck, takeBackDailyCheck } from './daily-check';
import { readDaily } from './daily-view';
import { logEvent, undoEvent } from './events';
import { makeShop, type TestShop } from './shop.testing';
import { factsOf, MOST_CHECKS, trustRecords } from './trust-facts';

jest.setTimeout(120_000);

let test: TestDatabase;
let shops: readonly [TestShop, TestShop];
const BEGIN = Date.now() - 300 * DAY_MS;
const rng = seededRng(12);
beforeAll(async () => {
  test = await testDatabase();
  const make = () => makeShop(test.database, { error: NO_ERROR });
  shops = [await make(), await make()];
});
afterAll(async () => {
  setClock(undefined);
  await test.close();
});

async function rowOf({ setupId }: TestShop): Promise<SetupRow> {
  const row = await findSetup(test.database, setupId);
  if (!row) throw new Error('the setup was made');
  return row;
}

async function checked(shop: TestShop, day: number): Promise<string> {
  setClock(() => new Date(BEGIN + day * DAY_MS));
  const id = randomUUID();
  const done = await keepDailyCheck(test.database, shop.actor, {
    ...{ id, setupId: shop.setupId, materialId: shop.materialId, side: 'outside', note: '', borderSdMm: 0.07 },
    borders: { leftMm: 3, rightMm: 3 + rng() / 20, topMm: 3, bottomMm: 3 },
  });
  if (!done.ok) throw new Error(done.error.message);
  return id;
}

it('a long chart is whole, each check once; a short one beside it keeps its own', async () => {
  const [long, short] = shops;
  const count = MOST_CHECKS + 25;
  const kept: string[] = [];
  for (let day = 0; day < count; day++) kept.push(await checked(long, day));
  for (let day = 0; day < 3; day++) await checked(short, day);
  const [lost = ''] = kept.splice(4, 1);
  await takeBackDailyCheck(test.database, long.actor, lost);
  const facts = (await trustRecords(test.database, [await rowOf(long), await rowOf(short)])).map(factsOf);
  expect(facts[0]?.checks.map((c) => c.id)).toEqual([...kept].reverse());
  expect(facts[1]?.checks).toHaveLength(3);
  const view = await readDaily(test.database, long.setupId, long.materialId);
  expect(view?.chart.points.map((p) => p.id)).toEqual(kept);
  expect(view?.chart.across.isProvisional).toBe(false);
});

it('what touched a setup, through whatever it stands on: the newest, as one plain question finds them', async () => {
  const [shop] = shops;
  for (let i = 0; i < 130; i++) {
    setClock(() => new Date(BEGIN + i * 3_600_000));
    const id = randomUUID();
    // Now and then many of one thing in a row.
    const kind = EVENT_KINDS[Math.floor(rng() * (i % 40 < 20 ? EVENT_KINDS.length : 4))]?.kind ?? 'moved';
    await logEvent(test.database, shop.actor, { id, setupId: shop.setupId, kind, note: '' });
    if (rng() < 0.2)
      await undoEvent(test.database, shop.actor, { id: randomUUID(), eventId: id, setupId: shop.setupId });
  }
  const row = await rowOf(shop);
  const all = await findEventsOf(test.database, row);
  expect(all.length).toBeGreaterThan(80);
  const [facts] = (await trustRecords(test.database, [row])).map(factsOf);
  expect(facts?.events.map((e) => e.id)).toEqual(
    all
      .slice(0, 60)
      .map(({ event }) => event.id)
      .reverse(),
  );
  expect(facts?.events.at(-1)).toMatchObject({ kind: all[0]?.event.kind, at_ms: all[0]?.event.at.getTime() });
});
