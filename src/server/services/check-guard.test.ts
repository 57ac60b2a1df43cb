import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { countRows } from '@/db/archive/rows';
import { onConnection } from '@/db/archive/databases';
import { cutAndRead, mustLoad, runCalibration } from '../../../scripts/run-calibration';
import { abandonCalibration, confirmCorrection, reopenCalibration } from './confirm';
import { acceptCorrection, applyRough } from './corrections';
import { keepMarkUse } from './mark-use';
import { saveReading, saveReadingList } from './readings';
import { saveScan } from './scans';
import { makeShop, startOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { addSheet, checkPrint, logMarkTry, recordCut } from './steps';
import { keepFaces } from './two-faces';
import { keepLearned, recordTrial } from './which-way';

jest.setTimeout(120_000);

let test: TestDatabase;
let shop: TestShop;
let saved: string;
let cancelled: string;
const PLAIN = { turnDeg: 0, face: 'ink-up' } as const;

async function opened(): Promise<string> {
  const input = startOrder(shop, 'quick');
  expect((await startCalibration(test.database, shop.actor, input)).ok).toBe(true);
  return input.id;
}

beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.42 }, markSdMm: 0.02 });
  const order = { ...startOrder(shop, 'full'), page: 'A4', kind: 'full', way: 'settings' } as const;
  const done = await runCalibration(test.database, shop.actor, order, seededRng(1));
  expect(done.verdict).toBe('pass');
  saved = done.calibrationId;
  cancelled = await opened();
  await cutAndRead(test.database, shop.actor, cancelled, { load: PLAIN, rng: seededRng(2) });
  expect((await abandonCalibration(test.database, shop.actor, { calibrationId: cancelled })).ok).toBe(true);
});
afterAll(async () => {
  await test.close();
});

interface Check {
  readonly calibrationId: string;
  readonly cutSetId: string;
}
type Done = Promise<{ ok: true; value: unknown } | { ok: false; error: { message: string } }>;

const reading = (cutSetId: string): Parameters<typeof saveReading>[2] => ({
  ...{ id: randomUUID(), cutSetId, spotNo: 1, readingMm: 0.1, startedAtMm: 0 },
  axis: 'across',
  method: 'wedge',
  state: 'read',
});
const disc = () => ({
  ...{ acrossId: randomUUID(), alongId: randomUUID(), spotNo: 1, state: 'good' as const, acrossMm: 0, alongMm: 0 },
  ...{ acrossSdMm: 0.01, alongSdMm: 0.01, acrossSharedMm: 0, alongSharedMm: 0 },
});

/** Every command that writes to a check. */
const COMMANDS: Readonly<Record<string, (check: Check) => Done>> = {
  checkPrint: ({ calibrationId }) =>
    checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId, lineMm: 230 }),
  recordCut: ({ calibrationId }) =>
    recordCut(test.database, shop.actor, {
      ...{ id: randomUUID(), calibrationId, ...PLAIN, outcome: 'stopped', isFreshLoad: true },
    }),
  logMarkTry: ({ calibrationId }) =>
    logMarkTry(test.database, shop.actor, { id: randomUUID(), calibrationId, tried: 'light', outcome: 'read' }),
  addSheet: ({ calibrationId }) => addSheet(test.database, shop.actor, { calibrationId }),
  saveReading: ({ cutSetId }) => saveReading(test.database, shop.actor, reading(cutSetId)),
  saveReadingList: ({ cutSetId }) => saveReadingList(test.database, shop.actor, { readings: [reading(cutSetId)] }),
  saveScan: ({ cutSetId }) =>
    saveScan(test.database, shop.actor, {
      ...{ id: randomUUID(), cutSetId, face: 'front', discs: [disc()], printSize: null, picture: null },
      scans: [{ fileName: 'a.png', dotsPerInch: 600, turnDeg: 0, isMirrored: false, goodCount: 1 }],
    }),
  applyRough: ({ calibrationId }) =>
    applyRough(test.database, shop.actor, { id: randomUUID(), calibrationId, way: 'file', typed: {} }),
  acceptCorrection: ({ calibrationId }) =>
    acceptCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId, way: 'none', typed: {} }),
  confirmCorrection: ({ calibrationId }) =>
    confirmCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId }),
  abandonCalibration: ({ calibrationId }) => abandonCalibration(test.database, shop.actor, { calibrationId }),
  recordTrial: ({ calibrationId }) =>
    recordTrial(test.database, shop.actor, { id: randomUUID(), calibrationId, typed: {} }),
  keepLearned: ({ calibrationId }) => keepLearned(test.database, shop.actor, { id: randomUUID(), calibrationId }),
  keepMarkUse: ({ calibrationId }) => keepMarkUse(test.database, shop.actor, { id: randomUUID(), calibrationId }),
  keepFaces: ({ calibrationId }) => keepFaces(test.database, shop.actor, { id: randomUUID(), calibrationId }),
};

const rows = (): Promise<unknown> => onConnection(test.url, (client) => countRows(client, shop.shopId));
const rowOf = (id: string) => test.query('select * from calibration where id = $1', [id]);
const lastSetOf = async (id: string) => (await mustLoad(test.database, id)).cutSets.at(-1)?.id ?? '';

