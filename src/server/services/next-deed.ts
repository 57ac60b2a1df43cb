import 'server-only';
import type { Way } from '@/contracts/inputs';
import type { Expected, NextMove } from '@/core/verdict/next-move';
import { isPenAlone, type Analysis } from './analysis';
import { changedOnly } from './corrections';
import { isWorthCorrecting, moveFor } from './next-move';
import { canMoveFile, currentSets, latestCorrection, type CalibrationRecord } from './record';

/** Settings when they are enough; with the rest in the file when they are not; the file alone when a direction is not known. */
export function firstWay(record: CalibrationRecord, analysis: Analysis): Way {
  const changes = changedOnly(analysis.plan).length;
  if (!canMoveFile(record)) return changes > 0 ? 'settings' : 'none';
  const isEnough = analysis.afterSettingsMm <= record.calibration.toleranceMm;
  if (changes === 0 || (analysis.unknownDirection.length > 0 && !isEnough)) return 'file';
  return isEnough ? 'settings' : 'settings-and-file';
}

/** The one thing to do about a verdict: its button is dark. */
export type Deed = 'keep-pass' | 'keep-fail' | 'check-knife' | NextMove;

export interface VerdictView {
  readonly deed: Deed;
  /** Cut without a fresh load: a settings check, which is no verdict. */
  readonly isCheck: boolean;
  /** This verdict is kept already. */
  readonly isKept: boolean;
  /** The move expected to lower the bound most. */
  readonly best: Expected;
}

function deedOf(record: CalibrationRecord, a: Analysis, view: Omit<VerdictView, 'deed'>): Deed {
  if (isPenAlone(a)) return a.verdict === 'pass' && !view.isCheck ? 'keep-pass' : 'check-knife';
  // A verdict of settings that stand elsewhere by now is not kept.
  if (view.isCheck || a.atCut.moved.length > 0) return 'another-load';
  if (a.verdict === 'pass') return 'keep-pass';
  if (a.verdict === 'cannot_tell') return view.best.move;
  if (!view.isKept) return 'keep-fail';
  return isWorthCorrecting(record, a) ? 'correct-again' : 'wider-limit';
}

/** Verdict of a confirming cut, and the deed whose button is dark. */
export function verdictView(record: CalibrationRecord, analysis: Analysis): VerdictView {
  const correction = latestCorrection(record);
  const kept = record.confirmations.filter((c) => c.correctionId === correction?.id);
  const view = {
    isCheck: !currentSets(record).some((s) => s.purpose === 'confirm'),
    isKept: kept.some((c) => c.verdict === analysis.verdict),
    best: moveFor(record, analysis),
  };
  return { ...view, deed: deedOf(record, analysis, view) };
}
