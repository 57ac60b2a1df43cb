import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { computeHere } from '@/compute/compute-here';
import { seededRng } from '@/core/math/random';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { onConnection } from '@/db/archive/databases';
import { countRows } from '@/db/archive/rows';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { runCalibration } from '../../../scripts/run-calibration';
import type { Actor, Refusal } from './actor';
import { abandonCalibration, confirmCorrection, reopenCalibration } from './confirm';
import { acceptCorrection, applyRough } from './corrections';
import { keepDailyCheck, keepDiscCheck, keepPolicy, takeBackDailyCheck } from './daily-check';
import { logEvent, undoEvent } from './events';
import { takeBackImport } from './import';
import { releaseCut, tellPrinted, tellResult } from './job-cut';
import { lockJob } from './job-lock';
import { copyJob, startJob } from './jobs';
import { setLimit } from './limit';
import { keepMarkUse } from './mark-use';
import { putBack } from './put-back';
import { saveReading, saveReadingList } from './readings';
import { readByStandIn } from './roll-stand-in';
import { saveStations, startRoll } from './rolls';
import { saveScan } from './scans';
import { makeSetup } from './setup-make';
import { keepNote } from './shop-record';
import { makeShop, type TestShop } from './shop.testing';
import { tellShownValue } from './shown-value';
import { startCalibration } from './start';
import { addSheet, checkPrint, logMarkTry, recordCut } from './steps';
import { keepTestCut } from './test-cuts';
import { saveThing } from './things';
import { keepFaces } from './two-faces';
import { keepLearned, recordTrial } from './which-way';

jest.setTimeout(120_000);

let test: TestDatabase;
let home: TestShop;
let away: TestShop;
const made = {
  calibrationId: '',
  cutSetId: '',
  historyEntryId: '',
  eventId: '',
  dailyCheckId: '',
  jobId: '',
  rollId: '',
};

type Done = Promise<
  { readonly ok: true } | { readonly ok: false; readonly error: Refusal | { readonly message: string } }
>;
type Write = (actor: Actor) => Done;

async function taken(done: Done): Promise<void> {
  const answer = await done;
  if (!answer.ok) throw new Error(answer.error.message);
}

const firstId = async (text: string): Promise<string> =>
  ((await test.query(text, [home.setupId])) as { readonly id: string }[])[0]?.id ?? '';

const borders = { leftMm: 3, rightMm: 3, topMm: 3, bottomMm: 3 };
const daily = (setupId: string, materialId: string): Parameters<typeof keepDailyCheck>[2] => ({
  ...{ id: randomUUID(), setupId, materialId, side: 'outside', borderSdMm: 0.07, note: '', borders },
});

beforeAll(async () => {
  test = await testDatabase();
  const db = test.database;
  [home, away] = [
    await makeShop(db, { error: { ...NO_ERROR, offsetAcrossMm: 0.4 } }),
    await makeShop(db, { error: NO_ERROR }),
  ];
  const { setupId, materialId, actor } = home;
  const order = { setupId, materialId, page: 'A4', kind: 'full', toleranceMm: 0.3, way: 'settings' } as const;
  made.calibrationId = (await runCalibration(db, actor, order, seededRng(5))).calibrationId;
  made.cutSetId = await firstId(
    'select k.id from cut_set k join calibration_sheet h on h.id = k.calibration_sheet_id join calibration c on c.id = h.calibration_id where c.setup_id = $1',
  );
  made.historyEntryId = await firstId('select id from history_entry where setup_id = $1');
  made.eventId = randomUUID();
  await taken(logEvent(db, actor, { id: made.eventId, setupId, kind: 'power_cut', note: '' }));
  const check = daily(setupId, materialId);
  made.dailyCheckId = check.id;
  await taken(keepDailyCheck(db, actor, check));
  made.jobId = randomUUID();
  await taken(startJob(db, actor, { id: made.jobId, setupId, materialId, name: 'Waymarkers' }));
  made.rollId = randomUUID();
  await taken(
    startRoll(db, actor, {
      ...{ id: made.rollId, setupId, materialId, kind: 'strip', form: 'strip', widthMm: 200, spacingMm: 250 },
      ...{ stations: 4, everyNth: 1, sides: ['left', 'right'], toleranceMm: 0.3 },
    }),
  );
});
afterAll(async () => {
  await test.close();
});

