import type { ReadingAnswerState } from '@/core/reading/methods';

/** The latest answer to one figure. */
export interface Kept {
  readonly state: ReadingAnswerState;
  readonly readingMm: number | null;
  /** False until the server has it; what a page begins with is saved. */
  readonly isSaved?: boolean;
}

/** Name of one figure's place among a set's readings. */
export const slotKey = (slot: { readonly method: string; readonly spotNo: number; readonly axis: string }): string =>
  `${slot.method} ${slot.spotNo} ${slot.axis}`;
