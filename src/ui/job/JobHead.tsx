'use client';

import type { JobDraft } from '@/core/layout/job-draft';
import type { JobEditorView } from './job-view';
import type { DraftKeeper } from './use-draft';

const STATE_WORDS = { kept: 'Kept.', sending: 'Keeping ...', waiting: 'Not kept yet ...' } as const;

interface Props {
  readonly view: JobEditorView;
  readonly keeper: DraftKeeper;
}

/** A program's art begins as a box in the middle of its page. */
function laidOutBy(laysOut: JobDraft['laysOut'], draft: JobDraft): JobDraft {
  const { widthMm, lengthMm } = draft.page;
  const artBox = draft.artBox ?? {
    widthMm: Math.max(1, widthMm - 80),
    lengthMm: Math.max(1, lengthMm - 80),
    leftMm: 40,
    topMm: 40,
  };
  return { ...draft, laysOut, artBox };
}

/** Name, material, who lays it out, and whether what was typed is kept. */
export function JobHead({ view, keeper }: Props) {
  const { kept, change, state, notice } = keeper;
  const { draft } = kept;
  return (
    <div className="d-flex flex-wrap gap-3 align-items-end mb-3">
      <div>
        <label className="form-label" htmlFor="job-name">
          Job
        </label>
        <input
          id="job-name"
          className="form-control"
          defaultValue={kept.name}
          maxLength={80}
          onChange={(event) => {
            if (event.target.value.trim()) change(() => ({ name: event.target.value.trim() }));
          }}
        />
      </div>
      <div>
        <label className="form-label" htmlFor="job-material">
          Material
        </label>
        <select
          id="job-material"
          className="form-select"
          style={{ maxWidth: '15rem' }}
          value={kept.materialId}
          onChange={(event) => {
            change(() => ({ materialId: event.target.value }));
          }}
        >
          {view.materials.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
        </select>
      </div>
      {!view.onlyProgram && (
        <div className="d-flex gap-2" role="group" aria-label="Who lays it out">
          {(['here', 'program'] as const).map((who) => (
            <button
              key={who}
              type="button"
              className={`btn ${who === draft.laysOut ? 'btn-primary' : 'btn-quiet'}`}
              aria-pressed={who === draft.laysOut}
              onClick={() => {
                change((now) => ({ draft: laidOutBy(who, now.draft) }));
              }}
            >
              {who === 'here' ? 'Lay it out here' : 'My program lays it out'}
            </button>
          ))}
        </div>
      )}
      <p className="quiet mb-2" role="status">
        {notice ?? STATE_WORDS[state]}
      </p>
      {view.onlyProgram && <p className="quiet mb-0 w-100">{view.onlyProgram}</p>}
    </div>
  );
}
