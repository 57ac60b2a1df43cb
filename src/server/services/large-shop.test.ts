import { drizzle } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findSetups, findShops } from '@/db/queries/shop';
import { readBench } from './bench';
import { readDaily } from './daily-view';
import { readJobs } from './job-view';
import { readOverTime } from './over-time';
import { readRecord } from './shop-record';
import { readSpoilage } from './spoilage';
import { largeShopScript } from '../../../scripts/large-shop';

jest.setTimeout(180_000);

/** Tables that grow with the years. */
const LARGE =
  'reading|fit_reading|fit|load_map|cut_set|calibration|correction|confirmation|history_entry|event|daily_check|job|locked_layout|job_print|cut_release|job_result';

interface Asked {
  readonly text: string;
  readonly values: unknown[];
}

let test: TestDatabase;
let pool: Pool | undefined;
const asked: Asked[] = [];
beforeAll(async () => {
  test = await testDatabase();
  await test.query(largeShopScript(12, 40));
});
afterAll(async () => {
  await pool?.end();
  await test.close();
});

/** Plans of everything that was asked, as they are where reading a table from end to end is the last resort. */
async function plansOf(pool: Pool, questions: readonly Asked[]): Promise<readonly string[]> {
  const plans: string[] = [];
  for (const { text, values } of questions) {
    const { rows } = await pool.query<{ 'QUERY PLAN': string }>(`explain ${text}`, values);
    plans.push(rows.map((r) => r['QUERY PLAN']).join('\n'));
  }
  return plans;
}

async function onePool(): Promise<Pool> {
  const [row] = (await test.query('select current_database() as name')) as { name: string }[];
  const url = new URL(process.env.TEST_DATABASE_URL ?? '');
  url.pathname = `/${row?.name ?? ''}`;
  return new Pool({ connectionString: url.toString(), max: 1 });
}

it('bench, history, years, daily checks and jobs of a large shop never read a large table from end to end', async () => {
  pool = await onePool();
  const database = drizzle({
    client: pool,
    casing: 'snake_case',
    logger: {
      logQuery: (text, values) => {
        asked.push({ text, values });
      },
    },
  });
  const shop = (await findShops(database)).find((s) => s.name === 'Ten years by the river');
  const [first] = await findSetups(database, shop?.id ?? '');
  if (!shop || !first) throw new Error('the shop is seeded');
  expect(await readBench(database, shop.id)).toHaveLength(12);
  // Twelve setups were checked at one moment, and lines of one moment stay together.
  expect((await readRecord(database, shop.id, {})).lines).toHaveLength(96);
  expect((await readRecord(database, shop.id, { setup: first.setup.id })).lines.length).toBeGreaterThan(95);
  expect((await readOverTime(database, first.setup.id, undefined))?.points).toHaveLength(40);
  expect((await readDaily(database, first.setup.id, undefined))?.chart.points.length).toBeGreaterThan(0);
  const jobs = await readJobs(database, { shopId: shop.id, timeZone: 'UTC', cutBefore: 500 });
  expect([jobs.open.length, jobs.cut.lines.length]).toEqual([12, 20]);
  expect((await readSpoilage(database, shop.id, 365)).all.jobs).toBeGreaterThan(50);
  expect(asked.length).toBeGreaterThan(20);
  await pool.query('set enable_seqscan = off');
  const plans = await plansOf(pool, asked);
  const wrong = plans.flatMap((plan, i) =>
    new RegExp(`Seq Scan on (${LARGE})\\b`).test(plan) ? [`${asked[i]?.text ?? ''}\n${plan}`] : [],
  );
  expect(wrong).toEqual([]);
});
