import type { JobDraft } from './job-draft';
import type { LaidOut, LayoutProblem } from './lay-out';

const counted = (n: number, one: string): string => (n === 1 ? `one ${one}` : `${n} ${one}s`);

/** A layout in one sentence: how many on each page, how many pages, how many over. */
export function layoutHeadline(draft: JobDraft, laid: LaidOut): string {
  if (draft.laysOut === 'program') return 'Your program lays it out: the page is checked here';
  const page = draft.form === 'roll' ? 'piece' : 'sheet';
  const [first, ...rest] = laid.left;
  if (!first) return 'Nothing is on the page yet';
  const pages = counted(laid.sheets, page);
  if (rest.length > 0) {
    const perPage = laid.left.reduce((sum, l) => sum + l.perSheet, 0);
    return `${perPage} pieces of ${laid.left.length} kinds on each ${page}, ${pages}`;
  }
  const over = first.beyond > 0 ? `, ${first.beyond} over` : '';
  return `${first.perSheet} on each ${page}: ${pages} make${laid.sheets === 1 ? 's' : ''} ${first.made}${over}`;
}

/** Why nothing is laid out, and what to do. */
export function layoutProblemWords(problem: LayoutProblem, draft: JobDraft): string {
  switch (problem.kind) {
    case 'nothing-to-place':
      return 'What is to be made?';
    case 'no-area':
      return 'Nothing of this page can be used: its insets meet';
    case 'does-not-fit':
      return `${draft.items.find((i) => i.id === problem.itemId)?.name ?? 'An item'} does not fit this page even once`;
  }
}
