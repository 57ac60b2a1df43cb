/** Runs a whole calibration of a simulated setup through the application's services, reading the stand-in's picture. */
import { randomUUID } from 'node:crypto';
import type { Load } from '@/core/geometry/load';
import type { Rng } from '@/core/math/random';
import { sheetSize, type SheetName } from '@/core/units/sheet-size';
import type { Verdict } from '@/core/verdict/bound';
import type { Database } from '@/db/client';
import type { Actor } from '@/server/services/actor';
import { analyse } from '@/server/services/analysis';
import { confirmCorrection } from '@/server/services/confirm';
import { acceptCorrection, changedOnly, applyRough } from '@/server/services/corrections';
import { saveReading } from '@/server/services/readings';
import { loadRecord, planCut, type CalibrationRecord, type CutSet } from '@/server/services/record';
import { cutsOfSet } from '@/server/services/simulation';
import { startCalibration } from '@/server/services/start';
import { addSheet, checkPrint, recordCut } from '@/server/services/steps';
import { readCombs, readRims, readWedges, type SeenRims } from '@/server/standins/read-sheet';

export interface Order {
  readonly setupId: string;
  readonly materialId: string;
  readonly page: SheetName;
  readonly kind: 'quick' | 'full';
  readonly toleranceMm: number;
  readonly way: 'settings' | 'settings-and-file' | 'file' | 'none';
  readonly loads?: readonly [Load, Load];
  /** The calibration's id, where the same run is wanted each time. */
  readonly id?: string;
}

const EYE_SD_MM = 0.03;
const PLAIN: Load = { turnDeg: 0, face: 'ink-up' };

async function must<T>(done: Promise<{ ok: true; value: T } | { ok: false; error: { message: string } }>): Promise<T> {
  const result = await done;
  if (!result.ok) throw new Error(result.error.message);
  return result.value;
}

export async function mustLoad(db: Database, id: string): Promise<CalibrationRecord> {
  const record = await loadRecord(db, id);
  if (!record) throw new Error('the calibration is gone');
  return record;
}

/** Cuts the next set and reads it. @returns how many figures could be read. */
export async function cutAndRead(
  db: Database,
  actor: Actor,
  calibrationId: string,
  work: { load: Load; rng: Rng },
): Promise<number> {
  const cutSetId = await must(
    recordCut(db, actor, { id: randomUUID(), calibrationId, ...work.load, outcome: 'done', isFreshLoad: true }),
  );
  return readDoneSet(db, actor, calibrationId, { cutSetId, rng: work.rng });
}

/** Reads a set that is cut; `repeatNo` says which look it is. @returns how many figures could be read. */
export async function readDoneSet(
  db: Database,
  actor: Actor,
  calibrationId: string,
  work: { cutSetId: string; rng: Rng; repeatNo?: number },
): Promise<number> {
  const { cutSetId, repeatNo = 1 } = work;
  const record = await mustLoad(db, calibrationId);
  const set = record.cutSets.find((c) => c.id === cutSetId);
  const picture = set ? await cutsOfSet(db, record, set) : null;
  if (!set || !picture) throw new Error('the set was not cut');
  const eye = { sdMm: EYE_SD_MM, rng: work.rng };
  if (record.definition.liftOffs.length > 0) {
    return keepRims(db, actor, cutSetId, readRims(record.definition, picture.cuts, eye));
  }
  let count = 0;
  const isComb = record.definition.combs.length > 0;
  const figures = isComb
    ? readCombs(record.definition, picture.cuts, eye)
    : readWedges(record.definition, set.setNo, picture.cuts, eye);
  for (const seen of figures) {
    if (seen.readingMm === null) continue;
    count++;
    await must(
      saveReading(db, actor, {
        id: randomUUID(),
        cutSetId,
        spotNo: seen.spotNo,
        axis: seen.axis,
        method: isComb ? 'comb' : 'wedge',
        repeatNo,
        state: 'read',
        readingMm: seen.readingMm,
        startedAtMm: 0.2,
      }),
    );
  }
  if (count === 0) await readRough(db, actor, { record, cutSetId, cuts: picture.cuts });
  return count;
}

