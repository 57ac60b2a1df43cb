import { STATE_WORDS, type SetupState } from '@/core/trust/setup-state';

const SHAPES: Readonly<Record<SetupState, string>> = {
  'in-register': '\u25cf',
  'check-first': '\u25d0',
  stop: '\u25a0',
  'not-confirmed': '\u25c7',
};
const COLOURS: Readonly<Record<SetupState, string>> = {
  'in-register': 'var(--true)',
  'check-first': 'var(--watch)',
  stop: 'var(--ink)',
  'not-confirmed': 'var(--ink-2)',
};

/** A setup's state: a word and a shape of its own, never colour alone. */
export function StateMark({ state }: { readonly state: SetupState }) {
  return (
    <span style={{ color: COLOURS[state], fontWeight: 640, whiteSpace: 'nowrap' }}>
      <span aria-hidden="true">{SHAPES[state]} </span>
      {STATE_WORDS[state]}
    </span>
  );
}
