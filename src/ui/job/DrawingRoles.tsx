'use client';

import type { ItemArt } from '@/core/layout/job-draft';
import type { ArtSurvey } from '@/workers/layout.client';

type Drawing = Extract<ItemArt, { kind: 'drawing' }>;

interface Props {
  readonly art: Drawing;
  readonly survey: ArtSurvey | undefined;
  readonly onArt: (art: Drawing) => void;
  /** The size that the file itself says. */
  readonly onNatural: () => void;
}

const isColour = (name: string): boolean => name.startsWith('#');

/** Which of a drawing's colours or layers are cut, or that the line runs round its art. */
export function DrawingRoles({ art, survey, onArt, onNatural }: Props) {
  if (!survey) return null;
  const groups = survey.groups.filter((g) => g.by === art.cutBy);
  const hasLayers = survey.groups.filter((g) => g.by === 'layer').length > 1;
  const scoreNames = art.scoreNames ?? [];
  const setRole = (name: string, role: 'cut' | 'scored' | 'printed'): void => {
    const without = (names: readonly string[]) => names.filter((n) => n !== name);
    const cutNames = [...without(art.cutNames), ...(role === 'cut' ? [name] : [])];
    const scored = [...without(scoreNames), ...(role === 'scored' ? [name] : [])];
    onArt({ ...art, cutNames, scoreNames: scored, cutFrom: cutNames.length > 0 ? 'lines' : 'outline' });
  };
  return (
    <>
      {survey.remarks.map((words) => (
        <p key={words} className="notice">
          {words}
        </p>
      ))}
      <fieldset>
        <legend className="form-label fs-6">Which of its lines are cut, which scored?</legend>
        {hasLayers && (
          <p className="d-flex gap-2">
            {(['colour', 'layer'] as const).map((way) => (
              <button
                key={way}
                type="button"
                className={`btn ${way === art.cutBy ? 'btn-primary' : 'btn-quiet'}`}
                aria-pressed={way === art.cutBy}
                onClick={() => {
                  onArt({ ...art, cutBy: way, cutNames: [], scoreNames: [], cutFrom: 'outline' });
                }}
              >
                {`by ${way}`}
              </button>
            ))}
          </p>
        )}
        {groups.map((g) => (
          <div key={g.name} className="choice justify-content-between">
            <label className="d-flex gap-2 align-items-center flex-grow-1">
              <input
                type="checkbox"
                checked={art.cutNames.includes(g.name)}
                onChange={(event) => {
                  setRole(g.name, event.target.checked ? 'cut' : 'printed');
                }}
              />
              <span>
                {isColour(g.name) && (
                  <svg width="14" height="14" aria-hidden="true" className="me-1">
                    <rect width="14" height="14" fill={g.name} stroke="var(--ink-2)" />
                  </svg>
                )}
                {g.name}
                <span className="quiet">{` ${g.shapes} ${g.shapes === 1 ? 'shape' : 'shapes'}`}</span>
              </span>
            </label>
            <label className="quiet d-flex gap-2 align-items-center">
              <input
                type="checkbox"
                aria-label={`${g.name} is scored, to be folded`}
                checked={scoreNames.includes(g.name)}
                onChange={(event) => {
                  setRole(g.name, event.target.checked ? 'scored' : 'printed');
                }}
              />
              <span>scored</span>
            </label>
          </div>
        ))}
      </fieldset>
      <p>
        {art.cutFrom === 'lines'
          ? 'The lines chosen are cut as they are drawn; the rest is printed.'
          : 'None is chosen: a line round the art is cut, at the border or bleed below.'}
      </p>
      {art.cutFrom === 'outline' && (
        <label className="choice">
          <input
            type="checkbox"
            checked={art.keepsHoles}
            onChange={(event) => {
              onArt({ ...art, keepsHoles: event.target.checked });
            }}
          />
          <span>Cut its holes as well</span>
        </label>
      )}
      <button type="button" className="btn btn-quiet mb-3" onClick={onNatural}>
        Take the size that the drawing says
      </button>
    </>
  );
}
