import type { MarkKind } from '../shop/words';

/** What a job's line in the list of what waits is made of. */
export interface JobSentenceFacts {
  readonly name: string;
  readonly state: 'draft' | 'locked' | 'waiting' | 'cut' | 'archived';
  /** Hours since it was printed, and until it is dry; null where it was not printed, or need not dry. */
  readonly printedHoursAgo: number | null;
  readonly dryInHours: number | null;
  readonly sheets: number;
  readonly form: 'sheet' | 'roll';
  readonly markKind: MarkKind;
  readonly leadingMark: string;
  /** Weekday of the print, as the one who asks calls it. */
  readonly printedOn: string | null;
}

/** Which end goes into the machine first, in a few words; empty where it makes no difference that is known. */
export function endWords({ markKind, leadingMark }: Pick<JobSentenceFacts, 'markKind' | 'leadingMark'>): string {
  if (leadingMark) return `${leadingMark} first`;
  return markKind === 'none' ? '' : 'the end with the words first';
}

/** A print that waits longer than this has shrunk, curled or been forgotten: it is told. Common practice, no published source. */
export const LONG_WAIT_HOURS = 7 * 24;

function waitingSentence(facts: JobSentenceFacts): string {
  const { name, printedHoursAgo, dryInHours, sheets, form, printedOn } = facts;
  const one = form === 'roll' ? 'piece' : 'sheet';
  const count = sheets === 1 ? `one ${one}` : `${sheets} ${one}s`;
  const days = Math.floor((printedHoursAgo ?? 0) / 24);
  const when = days >= 6 ? `printed ${days} days ago` : `printed ${printedOn ?? 'today'}`;
  const hours = Math.ceil(dryInHours ?? 0);
  const wet = hours > 0 ? `not dry for another ${hours} h` : 'dry';
  const end = endWords(facts);
  return `${name}: ${count} ${when}, ${wet}${end ? `, ${end}` : ''}.`;
}

/** "Strip 14: printed Tuesday, dry, bar end first." A job in one sentence. */
export function jobSentence(facts: JobSentenceFacts): string {
  const { name, state } = facts;
  switch (state) {
    case 'draft':
      return `${name}: being laid out, nothing printed.`;
    case 'locked':
      return `${name}: locked, waits to be printed.`;
    case 'waiting':
      return waitingSentence(facts);
    case 'cut':
      return `${name}: cut.`;
    case 'archived':
      return `${name}: put away.`;
  }
}