/** Both components of each disc that could be read. */
async function keepRims(db: Database, actor: Actor, cutSetId: string, rims: readonly SeenRims[]): Promise<number> {
  let count = 0;
  for (const { spotNo, acrossMm, alongMm } of rims) {
    for (const [axis, readingMm] of [
      ['across', acrossMm],
      ['along', alongMm],
    ] as const) {
      if (readingMm === null) continue;
      count++;
      const input = { cutSetId, spotNo, axis, method: 'rim', state: 'read', readingMm, startedAtMm: 0.2 } as const;
      await must(saveReading(db, actor, { id: randomUUID(), ...input }));
    }
  }
  return count;
}

/** The corner of each cut L, to a quarter of a mm, over its grid. */
async function readRough(
  db: Database,
  actor: Actor,
  seen: { record: CalibrationRecord; cutSetId: string; cuts: readonly (readonly { x: number; y: number }[])[] },
): Promise<void> {
  const ells = seen.cuts.filter((c) => c.length === 7);
  for (const [i, rough] of seen.record.definition.roughs.entries()) {
    const corner = ells[i]?.[0];
    if (!corner) continue;
    for (const [axis, value] of [
      ['across', corner.x - rough.centre.x],
      ['along', corner.y - rough.centre.y],
    ] as const) {
      const readingMm = Math.round(value * 4) / 4;
      await must(
        saveReading(db, actor, {
          id: randomUUID(),
          cutSetId: seen.cutSetId,
          spotNo: rough.spotNo,
          axis,
          method: 'rough',
          state: 'read',
          readingMm,
          startedAtMm: 0,
        }),
      );
    }
  }
}

/** Reads the rough position of a set off its picture. */
export async function readRoughOf(db: Database, actor: Actor, record: CalibrationRecord, set: CutSet): Promise<void> {
  const picture = await cutsOfSet(db, record, set);
  if (!picture) throw new Error('the set was not cut');
  await readRough(db, actor, { record, cutSetId: set.id, cuts: picture.cuts });
}

/** From a sheet to a verdict. */
export async function runCalibration(
  db: Database,
  actor: Actor,
  order: Order,
  rng: Rng,
): Promise<{ calibrationId: string; verdict: Verdict }> {
  const [first, second] = order.loads ?? [PLAIN, PLAIN];
  const { setupId, materialId, kind, toleranceMm, way } = order;
  const input = {
    id: order.id ?? randomUUID(),
    setupId,
    materialId,
    page: { name: order.page, ...sheetSize(order.page) },
    kind,
    toleranceMm,
  };
  const calibrationId = await must(startCalibration(db, actor, input));
  const line = (await mustLoad(db, calibrationId)).block.checkLineMm;
  await must(checkPrint(db, actor, { id: randomUUID(), calibrationId, lineMm: line }));
  if ((await cutAndRead(db, actor, calibrationId, { load: first, rng })) === 0) {
    await must(applyRough(db, actor, { id: randomUUID(), calibrationId, way: 'file', typed: {} }));
    await cutAndRead(db, actor, calibrationId, { load: first, rng });
    await must(addSheet(db, actor, { calibrationId }));
  }
  const analysed = analyse(await mustLoad(db, calibrationId));
  if (!analysed.ok) throw new Error(analysed.error.kind);
  const typed = Object.fromEntries(changedOnly(analysed.value.plan).map((c) => [c.setting.id, c.toType]));
  await must(acceptCorrection(db, actor, { id: randomUUID(), calibrationId, way, typed }));
  if (planCut(await mustLoad(db, calibrationId), true).needsNewSheet)
    await must(addSheet(db, actor, { calibrationId }));
  await cutAndRead(db, actor, calibrationId, { load: second, rng });
  const verdict = await must(confirmCorrection(db, actor, { id: randomUUID(), calibrationId }));
  return { calibrationId, verdict };
}
