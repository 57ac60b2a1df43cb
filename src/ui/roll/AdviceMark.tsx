const MARKS = {
  'go-on': { shape: '\u25cf', word: 'go on', colour: 'var(--true)' },
  held: { shape: '\u25cf', word: 'it held', colour: 'var(--true)' },
  watch: { shape: '\u25d0', word: 'watch', colour: 'var(--watch)' },
  stop: { shape: '\u25a0', word: 'stop', colour: 'var(--ink)' },
} as const;

/** What a run is told: a word and a shape of its own, never colour alone. */
export function AdviceMark({ kind }: { readonly kind: keyof typeof MARKS }) {
  const { shape, word, colour } = MARKS[kind];
  return (
    <strong style={{ color: colour, whiteSpace: 'nowrap' }}>
      <span aria-hidden="true">{shape} </span>
      {`${word}.`}
    </strong>
  );
}
