interface Props {
  readonly onAnswer: (state: 'skipped' | 'unreadable') => void;
  readonly canUndo: boolean;
  readonly onUndo: () => void;
}

/** The two answers of one who cannot match a figure: not now, or not at all; and the way back from the last answer. */
export function NotRead({ onAnswer, canUndo, onUndo }: Props) {
  return (
    <p className="d-flex flex-wrap gap-3 mb-1">
      <button
        type="button"
        className="btn-plain"
        onClick={() => {
          onAnswer('skipped');
        }}
      >
        Skip
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
      {canUndo && (
        <button type="button" className="btn-plain" onClick={onUndo}>
          Undo <span className="key">Ctrl+Z</span>
        </button>
      )}
    </p>
  );
}
