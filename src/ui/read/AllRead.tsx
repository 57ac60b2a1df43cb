interface Props {
  readonly count: number;
  readonly canUndo: boolean;
  readonly onUndo: () => void;
}

/** Nothing is under the loupe any more: Enter goes on, and a tap on a figure reads it again. */
export function AllRead({ count, canUndo, onUndo }: Props) {
  return (
    <>
      <h2>{count === 1 ? 'The one figure is read' : `All ${count} figures are read`}</h2>
      <p>
        To read one again, tap it below.{' '}
        {canUndo && (
          <button type="button" className="btn-plain" onClick={onUndo}>
            Undo <span className="key">Ctrl+Z</span>
          </button>
        )}
      </p>
    </>
  );
}