const id = () => randomUUID();
const own = () => ({ id: id(), calibrationId: made.calibrationId });
const setupOf = (shop: TestShop) => ({ setupId: shop.setupId });
const NEW_CALIBRATION = { page: { name: 'A4', widthMm: 210, lengthMm: 297 }, kind: 'quick', toleranceMm: 0.3 } as const;
const TEST_CUT = {
  stack: '',
  force: 100,
  forceUnit: 'gf',
  depth: null,
  speed: null,
  passes: 1,
  outcome: 'clean',
  note: '',
} as const;

/** Every use case that writes down who did it, asked to write in the home shop. */
const WRITES: Readonly<Record<string, Write>> = {
  setLimit: (a) => setLimit(test.database, a, { id: id(), ...setupOf(home), limitMm: 0.5 }),
  logEvent: (a) => logEvent(test.database, a, { id: id(), ...setupOf(home), kind: 'power_cut', note: '' }),
  undoEvent: (a) => undoEvent(test.database, a, { id: id(), ...setupOf(home), eventId: made.eventId }),
  abandonCalibration: (a) => abandonCalibration(test.database, a, made),
  reopenCalibration: (a) => reopenCalibration(test.database, a, made),
  addSheet: (a) => addSheet(test.database, a, made),
  confirmCorrection: (a) => confirmCorrection(test.database, a, own()),
  acceptCorrection: (a) => acceptCorrection(test.database, a, { ...own(), way: 'settings', typed: {} }),
  applyRough: (a) => applyRough(test.database, a, { ...own(), way: 'file', typed: {} }),
  keepDailyCheck: (a) => keepDailyCheck(test.database, a, daily(home.setupId, home.materialId)),
  keepDiscCheck: (a) =>
    keepDiscCheck(test.database, a, { ...daily(home.setupId, home.materialId), one: {}, other: {} } as never),
  takeBackDailyCheck: (a) => takeBackDailyCheck(test.database, a, made.dailyCheckId),
  tellPrinted: (a) => tellPrinted(test.database, a, { id: id(), jobId: made.jobId } as never),
  releaseCut: (a) => releaseCut(test.database, a, { input: { id: id(), jobId: made.jobId } as never, stamp: String }),
  tellResult: (a) => tellResult(test.database, a, { id: id(), jobId: made.jobId } as never),
  lockJob: (a) => lockJob(test.database, a, { id: id(), jobId: made.jobId, version: 1, ownFile: null }, computeHere),
  startJob: (a) => startJob(test.database, a, { id: id(), ...setupOf(home), materialId: home.materialId, name: 'x' }),
  copyJob: (a) => copyJob(test.database, a, { id: id(), jobId: made.jobId }),
  keepMarkUse: (a) => keepMarkUse(test.database, a, own()),
  putBack: (a) => putBack(test.database, a, { id: id(), historyEntryId: made.historyEntryId, typed: {} }),
  saveReading: (a) => saveReading(test.database, a, { id: id(), cutSetId: made.cutSetId } as never),
  saveReadingList: (a) =>
    saveReadingList(test.database, a, { readings: [{ id: id(), cutSetId: made.cutSetId }] } as never),
  readByStandIn: (a) => readByStandIn(test.database, a, made.rollId),
  startRoll: (a) => startRoll(test.database, a, { id: id(), ...setupOf(home), materialId: home.materialId } as never),
  saveStations: (a) => saveStations(test.database, a, [{ id: id(), rollId: made.rollId } as never]),
  saveScan: (a) => saveScan(test.database, a, { id: id(), cutSetId: made.cutSetId } as never),
  makeSetup: (a) => makeSetup(test.database, { ...a, shopId: home.shopId }, { id: id() } as never),
  keepNote: (a) => keepNote(test.database, a, { id: id(), historyEntryId: made.historyEntryId, note: 'x' }),
  tellShownValue: (a) => tellShownValue(test.database, a, { id: id(), settingId: home.settingIds[0] ?? '', value: 0 }),
  startCalibration: (a) =>
    startCalibration(test.database, a, { ...NEW_CALIBRATION, id: id(), ...setupOf(home), materialId: home.materialId }),
  checkPrint: (a) => checkPrint(test.database, a, { ...own(), lineMm: 200 }),
  recordCut: (a) =>
    recordCut(test.database, a, { ...own(), turnDeg: 0, face: 'ink-up', outcome: 'done', isFreshLoad: true }),
  logMarkTry: (a) => logMarkTry(test.database, a, { ...own(), tried: 'light', outcome: 'read' } as never),
  keepTestCut: (a) =>
    keepTestCut(test.database, a, { ...TEST_CUT, id: id(), ...setupOf(home), materialId: home.materialId }),
  saveThing: (a) => saveThing(test.database, { ...a, shopId: home.shopId }, { kind: 'person', values: {} } as never),
  keepFaces: (a) => keepFaces(test.database, a, own()),
  recordTrial: (a) => recordTrial(test.database, a, { ...own(), typed: {} }),
  keepLearned: (a) => keepLearned(test.database, a, own()),
};

