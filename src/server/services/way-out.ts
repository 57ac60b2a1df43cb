import 'server-only';
import { formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import { MOST_LOADS, MOST_OF_ONE } from '@/core/verdict/next-move';
import { isPenAlone, type Analysis } from './analysis';
import { changedOnly } from './corrections';
import { movesMade } from './next-move';
import { canMoveFile, type CalibrationRecord } from './record';
import { learnedFrom, trialsOf } from './which-way';

/** What is to be done about a map, the one thing that helps. */
export type WayOut =
  /** Within the limit as it is, and nothing was moved since the cut. */
  | 'good-as-it-is'
  /** No part is surely off: another load tells more, a change would not. */
  | 'nothing-to-correct'
  /** The same, and further loads did not tell. */
  | 'cannot-tell'
  | 'set'
  /** A cut with a changed value tells which way + goes. */
  | 'keep-direction'
  /** A setting would reach it, but which way + goes is not known. */
  | 'find-direction'
  | 'move-file'
  /** Nothing on this machine or in the file reaches it. */
  | 'hide';

/** Whether two cuts of this check tell which way + goes on a setting. */
export const isTold = (record: CalibrationRecord): boolean =>
  trialsOf(record) !== null && (learnedFrom(record) ?? []).some((t) => t.learned.sense !== null);

/** Whether trying once more which way + goes is worth a cut. A wizard has a test of its own, within reach of the figures. */
function isLearnable(record: CalibrationRecord): boolean {
  const told = trialsOf(record);
  if (told) return told.trials.length < MOST_OF_ONE && movesMade(record).loadsInAll < MOST_LOADS;
  return !record.corrections.some((c) => c.objective === 'rough');
}

/** The one thing to do about a map. */
export function wayOut(record: CalibrationRecord, analysis: Analysis): WayOut {
  const { verdict, atCut } = analysis;
  if (isTold(record)) return 'keep-direction';
  if (verdict === 'pass' && atCut.moved.length === 0) return 'good-as-it-is';
  return wayToCorrect(record, analysis);
}

/** What to do about a map that is not good as it is. */
function wayToCorrect(record: CalibrationRecord, analysis: Analysis): WayOut {
  const { parts, unknownDirection, afterSettingsMm } = analysis;
  const changes = changedOnly(analysis.plan);
  if (changes.length === 0 && !parts.some((p) => p.isToBeCorrected))
    return movesMade(record).furtherLoads < MOST_OF_ONE ? 'nothing-to-correct' : 'cannot-tell';
  const isEnough = changes.length > 0 && afterSettingsMm <= record.calibration.toleranceMm;
  if (unknownDirection.length > 0 && !isEnough && isLearnable(record)) return 'find-direction';
  if (changes.length > 0) return 'set';
  return canMoveFile(record) ? 'move-file' : 'hide';
}

const COUNT = ['', 'One setting brings', 'Two settings bring', 'Three settings bring', 'Four settings bring'];

/** Names of the settings whose direction is not known. */
export const unknownNames = ({ unknownDirection }: Analysis): string =>
  unknownDirection.map((s) => s.displayName).join(' and ');

/** The way out in a sentence. */
function wayWords(record: CalibrationRecord, analysis: Analysis, system: UnitSystem): string {
  const changes = changedOnly(analysis.plan).length;
  const left = formatLength(analysis.afterSettingsMm, system);
  const needsFile = canMoveFile(record) && analysis.afterSettingsMm > record.calibration.toleranceMm;
  switch (wayOut(record, analysis)) {
    case 'good-as-it-is':
      return '';
    case 'nothing-to-correct':
      return 'Nothing here is large enough to correct. Another load tells more.';
    case 'cannot-tell':
      return `More loads are not likely to tell. Work with a border or bleed of at least ${formatLength(analysis.bounds.upperMm, system)}, or change the limit.`;
    case 'set':
      return `${COUNT[changes] ?? 'Settings bring'} it to ${left}${needsFile ? ', the file must move the rest' : ''}.`;
    case 'keep-direction':
      return '';
    case 'find-direction':
      return `First find which way + goes on ${unknownNames(analysis)}.`;
    case 'move-file':
      return 'No setting reaches it. Move the cut in the file.';
    case 'hide':
      return 'No setting reaches it. Hide it with a white border or bleed.';
  }
}

/** The map in a headline: whether it is good, else how far it is off and the one thing that helps. */
export function mapHeadline(record: CalibrationRecord, analysis: Analysis, system: UnitSystem): string {
  const { bounds } = analysis;
  const by = isPenAlone(analysis) ? ' by scale, rotation and squareness' : '';
  const off = `Worst corner ${formatLength(bounds.worstMm, system)} off${by}. Limit ${formatSize(record.calibration.toleranceMm, system)}.`;
  const way = wayOut(record, analysis);
  if (way === 'good-as-it-is') return `Good as it is. ${off}`;
  if (way === 'keep-direction') return 'Now it is known which way + goes';
  return `${off} ${wayWords(record, analysis, system)}`;
}
