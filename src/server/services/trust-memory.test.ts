import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { BORDER_CALIPER_SD_MM } from '@/core/reading/borders';
import { EVENT_KINDS } from '@/core/trust/event-kinds';
import { DAY_MS } from '@/core/trust/looks';
import { FIRST_POLICY } from '@/core/trust/policy';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { forgetRows } from '@/db/kept-rows';
import { findSetup } from '@/db/queries/shop';
import { setClock } from '../clock';
import { keepDailyCheck, keepPolicy, takeBackDailyCheck } from './daily-check';
import { logEvent, undoEvent } from './events';
import { makeShop, type TestShop } from './shop.testing';
import { readTrust } from './trust';
import { runCalibration } from '../../../scripts/run-calibration';

jest.setTimeout(180_000);

/** In the middle of a quarter of an hour, a good while after everything that is written down. */
const NOON = Math.floor(Date.now() / DAY_MS) * DAY_MS + 12 * 3_600_000 + 450_000;

let test: TestDatabase;
let shop: TestShop;
beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.6 }, markSdMm: 0.02 });
  let ticks = 0;
  setClock(() => new Date(NOON - 40 * DAY_MS + 1000 * ticks++));
  const { setupId, materialId } = shop;
  const asked = { page: 'A4', kind: 'full', toleranceMm: 0.3, way: 'settings' } as const;
  await runCalibration(test.database, shop.actor, { ...asked, setupId, materialId, id: randomUUID() }, seededRng(5));
});
afterAll(async () => {
  setClock(undefined);
  await test.close();
});

const at = (ms: number): void => {
  setClock(() => new Date(ms));
};

async function trustAt(ms: number) {
  at(ms);
  const row = await findSetup(test.database, shop.setupId);
  if (!row) throw new Error('the setup was made');
  return readTrust(test.database, row);
}

/** All that it says, as plain figures. */
const plain = (all: Awaited<ReturnType<typeof trustAt>>) =>
  all.map(({ wander, ...rest }) => ({
    ...rest,
    wander: EVENT_KINDS.map((e) => wander.jumpMm(e.kind)),
    sd: wander.perRootDayMm,
  }));

/** Other rows are other sources: nothing that was worked out before stands. */
async function workedOutAnew() {
  forgetRows();
  return trustAt(NOON);
}

it('within a quarter of an hour the same record is worked out once; the next one is worked out anew', async () => {
  const first = await trustAt(NOON);
  expect(await trustAt(NOON + 60_000)).toBe(first);
  const later = await trustAt(NOON + 900_000);
  expect(later).not.toBe(first);
  expect(later[0]?.shift.sdMm).toBeGreaterThan(first[0]?.shift.sdMm ?? Infinity);
});

const checks: string[] = [];
const events: string[] = [];
let policyVersion = 0;
const policyId = randomUUID();

/** Things that are written down, each of which changes what the trust rests on. */
const ACTS: Readonly<Record<string, (round: number) => Promise<unknown>>> = {
  check: async (round) => {
    // Some are older than those that stand already.
    at(NOON - (20 - (round % 7)) * DAY_MS);
    const id = randomUUID();
    checks.push(id);
    const borders = { leftMm: 3, rightMm: 3.1 + (round % 4) / 10, topMm: 3, bottomMm: 3 };
    const { setupId, materialId } = shop;
    const one = {
      id,
      setupId,
      materialId,
      side: 'outside',
      note: '',
      borders,
      borderSdMm: BORDER_CALIPER_SD_MM,
    } as const;
    return keepDailyCheck(test.database, shop.actor, one);
  },
  'check taken back': () => takeBackDailyCheck(test.database, shop.actor, checks.pop() ?? ''),
  event: async (round) => {
    at(NOON - (10 - (round % 5)) * DAY_MS);
    const id = randomUUID();
    events.push(id);
    const kind = EVENT_KINDS[round % EVENT_KINDS.length]?.kind ?? 'moved';
    return logEvent(test.database, shop.actor, { id, setupId: shop.setupId, kind, note: '' });
  },
  'event undone': () =>
    undoEvent(test.database, shop.actor, { id: randomUUID(), eventId: events.pop() ?? '', setupId: shop.setupId }),
  policy: async (round) => {
    const own = {
      id: policyId,
      setupId: shop.setupId,
      materialId: null,
      version: policyVersion++,
      school: 'ewma',
    } as const;
    return keepPolicy(test.database, { ...FIRST_POLICY, ...own, spoilCost: 20 + round });
  },
  'material renamed': (round) =>
    test.query(`update material set name = 'Film ${round}' where id = '${shop.materialId}'`),
  'tolerance told': (round) =>
    test.query(`update setup set tolerance_mm = ${0.3 + round / 100} where id = '${shop.setupId}'`),
};

it('whatever is written down shows at once, and is what is worked out with nothing remembered', async () => {
  const order = ['check', 'check', 'event', 'check', 'check taken back', 'policy', 'event undone', 'material renamed'];
  let last = await trustAt(NOON);
  for (const [round, name] of [...order, 'tolerance told', ...order].entries()) {
    await ACTS[name]?.(round);
    const shown = await trustAt(NOON);
    expect({ name, shown: shown === last }).toEqual({ name, shown: false });
    expect(plain(shown)).not.toEqual(plain(last));
    const anew = await workedOutAnew();
    expect(anew).not.toBe(shown);
    expect({ name, trust: plain(anew) }).toEqual({ name, trust: plain(shown) });
    last = shown;
  }
  expect(last[0]?.chart.points.length).toBe(checks.length);
});
