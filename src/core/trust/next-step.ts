import type { SetupState } from './setup-state';

export const NEXT_STEPS = {
  'quick-check': 'Quick check, 15 minutes',
  'daily-check': 'Measure a piece, 2 minutes',
  'another-piece': 'Measure one more piece, 2 minutes',
} as const;
export type NextStep = keyof typeof NEXT_STEPS;

/** Events after which scale, turn or squareness may be others as well: four borders of one piece do not tell them. */
const NEEDS_SHEET: ReadonlySet<string> = new Set([
  ...['firmware', 'program_updated', 'reinstalled', 'other_computer', 'driver', 'larger_page', 'seen_out'],
  ...['setting_changed', 'described_anew', 'moved'],
]);

export interface StepFacts {
  readonly state: SetupState;
  readonly hasConfirmation: boolean;
  /** Whether what was confirmed is within the limit of today. */
  readonly isWithinLimit: boolean;
  /** Kinds of what happened since the confirmation. */
  readonly eventKinds: readonly string[];
  /** A chart of daily checks signals: at its newest point alone, or longer. */
  readonly signal: 'first' | 'standing' | null;
}

/**
 * The one thing to do next. Never "adjust" on one point: the first signal asks for a piece of another load, a standing one for
 * a sheet. Null where nothing is to be done.
 */
export function nextStep({ state, hasConfirmation, isWithinLimit, eventKinds, signal }: StepFacts): NextStep | null {
  if (!hasConfirmation || !isWithinLimit || state === 'stop' || state === 'not-confirmed') return 'quick-check';
  if (signal === 'first') return 'another-piece';
  if (signal === 'standing') return 'quick-check';
  if (state === 'in-register') return null;
  return eventKinds.some((kind) => NEEDS_SHEET.has(kind)) ? 'quick-check' : 'daily-check';
}
