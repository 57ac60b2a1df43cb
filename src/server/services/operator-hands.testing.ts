import { randomUUID } from 'node:crypto';
import { apply, then, type Point } from '@/core/geometry/affine';
import type { Load } from '@/core/geometry/load';
import { seededRng, type Rng } from '@/core/math/random';
import { actualCutMap } from '@/core/simulate/simulated-load';
import { StoredTruth } from '@/contracts/stored';
import type { Database } from '@/db/client';
import { findTruth } from '@/db/queries/shop';
import { mustLoad, readDoneSet } from '../../../scripts/run-calibration';
import type { Analysis } from './analysis';
import { abandonCalibration, reopenCalibration } from './confirm';
import { acceptCorrection, changedOnly } from './corrections';
import { fileMove } from './cut-moves';
import { isFine } from '@/core/reading/methods';
import { readCombs, readRims, readWedges } from '../standins/read-sheet';
import { looksOf } from './looks';
import { firstWay } from './next-deed';
import { planCut, type CalibrationRecord, type CutSet } from './record';
import { saveReading } from './readings';
import { cutsOfSet } from './simulation';
import { startOrder, type TestShop } from './shop.testing';
import { tellShownValue } from './shown-value';
import { startCalibration } from './start';
import { addSheet, checkPrint, recordCut } from './steps';
import { keepLearned, learnedFrom, recordTrial, trialChanges } from './which-way';

/** What may come between two presses. */
export const INTERRUPTIONS = [
  'which-way',
  'set-meanwhile',
  'another-sheet',
  'leave',
  'sent-twice',
  'print-again',
] as const;
export type Interruption = (typeof INTERRUPTIONS)[number];

export interface OperatorOrder {
  readonly shop: TestShop;
  readonly seed: number;
  readonly limitMm: number;
  /** After so many presses something comes between. */
  readonly interrupted: Readonly<Partial<Record<number, Interruption>>>;
}

/** How a run of presses ends. */
export type EndKind =
  /** In register, kept in the history. */
  | 'in-register'
  /** The screen says that it cannot tell, or that nothing reaches it, and what to do instead. */
  | 'honest'
  /** Ends of a run that must not happen. */
  | 'loop'
  | 'refused';

export interface Ending {
  readonly kind: EndKind;
  /** What was pressed, in order. */
  readonly pressed: readonly string[];
  /** True worst corner of the constant map before and after, mm. */
  readonly beforeMm: number;
  readonly afterMm: number;
  readonly sheets: number;
  readonly loads: number;
  readonly lostReadings: number;
}

export const LOAD: Load = { turnDeg: 0, face: 'ink-up' };
/** More presses than any way to an end takes. */
export const MOST_PRESSES = 40;

export interface World {
  readonly db: Database;
  readonly order: OperatorOrder;
  readonly rng: Rng;
  readonly pressed: string[];
  /** Sheets and loads of checks that were left for another. */
  sheets: number;
  loads: number;
  lost: number;
}

export class Refused extends Error {}

export async function must<T>(
  done: Promise<{ ok: true; value: T } | { ok: false; error: { message: string } }>,
): Promise<T> {
  const result = await done;
  if (!result.ok) throw new Refused(result.error.message);
  return result.value;
}

/** Worst corner of what the machine truly makes of a cut file as it would be sent now: no noise of marks or eye. */
export async function trueWorstMm(db: Database, record: CalibrationRecord): Promise<number> {
  const stored = await findTruth(db, record.calibration.setupId);
  const truth = StoredTruth.parse(stored?.truth);
  const machine = actualCutMap(
    {
      truth: { ...truth, markSdMm: 0 },
      load: LOAD,
      marks: record.marks,
      loadModel: record.loadModel,
      settings: record.settings.map((s) => ({ ...s, value: truth.baseValues[s.id] ?? s.value })),
      valuesNow: record.settings.map((s) => s.value),
    },
    seededRng(1),
  );
  const cut = then(fileMove(planCut(record, true), LOAD), machine);
  const off = (p: Point): number => Math.hypot(apply(cut, p).x - p.x, apply(cut, p).y - p.y);
  return Math.max(...record.corners.map(off));
}

export async function startAndPrint(world: World, kind: 'quick' | 'which_way'): Promise<string> {
  const { db, order } = world;
  const input = { ...startOrder(order.shop, kind), id: randomUUID(), toleranceMm: order.limitMm };
  await must(startCalibration(db, order.shop.actor, input));
  await checkLastPrint(world, input.id);
  return input.id;
}

export async function checkLastPrint(world: World, calibrationId: string): Promise<void> {
  const { db, order } = world;
  const { block } = await mustLoad(db, calibrationId);
  await must(checkPrint(db, order.shop.actor, { id: randomUUID(), calibrationId, lineMm: block.checkLineMm }));
}

/** Cuts what the page says; a new sheet is printed first where it asks for one. */
export async function cut(world: World, calibrationId: string): Promise<void> {
  const { db, order } = world;
  if (planCut(await mustLoad(db, calibrationId), true).needsNewSheet) {
    await must(addSheet(db, order.shop.actor, { calibrationId }));
    await checkLastPrint(world, calibrationId);
  }
  const input = { id: randomUUID(), calibrationId, ...LOAD, outcome: 'done', isFreshLoad: true } as const;
  await must(recordCut(db, order.shop.actor, input));
}

