import 'server-only';
import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import { fail, ok, type Result } from '@/core/result';
import { CONFIDENCE, type Verdict } from '@/core/verdict/bound';
import type { Database, Session } from '@/db/client';
import { calibration } from '@/db/schema/calibration';
import { confirmation, historyEntry } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { analyse, isPenAlone } from './analysis';
import { allOrNothing, lockOpenCheck, onOpenCheck, type OfCheck } from './check-guard';
import { currentSets, latestCorrection, type CalibrationRecord } from './record';
import { endCheck, endTest } from './steps';
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
  const replay = (record: CalibrationRecord) => record.confirmations.find((c) => c.id === input.id)?.verdict;
  return onOpenCheck(database, actor, { ...input, replay }, (session, record) =>
    keepVerdict(session, actor, record, input.id),
  );
}

async function keepVerdict(
  session: Session,
  actor: Actor,
  record: CalibrationRecord,
  id: string,
): Promise<Result<Verdict, Refusal>> {
  const correction = latestCorrection(record);
  if (!correction) return fail(refusal('There is no correction to confirm yet.'));
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
  const fitId = await storeFit(session, record, analysed.value);
  await session.insert(confirmation).values({
    id,
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
  if (verdict !== 'pass') return ok(verdict);
  const { id: calibrationId, setupId, materialId } = record.calibration;
  await session.insert(historyEntry).values({
    ...{ id: randomUUID(), setupId, materialId, kind: 'saved', confirmationId: id, note: '' },
    ...{ at: now(), by: actor.personId },
  });
  await endTest(session, calibrationId);
  return ok(verdict);
}

/** Cancels a check without a result; its record stays. Cancelled twice is cancelled once. */
export async function abandonCalibration(
  database: Database,
  actor: Actor,
  { calibrationId }: OfCheck,
): Promise<Result<string, Refusal>> {
  const replay = ({ calibration }: CalibrationRecord) =>
    calibration.state === 'abandoned' ? calibration.id : undefined;
  return onOpenCheck(database, actor, { calibrationId, replay }, async (session) => {
    await endCheck(session, calibrationId, 'abandoned');
    return ok(calibrationId);
  });
}

/** Reopens a cancelled check where it was; one that is open already stays so. */
export async function reopenCalibration(
  database: Database,
  actor: Actor,
  { calibrationId }: OfCheck,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { calibrationId });
  if (stranger) return fail(stranger);
  return allOrNothing(database, async (session) => {
    const closed = await lockOpenCheck(session, calibrationId);
    if (!closed) return ok(calibrationId);
    const reopened = await session
      .update(calibration)
      .set({ state: 'open', endedAt: null, version: sql`${calibration.version} + 1` })
      .where(and(eq(calibration.id, calibrationId), eq(calibration.state, 'abandoned')))
      .returning({ id: calibration.id });
    return reopened.length === 1 ? ok(calibrationId) : fail(closed);
  });
}
