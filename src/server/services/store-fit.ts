import 'server-only';
import { randomUUID } from 'node:crypto';
import type { Session } from '@/db/client';
import { fit, fitReading, loadMap } from '@/db/schema/calibration';
import { now } from '../clock';
import type { Analysis } from './analysis';
import { marksOf } from './earlier-loads';
import { latestCorrection, type CalibrationRecord } from './record';

/** Raised whenever the same readings would give another result. */
export const CORE_VERSION = 1;

/** Keeps a fit with the readings it stood on. */
export async function storeFit(session: Session, record: CalibrationRecord, analysis: Analysis): Promise<string> {
  const id = randomUUID();
  const { fit: found, bounds } = analysis;
  await session.insert(fit).values({
    id,
    calibrationId: record.calibration.id,
    model: found.model,
    parameters: [...found.beta],
    covariance: [...found.covariance],
    degreesOfFreedom: found.residualDegrees,
    reducedChiSquare: found.reducedChiSquare,
    worstMm: bounds.worstMm,
    worstBoundMm: bounds.upperMm,
    coreVersion: CORE_VERSION,
    at: now(),
  });
  await session
    .insert(fitReading)
    .values(
      found.readings.map((r) => ({ fitId: id, readingId: r.observation.id, used: r.used, residualMm: r.residualMm })),
    );
  // One load alone tells nothing of what changes from load to load.
  if (analysis.loads.length > 1)
    await session.insert(loadMap).values(
      analysis.loads.map(({ loadNo, beta, readingCovariance }) => ({
        fitId: id,
        loadNo,
        correctionId: latestCorrection(record)?.id ?? null,
        parameters: [...Array.from(beta)],
        covariance: [...Array.from(readingCovariance)],
        ...marksOf(record),
      })),
    );
  return id;
}