/** Share of a set's figures that are in reach. */
export async function shareInReach(world: World, record: CalibrationRecord, set: CutSet): Promise<number> {
  const picture = await cutsOfSet(world.db, record, set);
  const eye = { sdMm: 0, rng: world.rng };
  const { definition } = record;
  const cuts = picture?.cuts ?? [];
  const seen = [
    ...readCombs(definition, cuts, eye),
    ...readWedges(definition, set.setNo, cuts, eye),
    ...readRims(definition, cuts, eye).map((r) => ({ readingMm: r.acrossMm })),
  ];
  return seen.filter((s) => s.readingMm !== null).length / seen.length;
}

/** The figures of a sheet as an eye reads them. */
export function eyeMethod({ definition }: CalibrationRecord): 'wedge' | 'comb' | 'rim' {
  if (definition.liftOffs.length > 0) return 'rim';
  return definition.combs.length > 0 ? 'comb' : 'wedge';
}

/** Says of every figure that is not in reach that it cannot be read. */
export async function answerRest(world: World, calibrationId: string, cutSetId: string): Promise<void> {
  const record = await mustLoad(world.db, calibrationId);
  const set = record.cutSets.find((c) => c.id === cutSetId);
  if (!set) return;
  const open = looksOf(record, set).filter(
    (l) =>
      !record.readings.some(
        (r) => r.cutSetId === cutSetId && r.spotNo === l.spotNo && r.axis === l.axis && isFine(r.method),
      ),
  );
  for (const { spotNo, axis } of open)
    await must(
      saveReading(world.db, world.order.shop.actor, {
        ...{ id: randomUUID(), cutSetId, spotNo, axis, method: eyeMethod(record), repeatNo: 1 },
        ...{ state: 'unreadable', readingMm: null, startedAtMm: 0.1 },
      }),
    );
}

/** Reads a set off the picture; each answer must be there afterwards. @returns how many figures were in reach. */
export async function read(world: World, calibrationId: string, cutSetId: string, repeatNo = 1): Promise<number> {
  const { db, order, rng } = world;
  const count = await readDoneSet(db, order.shop.actor, calibrationId, { cutSetId, rng, repeatNo });
  if (repeatNo === 1) await answerRest(world, calibrationId, cutSetId);
  const record = await mustLoad(db, calibrationId);
  const kept = [...record.readings, ...record.repeats].filter(
    (r) => r.cutSetId === cutSetId && r.repeatNo === repeatNo && r.method !== 'rough' && r.state === 'read',
  ).length;
  world.lost += Math.max(0, count - kept);
  return count;
}

/** The test that tells which way + goes, from its sheet to what is kept. */
export async function whichWay(world: World): Promise<void> {
  const { db, order } = world;
  const { actor } = order.shop;
  const calibrationId = await startAndPrint(world, 'which_way');
  await must(recordCut(db, actor, { id: randomUUID(), calibrationId, ...LOAD, outcome: 'done', isFreshLoad: true }));
  const changes = trialChanges(await mustLoad(db, calibrationId));
  const typed = Object.fromEntries(changes.map((c) => [c.setting.id, c.toType]));
  await must(recordTrial(db, actor, { id: randomUUID(), calibrationId, typed }));
  const record = await mustLoad(db, calibrationId);
  for (const set of record.cutSets) await read(world, calibrationId, set.id);
  world.sheets += record.sheets.length;
  world.loads += new Set(record.cutSets.map((c) => c.loadNo)).size;
  if (learnedFrom(await mustLoad(db, calibrationId)))
    await must(keepLearned(db, actor, { id: randomUUID(), calibrationId }));
}

/** What the settings page says, typed back as it says it. */
export async function correct(world: World, record: CalibrationRecord, analysis: Analysis): Promise<void> {
  const { db, order } = world;
  const way = firstWay(record, analysis);
  const changes =
    way === 'settings' || way === 'settings-and-file' ? changedOnly(analysis.plan) : analysis.atCut.mustSetBack;
  const typed = Object.fromEntries(changes.map((c) => [c.setting.id, c.toType]));
  await must(
    acceptCorrection(db, order.shop.actor, { id: randomUUID(), calibrationId: record.calibration.id, way, typed }),
  );
}

/** A check that is left for another: its sheets and loads count all the same. */
export function leaveCheck(world: World, record: CalibrationRecord): void {
  world.sheets += record.sheets.length;
  world.loads += new Set(record.cutSets.map((c) => c.loadNo)).size;
}

/** Something else comes between, as happens in a shop. */
export async function interrupt(world: World, record: CalibrationRecord, what: Interruption): Promise<void> {
  const { db, order } = world;
  const { actor, settingIds } = order.shop;
  const { id: calibrationId } = record.calibration;
  world.pressed.push(`(${what})`);
  switch (what) {
    case 'which-way':
      if (record.settings.some((s) => s.sense === null)) await whichWay(world);
      return;
    case 'set-meanwhile': {
      const [first] = record.settings;
      if (!first || first.kind === 'wizard') return;
      const value = first.value + 4 * first.step;
      await must(tellShownValue(db, actor, { id: randomUUID(), settingId: settingIds[0] ?? '', value }));
      return;
    }
    case 'another-sheet':
      await must(addSheet(db, actor, { calibrationId }));
      return;
    case 'print-again':
      await checkLastPrint(world, calibrationId);
      return;
    case 'leave':
      await must(abandonCalibration(db, actor, { calibrationId }));
      await must(reopenCalibration(db, actor, { calibrationId }));
      return;
    case 'sent-twice': {
      const set = record.cutSets.at(-1);
      if (!set) return;
      const input = { id: set.id, calibrationId, ...LOAD, outcome: 'done', isFreshLoad: true } as const;
      await must(recordCut(db, actor, input));
      return;
    }
  }
}
