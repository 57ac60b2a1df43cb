/**
 * Speed of a shop of ten years (scripts/large-shop.sql: 50 setups, 10,000 calibrations, 1,000,000 readings, 20,000 jobs) against the times
 * that people wait gladly: Bench 300 ms, a page of the history 200 ms, a ten-year chart 500 ms, all on the server.
 * Part of `npm run bench`; DATABASE_URL names the database.
 */
import { database } from '@/db/client';
import { forgetRows } from '@/db/kept-rows';
import { findSetups, findShops } from '@/db/queries/shop';
import { readBench } from '@/server/services/bench';
import { readDaily } from '@/server/services/daily-view';
import { readJobs } from '@/server/services/job-view';
import { readOverTime } from '@/server/services/over-time';
import { readRecord } from '@/server/services/shop-record';
import { readSpoilage } from '@/server/services/spoilage';
import { line } from './timing';

const db = database();
const shop = (await findShops(db)).find((s) => s.name === 'Ten years by the river');
if (!shop) throw new Error('the large shop is not in this database');
const [first] = await findSetups(db, shop.id);
if (!first) throw new Error('the large shop has setups');
const { id } = first.setup;

/** Median of seven runs, ms; the first, cold one is told apart. */
async function timed(name: string, wanted: number, work: () => Promise<unknown>): Promise<void> {
  const runs: number[] = [];
  for (let i = 0; i < 7; i++) {
    const from = performance.now();
    await work();
    runs.push(performance.now() - from);
  }
  const cold = runs[0] ?? 0;
  runs.sort((a, b) => a - b);
  line(`${name} (cold ${cold.toFixed(0)} ms)`, runs[3] ?? 0, 'wanted', wanted);
}

await timed('bench of 50 setups', 300, () => readBench(db, shop.id));
await timed('the same with nothing remembered', 300, () => {
  forgetRows();
  return readBench(db, shop.id);
});
await timed('a page of the history', 200, () => readRecord(db, shop.id, {}));
await timed('the same of one setup', 200, () => readRecord(db, shop.id, { setup: id }));
await timed('words looked for that stand nowhere', 200, () => readRecord(db, shop.id, { find: 'no such words' }));
await timed('ten years of one setup', 500, () => readOverTime(db, id, undefined));
await timed('daily checks of one setup', 200, () => readDaily(db, id, undefined));
await timed('lists of 20,000 jobs', 200, () => readJobs(db, { shopId: shop.id, timeZone: 'UTC' }));
await timed('a year of spoiled work', 200, () => readSpoilage(db, shop.id, 365));
process.exit(0);
