export type SetupState = 'in-register' | 'check-first' | 'stop' | 'not-confirmed';

export interface SetupFacts {
  /** Last confirmation that passed, in ms since 1970; null when there is none. */
  readonly confirmedAt: number | null;
  readonly worstMm: number | null;
  readonly toleranceMm: number;
  /** Times of events since then that are not undone. */
  readonly eventsSince: number;
  /** Time of the newest correction, and of the newest confirmation that failed. */
  readonly correctedAt: number | null;
  readonly failedAt: number | null;
}

/** What a setup's record says now. Evidence over time and its growing doubt come with the policies. */
export function setupState(facts: SetupFacts): SetupState {
  const { confirmedAt, correctedAt, failedAt } = facts;
  const after = (t: number | null): boolean => t !== null && (confirmedAt === null || t > confirmedAt);
  if (after(failedAt) && (correctedAt === null || failedAt! >= correctedAt)) return 'stop';
  if (confirmedAt === null || after(correctedAt)) return 'not-confirmed';
  return facts.eventsSince > 0 ? 'check-first' : 'in-register';
}

export const STATE_WORDS: Readonly<Record<SetupState, string>> = {
  'in-register': 'in register',
  'check-first': 'check first',
  stop: 'stop',
  'not-confirmed': 'not confirmed yet',
};
