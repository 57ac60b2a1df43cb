import 'server-only';
import { covarianceAt, largestSd } from '@/core/fit/point-covariance';
import { nextMove, type Expected } from '@/core/verdict/next-move';
import type { Analysis } from './analysis';
import { changedOnly } from './corrections';
import { canMoveFile, currentSets, type CalibrationRecord } from './record';

/** Worst corner that another correction would leave; null where no part is to be corrected or nothing reaches it. */
function leftoverMm(record: CalibrationRecord, analysis: Analysis): number | null {
  if (!analysis.parts.some((p) => p.isToBeCorrected)) return null;
  if (canMoveFile(record)) return 0;
  return changedOnly(analysis.plan).length > 0 ? analysis.afterSettingsMm : null;
}

/** The move expected to lower the bound most, for a verdict of cannot tell. */
export function moveFor(record: CalibrationRecord, analysis: Analysis): Expected {
  const { fit, bounds } = analysis;
  const at = (covariance: ArrayLike<number>): number => largestSd(covarianceAt(covariance, bounds.worstCorner)) ** 2;
  const total = at(fit.covariance);
  const loads = new Set(currentSets(record).map((s) => s.loadNo)).size;
  return nextMove({
    worstMm: bounds.worstMm,
    upperMm: bounds.upperMm,
    limitMm: record.calibration.toleranceMm,
    loads: Math.max(1, fit.loads),
    readingShare: total > 0 ? Math.min(1, at(fit.readingCovariance) / total) : 0,
    leftoverMm: leftoverMm(record, analysis),
    done: {
      'another-load': loads - 1,
      'more-looks': new Set(record.repeats.map((r) => r.repeatNo)).size,
      'correct-again': Math.max(0, record.corrections.filter((c) => c.objective !== 'rough').length - 1),
    },
  });
}
