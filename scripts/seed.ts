/**
 * Adds the demo shop to a database that has none. Its past is made by the application's own services on the simulated machines, all in
 * one transaction: cut off at any moment, nothing of it was ever there.
 */
import { createHash, randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { seededRng, seedFrom } from '@/core/math/random';
import { decideRoute } from '@/core/shop/decide-route';
import { sheetSize } from '@/core/units/sheet-size';
import { database, type Database } from '@/db/client';
import { cutter, markScheme, printMode, printer, program, setup, simulatedSetup } from '@/db/schema/machines';
import { machineSetting, settingValue } from '@/db/schema/settings';
import { material, person, shop } from '@/db/schema/shop';
import { event } from '@/db/schema/correction';
import { setClock } from '@/server/clock';
import { findShops } from '@/db/queries/shop';
import { seedChecks } from './demo-checks';
import { seedJobs } from './demo-jobs';
import type { DemoSetup } from './demo-setup';
import { MATERIALS, PEOPLE, SETUPS } from './demo-shop';
import { runCalibration } from './run-calibration';

const DAY_MS = 86_400_000;
/** Whoever adds the demo shop waits for another who does so. */
const LOCK = 7_236_503;

/** What is made so far: ids by what they stand for. */
interface Seeding {
  readonly db: Database;
  readonly shopId: string;
  readonly ids: Map<string, string>;
}

async function once({ ids }: Seeding, key: string, make: (id: string) => Promise<unknown>): Promise<string> {
  const known = ids.get(key);
  if (known) return known;
  const id = randomUUID();
  ids.set(key, id);
  await make(id);
  return id;
}

async function seedSettings(
  { db }: Seeding,
  demo: DemoSetup,
  cutterId: string,
  actorId: string,
): Promise<{ baseValues: Record<string, number>; senses: Record<string, number> }> {
  const baseValues: Record<string, number> = {};
  const senses: Record<string, number> = {};
  for (const [position, s] of demo.settings.entries()) {
    const id = randomUUID();
    await db.insert(machineSetting).values({
      id,
      cutterId,
      position,
      displayName: s.displayName,
      kind: s.kind,
      actsOn: s.actsOn,
      unit: s.unit,
      unitSize: s.unitSize ?? null,
      step: s.step,
      minValue: s.range[0],
      maxValue: s.range[1],
      sense: s.sense,
      gain: 1,
      entry: s.entry,
      combine: s.combine,
      pivot: s.pivot,
    });
    await db.insert(settingValue).values({
      id: randomUUID(),
      machineSettingId: id,
      seq: 1,
      value: s.value,
      source: 'typed',
      setAt: new Date(Date.now() - 200 * DAY_MS),
      setBy: actorId,
    });
    baseValues[id] = s.value;
    senses[id] = s.trueSense;
  }
  return { baseValues, senses };
}

/** The marks that every machine of the demo prints and reads. */
const seedMarks = (seeding: Seeding): Promise<string> =>
  once(seeding, 'marks', (id) =>
    seeding.db.insert(markScheme).values({
      id,
      shopId: seeding.shopId,
      kind: 'four_corners',
      name: 'Four corner marks',
      sizeMm: 14,
      insetMm: 15.9,
      keepOutMm: 5,
      edgeMinMm: 10,
      leadingMark: 'the two at the bar',
      readingOrder: 'two leading, two trailing',
    }),
  );

/** What is told of a demo program, the usual where nothing is. */
const answersOf = (told: NonNullable<DemoSetup['program']>) => ({
  opens: [...(told.opens ?? (['svg', 'pdf'] as const))],
  marksPlacedBy: told.marksPlacedBy ?? 'program',
  knowsCutBy: told.knowsCutBy ?? 'colour',
  canCutAgain: told.canCutAgain ?? true,
});

async function seedSetup(seeding: Seeding, demo: DemoSetup, actorId: string): Promise<string> {
  const { db, shopId } = seeding;
  const printerId = await once(seeding, `printer ${demo.printer}`, (id) =>
    db.insert(printer).values({ id, shopId, name: demo.printer, dotPitchMm: demo.dotPitchMm }),
  );
  const modeId = await once(seeding, `mode ${demo.printer} ${demo.mode}`, (id) =>
    db.insert(printMode).values({
      id,
      printerId,
      name: demo.mode,
      page: demo.page,
      pageWidthMm: sheetSize(demo.page).widthMm,
      pageLengthMm: sheetSize(demo.page).lengthMm,
    }),
  );
  const markSchemeId = await seedMarks(seeding);
  const own = demo.program;
  const marks = own?.marksPlacedBy === 'mat' ? null : markSchemeId;
  const programId = own
    ? await once(seeding, `program ${own.name}`, (id) =>
        db.insert(program).values({
          id,
          shopId,
          name: own.name,
          ...answersOf(own),
          importScale: own.importScale,
          spotInkName: own.spotInkName ?? null,
          markSchemeId: marks,
        }),
      )
    : null;
  const cutterId = await once(seeding, `cutter ${demo.cutter}`, (id) =>
    db.insert(cutter).values({
      id,
      shopId,
      name: demo.cutter,
      fileFormat: demo.fileFormat,
      fileAcross: demo.axes[0],
      fileAlong: demo.axes[1],
      feeds: demo.feeds,
      markSchemeId: marks,
      spareFrontMm: demo.feeds === 'towards' ? 80 : 0,
      spareRearMm: demo.feeds === 'towards' ? 120 : 0,
    }),
  );
  const { baseValues, senses } = await seedSettings(seeding, demo, cutterId, actorId);
  const setupId = randomUUID();
  await db.insert(setup).values({
    id: setupId,
    shopId,
    family: demo.family,
    name: demo.name,
    printerId,
    printModeId: modeId,
    programId,
    cutterId,
    tool: 'knife',
    carrier: demo.feeds === 'away' ? 'mat' : 'roll',
    route: decideRoute(own && answersOf(own), demo.family).route,
    note: demo.note,
    toleranceMm: demo.toleranceMm,
  });
  const { error, printScale = 1, ...hidden } = demo.truth;
  await db.insert(simulatedSetup).values({
    setupId,
    seed: seedFrom('demo b', demo.name),
    truth: {
      ...hidden,
      machineError: error,
      printScale,
      importPxPerInch: demo.program?.importScale === '72' ? 72 : 96,
      senses,
      order: 'settings-last',
      baseValues,
    },
  });
  return setupId;
}

/** The same id for the same words: the stand-ins' noise hangs on it, so that the demo is the same each time. */
function uuidOf(words: string): string {
  const hex = createHash('sha256').update(words).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** One calibration of the past, finished so many days ago. */
async function calibrated(
  { db }: Seeding,
  demo: DemoSetup,
  own: { readonly id: string; readonly setupId: string; readonly materialId: string; readonly daysAgo: number },
  actorId: string,
): Promise<void> {
  const { daysAgo, ...order } = own;
  const end = Date.now() - daysAgo * DAY_MS;
  let minutes = -25;
  setClock(() => new Date(end + 60_000 * (minutes += 0.4)));
  await runCalibration(
    db,
    { personId: actorId },
    { ...order, page: demo.page, kind: 'full', toleranceMm: demo.toleranceMm, way: 'settings' },
    seededRng(seedFrom('eye', demo.name)),
  );
  setClock(undefined);
}

async function seedPast(seeding: Seeding, demo: DemoSetup, setupId: string, actorId: string): Promise<void> {
  const { db, ids } = seeding;
  const { confirmedDaysAgo, failedDaysAgo, earlierDaysAgo = [], events = [] } = demo.past;
  const daysAgo = confirmedDaysAgo ?? failedDaysAgo;
  const materialId = ids.get(`material ${demo.material}`) ?? '';
  for (const days of earlierDaysAgo)
    await calibrated(
      seeding,
      demo,
      { setupId, materialId, id: uuidOf(`${days} ${demo.name}`), daysAgo: days },
      actorId,
    );
  if (daysAgo !== undefined)
    await calibrated(seeding, demo, { setupId, materialId, id: uuidOf(`first ${demo.name}`), daysAgo }, actorId);
  for (const e of events) {
    const found = (await db.select().from(setup)).find((s) => s.id === setupId);
    const target = e.kind === 'driver' ? { printerId: found?.printerId } : { cutterId: found?.cutterId };
    await db.insert(event).values({
      id: randomUUID(),
      ...target,
      kind: e.kind,
      note: e.note,
      at: new Date(Date.now() - e.daysAgo * DAY_MS),
      by: actorId,
    });
  }
}

async function seedThings(seeding: Seeding): Promise<{ demo: DemoSetup; setupId: string }[]> {
  const { db, shopId, ids } = seeding;
  await db.insert(shop).values({
    id: shopId,
    name: 'River and trail workshop',
    isDemo: true,
    defaultToleranceMm: 0.3,
    madeAt: new Date(Date.now() - 201 * DAY_MS),
  });
  for (const p of PEOPLE)
    await once(seeding, `person ${p.key}`, (id) =>
      db.insert(person).values({ id, shopId, name: p.name, unitSystem: p.unitSystem }),
    );
  for (const m of MATERIALS)
    await once(seeding, `material ${m.key}`, (id) =>
      db.insert(material).values({ id, shopId, name: m.name, finish: m.finish }),
    );
  const made: { demo: DemoSetup; setupId: string }[] = [];
  for (const demo of SETUPS)
    made.push({ demo, setupId: await seedSetup(seeding, demo, ids.get('person marit') ?? '') });
  return made;
}

async function seedDemo(db: Database): Promise<void> {
  await db.execute(sql`select pg_advisory_xact_lock(${LOCK})`);
  if ((await findShops(db)).some((s) => s.isDemo)) return;
  const seeding: Seeding = { db, shopId: randomUUID(), ids: new Map() };
  const { ids } = seeding;
  const made = await seedThings(seeding);
  const actor = { personId: ids.get('person marit') ?? '' };
  // The oldest first, so that the history is in the order in which things happened.
  const daysAgo = ({ past }: DemoSetup): number => past.confirmedDaysAgo ?? past.failedDaysAgo ?? 0;
  made.sort((x, y) => daysAgo(y.demo) - daysAgo(x.demo));
  for (const [i, { demo, setupId }] of made.entries()) {
    // Read by whoever shows the progress.
    process.stdout.write(`${i} of ${made.length}\n`);
    await seedPast(seeding, demo, setupId, actor.personId);
  }
  const setupOf = (name: string): string => made.find((m) => m.demo.name === name)?.setupId ?? '';
  await seedChecks(db, actor, { setupId: setupOf('Low Weir'), fromDaysAgo: 5, toDaysAgo: 1 });
  await seedChecks(db, actor, { setupId: setupOf('Towpath'), fromDaysAgo: 23, toDaysAgo: 3 });
  await seedChecks(db, actor, {
    ...{ setupId: setupOf('Otter Pool'), fromDaysAgo: 14, toDaysAgo: 0 },
    walk: { fromDaysAgo: 8, mmPerDay: 0.03 },
  });
  await seedJobs(db, actor, {
    ...{ lowWeir: setupOf('Low Weir'), towpath: setupOf('Towpath'), sluice: setupOf('Sluice') },
    ...{ stripFilm: ids.get('material strip') ?? '', vinyl: ids.get('material disc') ?? '' },
  });
}

await database().transaction((session) => seedDemo(session));
process.exit(0);
