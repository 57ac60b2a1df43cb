import type { ImportLook } from '@/contracts/import';

const MOST_PROBLEMS = 40;

interface Props {
  readonly look: ImportLook;
  readonly isBusy: boolean;
  readonly onKeep: () => void;
  /** Null where what was kept cannot be taken back as a whole. */
  readonly onTakeBack: (() => void) | null;
}

function Problems({ problems }: Pick<ImportLook, 'problems'>) {
  return (
    <div role="alert">
      <p className="caution">
        {problems.length === 1 ? 'One thing' : `${problems.length} things`} to mend first: nothing is kept before all
        lines are understood.
      </p>
      <ul>
        {problems.slice(0, MOST_PROBLEMS).map((p, i) => (
          <li key={i}>
            Line {p.line}, {p.field}: {p.words}
          </li>
        ))}
        {problems.length > MOST_PROBLEMS && <li>and {problems.length - MOST_PROBLEMS} more</li>}
      </ul>
    </div>
  );
}

function Lines({ look }: { readonly look: ImportLook }) {
  const wrong = new Set(look.problems.map((p) => p.line));
  return (
    <div className="table-responsive" role="region" aria-label="As it is understood" tabIndex={0}>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">line</th>
            {look.heads.map((h, i) => (
              <th key={i} scope="col">
                {h.title}
                {h.key === null && <span className="quiet d-block">passed over</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {look.preview.map((line) => (
            <tr key={line.line}>
              <th scope="row" className="figures text-nowrap">
                {line.line}
                {wrong.has(line.line) && <span aria-label="to be mended"> ✕</span>}
              </th>
              {look.heads.map((h, i) => (
                <td key={i} className={h.key === null ? 'quiet' : undefined}>
                  {line.cells[i]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A table as it is understood, what is wrong with it, and the way on. */
export function ImportPreview({ look, isBusy, onKeep, onTakeBack }: Props) {
  if (look.kept.length > 0)
    return (
      <section aria-label="Kept">
        <h2>{look.kept.length === 1 ? 'One line is kept' : `${look.kept.length} lines are kept`}</h2>
        {onTakeBack && (
          <button type="button" className="btn btn-quiet" disabled={isBusy} onClick={onTakeBack}>
            Take them back
          </button>
        )}
      </section>
    );
  return (
    <section aria-label="As it is understood">
      <h2>{look.lines === 1 ? 'One line' : `${look.lines} lines`}</h2>
      {look.problems.length > 0 && <Problems problems={look.problems} />}
      {look.preview.length > 0 && <Lines look={look} />}
      {look.lines > look.preview.length && <p className="quiet">The first {look.preview.length} are shown.</p>}
      {look.problems.length === 0 && (
        <button type="button" className="btn btn-primary mt-2" disabled={isBusy} onClick={onKeep}>
          Take {look.lines === 1 ? 'this line' : `all ${look.lines} lines`} in
        </button>
      )}
    </section>
  );
}
