import 'server-only';
import { KNIFE_SHIFT_UNTOLD } from '@/core/fit/pen';
import { AXES } from '@/core/target/wedge';
import { formatFixed, formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import type { Fault } from '@/core/verdict/fault';
import { PART_NAMES, partValueWords } from '@/core/verdict/part-words';
import type { PartJudgement } from '@/core/verdict/parts';
import { isPenAlone, type Analysis } from './analysis';
import type { CalibrationRecord } from './record';

export interface PartView {
  readonly name: string;
  readonly value: string;
  readonly effect: string;
  readonly decision: string;
}

/** The figures under the verdict: each part, what it does at the worst corner, and whether to act. */
export function partViews(analysis: Analysis, system: UnitSystem): readonly PartView[] {
  return analysis.parts.map((p) => ({
    name: PART_NAMES[p.part],
    value: p.standardError > 0 ? partValueWords(p.part, p.value, system) : 'cannot be told',
    effect:
      p.standardError > 0
        ? `${formatLength(p.effectMm, system)} \u00b1 ${formatLength(p.effectIntervalMm, system)}`
        : '\u2013',
    decision: decisionWords(p),
  }));
}

function decisionWords(p: PartJudgement): string {
  if (p.standardError === 0) return 'these readings cannot tell';
  return p.isToBeCorrected ? 'correct it' : 'leave it: too small to tell from reading and loading';
}

export const PEN_ALONE =
  'A pen drew this sheet. Scale, rotation and squareness are the machine\u2019s, whatever it holds; the shift is the pen\u2019s own, so it is neither keyed in nor passed. Check the knife with its own sheet, or measure knife against pen once and write it down with the cutter.';

/** The least that a length of two decimals can show. */
const SHOWN_MM = 0.005;

/** Where the noise of reading marks is known from. */
function loadsWords(here: number, earlier: number): string {
  if (earlier === 0) return `${here} loads`;
  const now = here > 1 ? `${here} loads and ` : '';
  return `${now}${earlier} loads of earlier checks`;
}

/** What is known of the noise of reading the marks, and what of it is only assumed. */
export function noiseWords({ noise, fit, markSdMm, loads, earlierLoads }: Analysis, system: UnitSystem): string {
  const mm = (value: number): string => formatLength(value, system);
  const two = loads.length > 1 ? 'Two loads' : 'Two loads of an earlier check';
  switch (noise.kind) {
    case 'one-load':
      return fit.loads === 1
        ? `This is one load. What changes with every loading is in it too; mark reading is assumed to scatter by ${mm(markSdMm)} until more loads are known.`
        : `${fit.loads} loads count together, but they lay differently or carry no whole map each; mark reading is assumed to scatter by ${mm(markSdMm)}.`;
    case 'steady':
      // The bound is nothing where two loads happen to agree better than reading lets them: that is luck, not a proof.
      if (noise.withinMm < SHOWN_MM)
        return `${two} agree more closely than reading alone would let them: steady, as far as two can tell. Reckoned with: ${mm(markSdMm)}, assumed.`;
      return `${two} agree within what reading explains: steady, though up to ${mm(noise.withinMm)} a mark could hide. Reckoned with: ${mm(markSdMm)}, assumed.`;
    case 'unsteady':
      return `${two} differ by more than reading explains: unsteady, at least ${mm(noise.atLeastMm)} a mark. Reckoned with: ${mm(markSdMm)}. A third load tells how much it is.`;
    case 'estimated':
      return `${loadsWords(loads.length, earlierLoads)}: mark reading scatters by ${mm(noise.sdMm)} a mark, between ${mm(noise.lowerMm)} and ${mm(noise.upperMm)} with 95 % confidence.`;
  }
}

const FAULT_WORDS: Readonly<Record<Fault, string>> = {
  calibration: 'It is the same with every load: a calibration fault, and a correction takes it out.',
  reading:
    'It changes with every load, enough to put work out by itself: a reading fault. No calibration removes that. Look at light on the marks, at the marks themselves, at mat and rollers, one change at a time; then cut another load.',
  both: 'Part of it is the same with every load and is to be corrected; part changes with every load, and no calibration removes that. Look at light, marks, mat and rollers first.',
  none: 'Neither the steady part nor what changes with every load is surely beyond what is allowed.',
};

/** Reading fault or calibration fault, in words; nothing while one load is all there is. */
export const faultWords = ({ fault }: Analysis): string | null => (fault ? FAULT_WORDS[fault] : null);

/** Lost motion at a change of direction, where it is more than its own doubt; null where it is not or was not told. */
function backlashWords({ backlash }: Analysis['fit'], system: UnitSystem): string | null {
  const found = AXES.flatMap((axis) => {
    const part = backlash[axis];
    if (!part || Math.abs(part.halfMm) <= 2 * part.standardErrorMm) return [];
    return [`${formatLength(2 * Math.abs(part.halfMm), system)} ${axis}`];
  });
  if (found.length === 0) return null;
  return `The machine loses ${found.join(' and ')} at each change of direction. That is taken out of the map, but not out of your work: see to belts and gears.`;
}

/** What no setting and no reading can put right or tell, each as a sentence. */
export function mapNotes(analysis: Analysis, system: UnitSystem): readonly string[] {
  const { fit } = analysis;
  const notes: string[] = [];
  const untold = fit.untold.filter((part) => part !== KNIFE_SHIFT_UNTOLD);
  if (untold.length > 0)
    notes.push(`These readings cannot tell: ${untold.join(', ')}. Read more spots, spread over the sheet.`);
  const lost = backlashWords(fit, system);
  if (lost) notes.push(lost);
  if (fit.reducedChiSquare !== null && fit.reducedChiSquare > 3) {
    notes.push(
      'The readings scatter more than reading alone explains. Intervals are widened; look for a loose sheet, a lifting edge or a dull blade.',
    );
  }
  notes.push(noiseWords(analysis, system));
  return notes;
}

const adviceWords = (advice: Analysis['advice']): string =>
  advice === 'more-spots'
    ? 'This cannot be told yet: reading is the larger doubt. Read a full check, or read the doubtful spots again.'
    : 'This cannot be told yet: loading is the larger doubt. Cut another load on a fresh sheet.';

/** Two lines of a confirmation: the constant error with its bound, and the next job. */
export function verdictLines(
  record: CalibrationRecord,
  analysis: Analysis,
  system: UnitSystem,
): { readonly constant: string; readonly next: string; readonly advice: string } {
  const { bounds, next, verdict, markSdMm, advice } = analysis;
  const share = formatFixed(100 * next.outShare, next.outShare < 0.1 ? 1 : 0);
  const told = {
    pass: 'In register.',
    fail: 'The correction did not bring it in. Go round again from these readings: Map shows what is left.',
    cannot_tell: isPenAlone(analysis) ? PEN_ALONE : adviceWords(advice),
  }[verdict];
  return {
    constant: `${isPenAlone(analysis) ? 'By scale, rotation and squareness alone, constant' : 'Constant'} error ${formatLength(bounds.worstMm, system)} at the worst corner, below ${formatLength(bounds.upperMm, system)} with 95 % confidence; ${formatSize(record.calibration.toleranceMm, system)} allowed.`,
    next: isPenAlone(analysis)
      ? 'Next job: not known while the knife\u2019s own shift is not known.'
      : `Next job: 95 in 100 stay within ${formatLength(next.q95Mm, system)}; ${share} in 100 would be out. Reckoned with marks that scatter by ${formatLength(markSdMm, system)}${analysis.noise.kind === 'estimated' ? '' : ', assumed'}.`,
    advice: told,
  };
}
