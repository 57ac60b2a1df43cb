import 'server-only';
import { covarianceAt, largestSd } from '@/core/fit/point-covariance';
import { MOST_LOADS, MOST_OF_ONE, nextMove, type Expected } from '@/core/verdict/next-move';
import type { Analysis } from './analysis';
import { changedOnly } from './corrections';
import { canMoveFile, doneSets, type CalibrationRecord } from './record';

/** Worst corner that another correction would leave; null where no part is to be corrected or nothing reaches it. */
function leftoverMm(record: CalibrationRecord, analysis: Analysis): number | null {
  if (!analysis.parts.some((p) => p.isToBeCorrected)) return null;
  if (canMoveFile(record)) return 0;
  return changedOnly(analysis.plan).length > 0 ? analysis.afterSettingsMm : null;
}

/** What was done since the check began. */
interface MovesMade {
  readonly loadsInAll: number;
  /** Corrections, a rough position brought near not among them. */
  readonly corrections: number;
  /** Loads beside the first and the one that each correction and each rough position asks for. */
  readonly furtherLoads: number;
}

export function movesMade(record: CalibrationRecord): MovesMade {
  const loadsInAll = new Set(doneSets(record).map((s) => s.loadNo)).size;
  const corrections = record.corrections.filter((c) => c.objective !== 'rough').length;
  const furtherLoads = Math.max(0, loadsInAll - 1 - record.corrections.length);
  return { loadsInAll, corrections, furtherLoads };
}

/** Whether correcting once more is still worth a load: some part is to be corrected, and it was not tried too often. */
export function isWorthCorrecting(record: CalibrationRecord, analysis: Analysis): boolean {
  const { loadsInAll, corrections } = movesMade(record);
  return leftoverMm(record, analysis) !== null && corrections <= MOST_OF_ONE && loadsInAll < MOST_LOADS;
}

/** The move expected to lower the bound most, for a verdict of cannot tell. */
export function moveFor(record: CalibrationRecord, analysis: Analysis): Expected {
  const { fit, bounds } = analysis;
  const at = (covariance: ArrayLike<number>): number => largestSd(covarianceAt(covariance, bounds.worstCorner)) ** 2;
  const total = at(fit.covariance);
  const { loadsInAll, furtherLoads, corrections } = movesMade(record);
  return nextMove({
    worstMm: bounds.worstMm,
    upperMm: bounds.upperMm,
    limitMm: record.calibration.toleranceMm,
    loads: Math.max(1, fit.loads),
    loadsInAll,
    readingShare: total > 0 ? Math.min(1, at(fit.readingCovariance) / total) : 0,
    leftoverMm: leftoverMm(record, analysis),
    done: {
      'another-load': furtherLoads,
      'more-looks': new Set(record.repeats.map((r) => r.repeatNo)).size,
      'correct-again': Math.max(0, corrections - 1),
    },
  });
}
