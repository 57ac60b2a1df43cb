import type { SetupState } from '@/core/trust/setup-state';

/** Headline of the bench: how the shop stands, in one sentence. */
export function benchHeadline(states: readonly SetupState[]): string {
  const count = (state: SetupState): number => states.filter((s) => s === state).length;
  const parts = [
    [count('stop'), 'to stop'],
    [count('check-first'), 'to check first'],
    [count('not-confirmed'), 'not confirmed yet'],
    [count('in-register'), 'in register'],
  ] as const;
  const told = parts.filter(([n]) => n > 0).map(([n, words]) => `${numberWord(n)} ${words}`);
  if (told.length === 0) return 'No setups yet';
  const [first = '', ...rest] = told;
  return [first.charAt(0).toUpperCase() + first.slice(1), ...rest].join(', ');
}

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const numberWord = (n: number): string => NUMBERS[n] ?? String(n);
