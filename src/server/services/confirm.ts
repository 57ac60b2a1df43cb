import 'server-only';
import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { fail, ok, type Result } from '@/core/result';
import { CONFIDENCE, type Verdict } from '@/core/verdict/bound';
import type { Database } from '@/db/client';
import { calibration } from '@/db/schema/calibration';
import { confirmation, historyEntry } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { analyse, isPenAlone } from './analysis';
import { currentSets, latestCorrection, loadRecord } from './record';
import { goToStep } from './steps';
import { movedWords } from './settings-at-cut';
import { storeFit } from './store-fit';
import { strangerTo } from './own-shop';

/**
 * Judges the sets cut since the latest correction and keeps the verdict. A pass of a fresh load writes the history entry
 * and ends the calibration; a same-load cut is a settings check and never does.
 */
export async function confirmCorrection(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly calibrationId: string },
): Promise<Result<Verdict, Refusal>> {
  const stranger = await strangerTo(database, actor, { calibrationId: input.calibrationId });
  if (stranger) return fail(stranger);
  const record = await loadRecord(database, input.calibrationId);
  const correction = record ? latestCorrection(record) : undefined;
  if (!record || !correction) return fail(refusal('There is no correction to confirm yet.'));
  const known = record.confirmations.find((c) => c.id === input.id);
  if (known) return ok(known.verdict);
  const sets = currentSets(record);
  if (!sets.some((s) => s.purpose === 'confirm')) {
    return fail(
      refusal(
        'A confirming cut counts only after the sheet was unloaded, loaded again and its marks read afresh. This one was a settings check.',
      ),
    );
  }
  const analysed = analyse(record);
  if (!analysed.ok) return fail(refusal('There are not enough readings for a verdict. Read the confirming cut first.'));
  const [moved] = analysed.value.atCut.moved;
  if (moved) {
    return fail(
      refusal(
        `${movedWords(moved)} This verdict is for the value at the cut. Set it back and enter it on the setup page, or cut another load.`,
      ),
    );
  }
  if (isPenAlone(analysed.value)) {
    return fail(
      refusal(
        'A pen drew this sheet, and where the knife cuts against it is not known: nothing about the knife is confirmed. Check the knife with its own sheet.',
      ),
    );
  }
  const { bounds, verdict, next, markSdMm, noise } = analysed.value;
  await database.transaction(async (session) => {
    const fitId = await storeFit(session, record, analysed.value);
    await session.insert(confirmation).values({
      id: input.id,
      correctionId: correction.id,
      fitId,
      lowerMm: bounds.lowerMm,
      upperMm: bounds.upperMm,
      worstMm: bounds.worstMm,
      nextJobMm: next.q95Mm,
      toleranceMm: record.calibration.toleranceMm,
      confidence: CONFIDENCE,
      markSdMm,
      isMarkSdAssumed: noise.kind !== 'estimated',
      nextOutShare: next.outShare,
      verdict,
      at: now(),
      by: actor.personId,
    });
    if (verdict !== 'pass') return;
    await session.insert(historyEntry).values({
      id: randomUUID(),
      setupId: record.calibration.setupId,
      materialId: record.calibration.materialId,
      kind: 'saved',
      confirmationId: input.id,
      note: '',
      at: now(),
      by: actor.personId,
    });
    await goToStep(session, record.calibration.id, 'save');
    await session
      .update(calibration)
      .set({ state: 'saved', endedAt: now(), version: sql`${calibration.version} + 1` })
      .where(eq(calibration.id, record.calibration.id));
  });
  return ok(verdict);
}

/** Ends a calibration without a result; its record stays. */
export async function abandonCalibration(database: Database, calibrationId: string): Promise<void> {
  await database
    .update(calibration)
    .set({ state: 'abandoned', endedAt: now(), version: sql`${calibration.version} + 1` })
    .where(eq(calibration.id, calibrationId));
}

/** Takes an abandoned calibration up again. */
export async function reopenCalibration(database: Database, calibrationId: string): Promise<void> {
  await database
    .update(calibration)
    .set({ state: 'open', endedAt: null, version: sql`${calibration.version} + 1` })
    .where(sql`${calibration.id} = ${calibrationId} and ${calibration.state} = 'abandoned'`);
}
