import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { readJobs } from './job-view';
import { makeShop, type TestShop } from './shop.testing';
import { readSpoilage } from './spoilage';

jest.setTimeout(60_000);

let test: TestDatabase;
let shop: TestShop;
const JOBS = 47;

beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { error: NO_ERROR });
  const { shopId, setupId, materialId, actor } = shop;
  const key = (words: string): string => `md5('${words} ' || n)::uuid`;
  // Cut, each with two results of which the second counts; every fifth is put away, and one still waits.
  await test.query(`
    insert into job (id, shop_id, number, name, setup_id, material_id, state, archived_reason, archived_state, draft, started_at, started_by)
      select ${key('job')}, '${shopId}', n, 'Discs', '${setupId}', '${materialId}',
        case when n = 3 then 'locked' when n % 5 = 0 then 'archived' else 'cut' end,
        case when n % 5 = 0 then 'not wanted' end, case when n % 5 = 0 then 'cut' end, '{"form": "sheet"}', now(), '${actor.personId}'
      from generate_series(1, ${JOBS}) n;
    insert into job_result (id, job_id, seq, good, spoiled, spoiled_cost, note, at, by)
      select ${key("told ' || seq || '")}, ${key('job')}, seq, 10 * seq, n % 2, n % 2, '', now() - interval '1 hour' / seq, '${actor.personId}'
      from generate_series(1, ${JOBS}) n, generate_series(1, 2) seq where n <> 3`);
});
afterAll(() => test.close());

it('what is done with comes by twenty, each once with what was told of it last; what is open comes whole', async () => {
  const asked = { shopId: shop.shopId, timeZone: 'UTC' };
  const first = await readJobs(test.database, asked);
  expect(first.open.map((j) => [j.number, j.state])).toEqual([[3, 'locked']]);
  expect(first.archived).toMatchObject({ earlier: null });
  expect(first.archived.lines.map((j) => j.number)).toEqual([45, 40, 35, 30, 25, 20, 15, 10, 5]);
  expect(first.archived.lines[0]?.archivedReason).toBe('not wanted');

  const cut: number[] = [];
  const sizes: number[] = [];
  for (
    let before: number | undefined, page = first.cut;
    ;
    page = (await readJobs(test.database, { ...asked, cutBefore: before })).cut
  ) {
    cut.push(...page.lines.map((j) => j.number));
    sizes.push(page.lines.length);
    expect(page.lines.every((j) => j.result?.good === 20)).toBe(true);
    if (page.earlier === null) break;
    before = page.earlier;
  }
  const all = Array.from({ length: JOBS }, (_, i) => JOBS - i);
  expect(cut).toEqual(all.filter((n) => n !== 3 && n % 5 !== 0));
  expect(sizes).toEqual([20, 17]);
});

it('what was spoiled counts as it was told last', async () => {
  const { all, groups } = await readSpoilage(test.database, shop.shopId, 30);
  const odd = Array.from({ length: JOBS }, (_, i) => i + 1).filter((n) => n % 2 === 1 && n !== 3).length;
  expect(all).toMatchObject({ jobs: JOBS - 1, good: 20 * (JOBS - 1), spoiled: odd, cost: odd });
  expect(groups).toHaveLength(1);
});