const rowsOf = (shop: TestShop) => onConnection(test.url, (client) => countRows(client, shop.shopId));

it.each(Object.keys(WRITES))('%s by a person of another shop is refused in words, and writes nothing', async (name) => {
  const before = [await rowsOf(home), await rowsOf(away)];
  const done = await WRITES[name]?.(away.actor);
  expect(done).toEqual({
    ok: false,
    error: { kind: 'refused', message: expect.stringMatching(/another shop/) as string },
  });
  expect([await rowsOf(home), await rowsOf(away)]).toEqual(before);
});

it('the same are not refused for that to one who belongs there', async () => {
  for (const [name, write] of Object.entries(WRITES)) {
    // Some then lack what they need: that is another refusal, or a fault of this test's own half-filled input.
    const words = await write(home.actor).then(
      (done) => (done.ok ? '' : done.error.message),
      () => '',
    );
    expect([name, words]).toEqual([name, expect.not.stringMatching(/another shop/)]);
  }
});

it.each<[string, () => Done]>([
  ['a daily check', () => keepDailyCheck(test.database, home.actor, daily(home.setupId, away.materialId))],
  [
    'a check',
    () =>
      startCalibration(test.database, home.actor, {
        ...NEW_CALIBRATION,
        id: id(),
        ...setupOf(home),
        materialId: away.materialId,
      }),
  ],
  [
    'a job',
    () => startJob(test.database, home.actor, { id: id(), ...setupOf(home), materialId: away.materialId, name: 'x' }),
  ],
  [
    'a roll',
    () => startRoll(test.database, home.actor, { id: id(), ...setupOf(home), materialId: away.materialId } as never),
  ],
  [
    'a test cut',
    () =>
      keepTestCut(test.database, home.actor, {
        ...TEST_CUT,
        id: id(),
        ...setupOf(home),
        materialId: away.materialId,
      }),
  ],
  ['a policy', () => keepPolicy(test.database, { id: id(), ...setupOf(home), materialId: away.materialId } as never)],
])('%s with a material of another shop is refused in words', async (_, write) => {
  const done = await write();
  expect(done.ok ? '' : done.error.message).toMatch(/material belongs to another shop than this printer \+ cutter/);
});

it('an event of another shop is not undone, and a table of another shop not taken back', async () => {
  const undone = await undoEvent(test.database, away.actor, { id: id(), ...setupOf(away), eventId: made.eventId });
  expect(undone.ok ? '' : undone.error.message).toMatch(/This event belongs to another shop/);
  expect(await takeBackImport(test.database, away.actor, [made.dailyCheckId])).toBe(0);
  expect(await takeBackImport(test.database, home.actor, [made.dailyCheckId])).toBe(1);
});

it('every use case that writes down who did it is in this list', () => {
  const folder = 'src/server/services';
  const found = readdirSync(folder)
    .filter((file) => file.endsWith('.ts') && !/\.test(ing)?\.ts$/.test(file))
    .flatMap((file) =>
      [
        ...readFileSync(`${folder}/${file}`, 'utf8').matchAll(
          /export async function (\w+)\(\s*database: Database,\s*\{?[^)]*?actor: \w*Actor\b/g,
        ),
      ].map((m) => m[1] ?? ''),
    );
  expect(found.filter((name) => !(name in WRITES) && name !== 'takeBackImport')).toEqual([]);
  expect(found.length).toBeGreaterThan(25);
});
