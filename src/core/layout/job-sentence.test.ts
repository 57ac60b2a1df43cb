import { endWords, jobSentence, LONG_WAIT_HOURS, type JobSentenceFacts } from './job-sentence';

const facts = (changes: Partial<JobSentenceFacts> = {}): JobSentenceFacts => ({
  name: 'Strip 14',
  state: 'waiting',
  printedHoursAgo: 30,
  dryInHours: null,
  sheets: 1,
  form: 'roll',
  markKind: 'four_corners',
  leadingMark: 'the mark with a bar',
  printedOn: 'Tuesday',
  ...changes,
});

describe('a job in one sentence', () => {
  it.each([
    [{}, 'Strip 14: one piece printed Tuesday, dry, the mark with a bar first.'],
    [
      { dryInHours: 3.2, sheets: 4 },
      'Strip 14: 4 pieces printed Tuesday, not dry for another 4 h, the mark with a bar first.',
    ],
    [
      { printedHoursAgo: 24 * 9, form: 'sheet' as const, markKind: 'none' as const, leadingMark: '' },
      'Strip 14: one sheet printed 9 days ago, dry.',
    ],
    [{ state: 'draft' as const }, 'Strip 14: being laid out, nothing printed.'],
    [{ state: 'locked' as const }, 'Strip 14: locked, waits to be printed.'],
  ])('%j', (changes, wanted) => {
    expect(jobSentence(facts(changes))).toBe(wanted);
  });
  it('where no mark tells the ends apart, the printed words do', () => {
    expect(endWords({ markKind: 'four_corners', leadingMark: '' })).toBe('the end with the words first');
  });
  it('a wait of a week is long (common practice, no published source)', () => {
    expect(LONG_WAIT_HOURS).toBe(168);
  });
});
