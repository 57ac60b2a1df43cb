/** The two answers of one who cannot match a figure: not now, or not at all. */
export function NotRead({ onAnswer }: { readonly onAnswer: (state: 'skipped' | 'unreadable') => void }) {
  return (
    <p className="d-flex flex-wrap gap-3 mb-1">
      <button
        type="button"
        className="btn-plain"
        onClick={() => {
          onAnswer('skipped');
        }}
      >
        Skip it
      </button>
      <button
        type="button"
        className="btn-plain"
        onClick={() => {
          onAnswer('unreadable');
        }}
      >
        Cannot be read
      </button>
    </p>
  );
}
