import { randomUUID } from 'node:crypto';
import { seededRng } from '@/core/math/random';
import type { Database } from '@/db/client';
import { mustLoad, readRoughOf } from '../../../scripts/run-calibration';
import { analyse, type Analysis } from './analysis';
import { confirmCorrection } from './confirm';
import { acceptCorrection, applyRough } from './corrections';
import { isRead } from './looks';
import { verdictView } from './next-deed';
import { currentSets, latestCorrection, type CalibrationRecord, type CutSet } from './record';
import { addSheet } from './steps';
import { keepLearned, recordTrial, trialChanges, trialsOf } from './which-way';
import { wayOut } from './way-out';
import {
  checkLastPrint,
  correct,
  cut,
  interrupt,
  leaveCheck,
  MOST_PRESSES,
  must,
  read,
  Refused,
  shareInReach,
  startAndPrint,
  trueWorstMm,
  whichWay,
  type EndKind,
  type Ending,
  type OperatorOrder,
  type World,
} from './operator-hands.testing';

/** One press before anything was corrected. @returns the check to go on with, or null where it ends here. */
async function pressOnMap(world: World, record: CalibrationRecord, analysis: Analysis): Promise<string | null> {
  const { db, order } = world;
  const { id: calibrationId } = record.calibration;
  const way = wayOut(record, analysis);
  world.pressed.push(way);
  switch (way) {
    case 'good-as-it-is':
      await must(acceptCorrection(db, order.shop.actor, { id: randomUUID(), calibrationId, way: 'none', typed: {} }));
      return calibrationId;
    case 'nothing-to-correct':
      await cut(world, calibrationId);
      return calibrationId;
    case 'keep-direction':
      await must(keepLearned(db, order.shop.actor, { id: randomUUID(), calibrationId }));
      return calibrationId;
    case 'find-direction': {
      if (trialsOf(record)) {
        const typed = Object.fromEntries(trialChanges(record).map((c) => [c.setting.id, c.toType]));
        await must(recordTrial(db, order.shop.actor, { id: randomUUID(), calibrationId, typed }));
        return calibrationId;
      }
      leaveCheck(world, record);
      await whichWay(world);
      return startAndPrint(world, 'quick');
    }
    case 'cannot-tell':
      return null;
    case 'set':
    case 'move-file':
    case 'hide':
      await correct(world, record, analysis);
      return calibrationId;
  }
}

type Pressed = 'on' | 'in-register' | 'honest';

/** One press on the page of a verdict. */
async function pressOnVerdict(world: World, record: CalibrationRecord, analysis: Analysis): Promise<Pressed> {
  const { db, order } = world;
  const { actor } = order.shop;
  const { id: calibrationId } = record.calibration;
  const { deed } = verdictView(record, analysis);
  world.pressed.push(deed);
  switch (deed) {
    case 'keep-pass':
      await must(confirmCorrection(db, actor, { id: randomUUID(), calibrationId }));
      return 'in-register';
    case 'keep-fail':
      await must(confirmCorrection(db, actor, { id: randomUUID(), calibrationId }));
      return 'on';
    case 'another-load':
      await must(addSheet(db, actor, { calibrationId }));
      await checkLastPrint(world, calibrationId);
      await cut(world, calibrationId);
      return 'on';
    case 'more-looks': {
      const set = currentSets(record).at(-1);
      const next = 2 + new Set(record.repeats.map((r) => r.repeatNo)).size;
      if (set) await read(world, calibrationId, set.id, next);
      return 'on';
    }
    case 'correct-again':
      await correct(world, record, analysis);
      return 'on';
    case 'wider-limit':
    case 'check-knife':
      return 'honest';
  }
}

/** Cut and not read yet: the fine figures, or the rough position where they are out of reach. */
async function pressOnRead(world: World, record: CalibrationRecord, set: CutSet): Promise<void> {
  const { db, order } = world;
  const { id: calibrationId } = record.calibration;
  const hasGrids = set.setNo === 1 && record.definition.roughs.length > 0;
  if (!hasGrids || (await shareInReach(world, record, set)) > 0.5) {
    world.pressed.push('read');
    await read(world, calibrationId, set.id);
    return;
  }
  world.pressed.push('bring-near');
  await readRoughOf(db, order.shop.actor, record, set);
  await must(applyRough(db, order.shop.actor, { id: randomUUID(), calibrationId, way: 'file', typed: {} }));
  await cut(world, calibrationId);
}

/** One press of the dark button, wherever the check stands. */
async function press(
  world: World,
  calibrationId: string,
): Promise<{ check: string; ended: Exclude<Pressed, 'on'> | null }> {
  const record = await mustLoad(world.db, calibrationId);
  const sets = currentSets(record);
  const set = sets.at(-1);
  const on = { check: calibrationId, ended: null };
  const last = latestCorrection(record);
  const isCorrected = last !== undefined && last.objective !== 'rough';
  if (!set || (isCorrected && set.purpose === 'before')) {
    world.pressed.push('cut');
    await cut(world, calibrationId);
    return on;
  }
  if (!isRead(record, set)) {
    await pressOnRead(world, record, set);
    return on;
  }
  const analysed = analyse(record);
  if (!analysed.ok) {
    world.pressed.push('out of reach');
    return { check: calibrationId, ended: 'honest' };
  }
  if (isCorrected) {
    const done = await pressOnVerdict(world, record, analysed.value);
    return { check: calibrationId, ended: done === 'on' ? null : done };
  }
  const next = await pressOnMap(world, record, analysed.value);
  return next === null ? { check: calibrationId, ended: 'honest' } : { check: next, ended: null };
}

async function pressToTheEnd(world: World, first: string): Promise<{ kind: EndKind; check: string }> {
  let check = first;
  for (let count = 1; count <= MOST_PRESSES; count++) {
    const pressed = await press(world, check);
    check = pressed.check;
    if (pressed.ended) return { kind: pressed.ended, check };
    const between = world.order.interrupted[count];
    if (between) await interrupt(world, await mustLoad(world.db, check), between);
  }
  return { kind: 'loop', check };
}

/** Presses the dark button and types what the screen says until there is nothing left to press. */
export async function obey(db: Database, order: OperatorOrder): Promise<Ending> {
  const world: World = {
    ...{ db, order, rng: seededRng(order.seed), pressed: [], sheets: 0, loads: 0, lost: 0 },
  };
  const first = await startAndPrint(world, 'quick');
  const beforeMm = await trueWorstMm(db, await mustLoad(db, first));
  let end: { kind: EndKind; check: string };
  try {
    end = await pressToTheEnd(world, first);
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    world.pressed.push(`refused: ${error.message}`);
    end = { kind: 'refused', check: first };
  }
  const record = await mustLoad(db, end.check);
  leaveCheck(world, record);
  return {
    kind: end.kind,
    pressed: world.pressed,
    beforeMm,
    afterMm: await trueWorstMm(db, record),
    sheets: world.sheets,
    loads: world.loads,
    lostReadings: world.lost,
  };
}
