'use client';

import type { useCutFile } from './use-cut-file';

interface Props {
  readonly job: ReturnType<typeof useCutFile>;
  /** What the move comes to. */
  readonly words: string;
  readonly isEmpty: boolean;
  readonly emptyWords: string;
  /** Null while something typed is wrong. */
  readonly onMake: (() => void) | null;
}

/** The name of the corrected file: the old one with a word before its ending. */
export function correctedName(name: string): string {
  const dot = name.lastIndexOf('.');
  return dot > 0 ? `${name.slice(0, dot)} corrected${name.slice(dot)}` : `${name} corrected`;
}

/** Making the corrected file: what it will do, how far it is, and the file with all that is to be told about it. */
export function MadeFile({ job, words, isEmpty, emptyWords, onMake }: Props) {
  const { state, problem } = job;
  return (
    <section aria-label="The corrected file" className="mt-3">
      <p>{isEmpty ? emptyWords : words}</p>
      {state.kind === 'making' ? (
        <p className="d-flex align-items-center gap-3">
          <progress value={state.share} max={1} aria-label="Moving lines" />
          <button type="button" className="btn btn-quiet" onClick={job.cancel}>
            Cancel
          </button>
        </p>
      ) : (
        <p>
          <button
            type="button"
            className={`btn ${state.kind === 'made' ? 'btn-quiet' : 'btn-primary'}`}
            disabled={isEmpty || !onMake}
            onClick={() => onMake?.()}
          >
            Make the corrected file
          </button>
        </p>
      )}
      {problem && (
        <p role="alert" className="notice">
          {`${problem.words} (${problem.where})`}
        </p>
      )}
      {state.kind === 'made' && (
        <div role="status">
          <p>
            <a className="btn btn-primary" href={state.href} download={correctedName(state.name)}>
              {`Take ${correctedName(state.name)}`}
            </a>
          </p>
          <p>{`${state.file.movedCount === 1 ? '1 line' : `${state.file.movedCount} lines`} moved; everything else is as it was, byte for byte.`}</p>
          {state.file.remarks.map((r) => (
            <p key={r.words} className="notice">
              {r.words}
            </p>
          ))}
          <p className="caution">
            Run a new cut file with the tool up first, a hand at the stop, as your machine&rsquo;s manual and local
            rules say.
          </p>
        </div>
      )}
    </section>
  );
}
