import 'server-only';
import type { RollAnswer } from '@/compute/roll';
import { SectionWork } from '@/contracts/rolls';
import type { Result } from '@/core/result';
import { computeInPool } from './computation-pool';
import type { RollRecord } from './roll-read';

const registrationOf = ({ registration, originSdMm, marksApartMm, markSdMm }: SectionWork) => {
  if (registration === 'origin') return { kind: 'origin', originSdMm };
  if (registration === 'start-marks') return { kind: 'start-marks', apartMm: marksApartMm, markSdMm };
  return { kind: 'both-ends', markSdMm };
};

/** The work of a run as a first offer: pieces of the strip's spacing, the whole printable width. */
export function usualWork({ roll, setupRow }: RollRecord): SectionWork {
  return SectionWork.parse({
    registration: setupRow.setup.family === 'F9' ? 'origin' : 'both-ends',
    ...{ copies: 50, itemWidthMm: roll.widthMm, itemLengthMm: 250, gapMm: 4, printableWidthMm: roll.widthMm },
    ...(roll.kind === 'run' ? { copies: roll.stations, itemLengthMm: roll.spacingMm } : {}),
  });
}

/** As far as sections are looked at: the whole run in one, and not less than the strip. */
function farthestMm({ roll, values }: RollRecord, work: SectionWork): number {
  const across = Math.max(1, Math.floor((work.printableWidthMm + work.gapMm) / (work.itemWidthMm + work.gapMm)));
  const rows = Math.ceil(work.copies / across);
  const stripMm = values.reduce((most, { atMm }) => Math.max(most, atMm), roll.spacingMm);
  return Math.min(1e6, Math.max(stripMm, rows * (work.itemLengthMm + work.gapMm)));
}

/** Stations as the computation takes them: what was read at one place and side belongs together. */
function stationsOf({ values }: RollRecord) {
  return values.map(({ axis, atMm, asideMm, valueMm }) => ({
    ...{ atMm, asideMm },
    acrossMm: axis === 'across' ? valueMm : null,
    alongMm: axis === 'along' ? valueMm : null,
  }));
}

export type SectionsAnswer = Result<RollAnswer, { readonly kind: string }>;

/** What is asked of the computation for a run. */
export function sectionsQuestion(record: RollRecord, work: SectionWork) {
  const { copies, itemWidthMm, itemLengthMm, gapMm, printableWidthMm, endWasteMm, confidence, isCorrected } = work;
  const { setUpMinutes, printMetresPerHour, cutMetresPerHour, finishMinutes, hourCost, metreCost, pieceCost } = work;
  const { dueHours, lateHourCost } = work;
  return {
    stations: stationsOf(record),
    toleranceMm: record.roll.toleranceMm,
    ...{
      confidence,
      isCorrected,
      registration: registrationOf(work),
      farthestMm: farthestMm(record, work),
      isWhatIf: true,
    },
    run: {
      ...{ copies, itemWidthMm, itemLengthMm, gapMm, printableWidthMm },
      prices: {
        ...{ setUpMinutes, printMetresPerHour, cutMetresPerHour, finishMinutes },
        ...{ endWasteMm, hourCost, metreCost, pieceCost },
        ...(dueHours === null ? {} : { due: { dueHours, lateHourCost } }),
      },
    },
  };
}

/** Sections of a run, in a thread of its own: thousands of rolls are drawn. */
export async function answerSections(record: RollRecord, work: SectionWork): Promise<SectionsAnswer> {
  const answered = await computeInPool('roll', sectionsQuestion(record, work));
  if (!answered.parsed)
    return { ok: false, error: { kind: answered.issues.map((i) => `${i.path.join(' ')}: ${i.message}`).join('; ') } };
  return answered.result as SectionsAnswer;
}

const PROBLEMS: Readonly<Record<string, string>> = {
  'too-large': 'This took too long: ask for a shorter run, or read fewer stations.',
  busy: 'Other questions are being worked out just now. Ask again in a moment.',
  'too-wide': 'One piece is wider than what can be printed: check its width and the printable width.',
  'longer-than-section':
    'Sections cannot hold it: not even one row stays within the allowed error. Slip takes it, or the way a section is registered: look at tension, rollers and the material with the machine stopped, register by marks, or allow more.',
};

export const sectionProblemWords = ({ kind }: { readonly kind: string }): string => PROBLEMS[kind] ?? kind;
