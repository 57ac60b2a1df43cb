import 'server-only';
import { eq } from 'drizzle-orm';
import { ASSUMED_MARK_SD_MM } from '@/core/fit/load-noise';
import { markNoise } from '@/core/fit/mark-noise';
import type { SetupError } from '@/core/budget/job-error';
import type { Database } from '@/db/client';
import { findLatestSaved } from '@/db/queries/bench';
import { findLoadMaps } from '@/db/queries/calibration';
import type { SetupRow } from '@/db/queries/shop';
import { fit } from '@/db/schema/calibration';
import { now } from '../clock';
import { earlierLoads } from './earlier-loads';

export interface KnownError extends SetupError {
  /** True where too few loads were kept to tell the noise of reading the marks. */
  readonly isMarkSdAssumed: boolean;
  readonly confirmedAt: Date;
}

/** Noise of reading the marks from all loads that were kept of this setup; the usual figure where too few were. */
export async function markNoiseOf(
  database: Database,
  row: SetupRow,
): Promise<{ readonly sdMm: number; readonly isAssumed: boolean }> {
  const rows = await findLoadMaps(database, { setupId: row.setup.id, startedAt: now() });
  const [first] = rows;
  if (!first) return { sdMm: ASSUMED_MARK_SD_MM, isAssumed: true };
  const { marks, loadModel } = first.map;
  const places = Array.from({ length: marks.length / 2 }, (_, i) => ({
    x: marks[2 * i] ?? 0,
    y: marks[2 * i + 1] ?? 0,
  }));
  // Of a state that was fitted more than once only the newest fit counts; no state is left out.
  const loads = earlierLoads(rows, { marks: places, loadModel, calibrationId: '', correctionId: null });
  const noise = markNoise(loads, places, loadModel);
  return noise.kind === 'estimated'
    ? { sdMm: noise.sdMm, isAssumed: false }
    : { sdMm: ASSUMED_MARK_SD_MM, isAssumed: true };
}

/** What the latest confirmation of a setup says of its next job; null while nothing is confirmed. */
export async function setupError(database: Database, row: SetupRow): Promise<KnownError | null> {
  const saved = await findLatestSaved(database, row.setup.id);
  if (!saved) return null;
  const [found] = await database.select().from(fit).where(eq(fit.id, saved.confirmation.fitId));
  if (!found) return null;
  const { sdMm, isAssumed } = await markNoiseOf(database, row);
  return {
    beta: found.parameters,
    constantCovariance: found.covariance,
    markSdMm: sdMm,
    markUse: row.cutter.markUse,
    isMarkSdAssumed: isAssumed,
    confirmedAt: saved.confirmation.at,
  };
}