describe('a check that is closed', () => {
  it.each(Object.keys(COMMANDS))('%s is refused on a saved one, and changes nothing', async (name) => {
    const check = { calibrationId: saved, cutSetId: await lastSetOf(saved) };
    const before = [await rows(), await rowOf(saved)];
    const done = await COMMANDS[name]?.(check);
    expect(done).toMatchObject({ ok: false, error: { message: expect.stringMatching(/already saved/) as string } });
    expect([await rows(), await rowOf(saved)]).toEqual(before);
  });

  it.each(Object.keys(COMMANDS).filter((name) => name !== 'abandonCalibration'))(
    '%s is refused on a cancelled one, and changes nothing',
    async (name) => {
      const check = { calibrationId: cancelled, cutSetId: await lastSetOf(cancelled) };
      const before = [await rows(), await rowOf(cancelled)];
      const done = await COMMANDS[name]?.(check);
      expect(done).toMatchObject({ ok: false, error: { message: expect.stringMatching(/was cancelled/) as string } });
      expect([await rows(), await rowOf(cancelled)]).toEqual(before);
    },
  );

  it('a saved one cannot be reopened; a cancelled one can, and goes on where it was', async () => {
    const before = await rowOf(saved);
    expect(await reopenCalibration(test.database, shop.actor, { calibrationId: saved })).toMatchObject({ ok: false });
    expect(await rowOf(saved)).toEqual(before);
    const id = await opened();
    await abandonCalibration(test.database, shop.actor, { calibrationId: id });
    expect(await reopenCalibration(test.database, shop.actor, { calibrationId: id })).toMatchObject({ ok: true });
    expect(await rowOf(id)).toMatchObject([{ state: 'open', ended_at: null }]);
    const input = { id: randomUUID(), calibrationId: id, lineMm: 230 };
    expect((await checkPrint(test.database, shop.actor, input)).ok).toBe(true);
  });

  it('asked for twice, what ended it is answered as before', async () => {
    const id = await opened();
    const cancel = () => abandonCalibration(test.database, shop.actor, { calibrationId: id });
    expect([await cancel(), await cancel()]).toEqual([
      { ok: true, value: id },
      { ok: true, value: id },
    ]);
    const { confirmations } = await mustLoad(test.database, saved);
    const again = { id: confirmations[0]?.id ?? '', calibrationId: saved };
    expect(await confirmCorrection(test.database, shop.actor, again)).toEqual({ ok: true, value: 'pass' });
  });

  it('a cancel that meets the verdict at the same moment: one of them wins, and the record says which', async () => {
    for (let round = 0; round < 4; round++) {
      const id = await opened();
      await cutAndRead(test.database, shop.actor, id, { load: PLAIN, rng: seededRng(3) });
      await acceptCorrection(test.database, shop.actor, {
        ...{ id: randomUUID(), calibrationId: id },
        way: 'none',
        typed: {},
      });
      await cutAndRead(test.database, shop.actor, id, { load: PLAIN, rng: seededRng(4) });
      const [verdict, cancel] = await Promise.all([
        confirmCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId: id }),
        abandonCalibration(test.database, shop.actor, { calibrationId: id }),
      ]);
      const { calibration, confirmations } = await mustLoad(test.database, id);
      expect(confirmations).toHaveLength(verdict.ok ? 1 : 0);
      expect(calibration.state).toBe(cancel.ok ? 'abandoned' : 'saved');
      expect(verdict.ok || cancel.ok).toBe(true);
    }
  });
});

describe('the database itself', () => {
  it.each([
    ["set state = 'abandoned'", /a saved check is never changed/],
    ["set state = 'open', ended_at = null", /a saved check is never changed/],
    ['set tolerance_mm = 2', /a saved check is never changed/],
  ])('refuses to %s on a saved check', async (change, words) => {
    await expect(test.query(`update calibration ${change} where id = $1`, [saved])).rejects.toThrow(words);
  });

  it('refuses to delete a check, and to change what it is of', async () => {
    await expect(test.query('delete from calibration where id = $1', [cancelled])).rejects.toThrow(/never deleted/);
    const id = await opened();
    await expect(test.query("update calibration set kind = 'full' where id = $1", [id])).rejects.toThrow(
      /never changes/,
    );
  });

  it.each([
    [
      'a reading',
      `insert into reading select gen_random_uuid(), r.cut_set_id, r.spot_no, r.axis, r.method, 4, 1, null, r.state, r.reading_mm,
         r.displacement_mm, r.standard_uncertainty_mm, r.raw, now(), r.read_by from reading r
         join cut_set c on c.id = r.cut_set_id join calibration_sheet s on s.id = c.calibration_sheet_id
         where s.calibration_id = $1 limit 1`,
    ],
    [
      'a sheet',
      `insert into calibration_sheet select gen_random_uuid(), calibration_id, sheet_definition_id, 99, 'XX-XXX', 0
         from calibration_sheet where calibration_id = $1 limit 1`,
    ],
  ])('takes no %s of a closed check', async (_, insert) => {
    for (const id of [saved, cancelled]) await expect(test.query(insert, [id])).rejects.toThrow(/check is closed/);
  });
});
