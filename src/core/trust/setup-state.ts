export type SetupState = 'in-register' | 'check-first' | 'stop' | 'not-confirmed';

/** Moments in ms since 1970. */
export interface SetupFacts {
  /** Last confirmation that passed; null when there is none. */
  readonly confirmedAt: number | null;
  /** Time of the newest correction, and of the newest confirmation that failed. */
  readonly correctedAt: number | null;
  readonly failedAt: number | null;
  /** A check is due by the shop's own policy, or a chart of daily checks signals. */
  readonly isDue: boolean;
  /** Daily checks since then say that more jobs would come out beyond the tolerance than within it. */
  readonly isSeenOut: boolean;
}

/** What a setup's record says now, of one material. */
export function setupState(facts: SetupFacts): SetupState {
  const { confirmedAt, correctedAt, failedAt, isDue, isSeenOut } = facts;
  const after = (t: number | null): t is number => t !== null && (confirmedAt === null || t > confirmedAt);
  if (after(failedAt) && (correctedAt === null || failedAt >= correctedAt)) return 'stop';
  if (confirmedAt === null || after(correctedAt)) return 'not-confirmed';
  if (isSeenOut) return 'stop';
  return isDue ? 'check-first' : 'in-register';
}

export const STATE_WORDS: Readonly<Record<SetupState, string>> = {
  'in-register': 'in register',
  'check-first': 'check first',
  stop: 'stop',
  'not-confirmed': 'not confirmed yet',
};
