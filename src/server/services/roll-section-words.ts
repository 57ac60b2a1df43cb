import 'server-only';
import type { RollAnswer } from '@/compute/roll';
import type { SectionWork } from '@/contracts/rolls';
import type { RollSection } from '@/core/drift/roll-section';
import { judgeTyped, type SectionRows } from '@/core/drift/section-rows';
import { formatLength, formatSize, type UnitSystem } from '@/core/units/length';

/** A longest section in words; where nothing broke it, how far was looked. */
export const lengthWords = ({ longestMm, isLimited }: RollSection, system: UnitSystem): string =>
  isLimited ? formatLength(longestMm, system) : `${formatLength(longestMm, system)} and more`;

const BY: Readonly<Record<SectionWork['registration'], string>> = {
  origin: 'Sections of up to',
  'start-marks': 'Sections of up to',
  'both-ends': 'Marks every',
};

/** What the page is headed with: the length, or that these readings show no limit. */
export function sectionsHeadline(
  { section, across, along }: RollAnswer,
  work: SectionWork,
  system: UnitSystem,
): string {
  if (section.isLimited)
    return `${BY[work.registration]} ${formatLength(10 * Math.floor(section.longestMm / 10), system)} hold`;
  const slip = Math.max(across.slipUpperMm, along.slipUpperMm);
  return `No limit shown by these readings: slip below ${slip.toFixed(3)} mm over 1 m, safe to ${formatLength(section.longestMm, system)}`;
}

/** What is to be said of a length that somebody means to type. */
export function typedWords(rows: SectionRows, typedMm: number, system: UnitSystem): string {
  const typed = formatSize(typedMm, system);
  switch (judgeTyped(rows, typedMm)) {
    case 'right':
      return `${typed} is right: ${rows.rowsPerSection} rows, no more and no fewer.`;
    case 'breaks-a-row':
      return `${typed} breaks a row: type at least ${formatSize(rows.neededMm, system)}.`;
    case 'takes-one-more':
      return `${typed} lets one more row in than holds: type less than ${formatSize(rows.oneMoreMm, system)}.`;
  }
}
