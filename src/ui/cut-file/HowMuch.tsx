'use client';

import { loadTurnOf, TURNS, viewTurnOf, type FeedDirection, type Load } from '@/core/geometry/load';
import { LoadPicture } from '../calibration/LoadPicture';
import type { CutFileToolView } from './cut-file-view';
import { TypedError } from './TypedError';
import type { Chosen, Source } from './use-correction';

interface Props {
  readonly view: CutFileToolView;
  readonly chosen: Chosen;
}

/** Where the move comes from: what is saved for the setup, or figures typed. */
export function HowMuch({ view, chosen }: Props) {
  const { source, load } = chosen;
  return (
    <fieldset className="mt-3">
      <legend className="h2">By how much?</legend>
      <SourceChoice view={view} source={source} onSource={chosen.setSource} />
      {source === 'typed' && <TypedError system={view.system} onChange={chosen.setError} />}
      {source === 'saved' && !view.axes && <LoadChoice load={load} feed={view.feed} onLoad={chosen.setLoad} />}
    </fieldset>
  );
}

interface SourceProps {
  readonly view: CutFileToolView;
  readonly source: Source;
  readonly onSource: (source: Source) => void;
}

function SourceChoice({ view: { saved, roll, isTraced }, source, onSource }: SourceProps) {
  return (
    <>
      {roll && !isTraced && (
        <label className={`choice ${source === 'roll' ? 'chosen' : ''}`}>
          <input
            type="radio"
            name="source"
            checked={source === 'roll'}
            onChange={() => {
              onSource('roll');
            }}
          />
          <span>
            {`By the steady drift of ${roll.words}`}
            <span className="quiet d-block">
              Shift, feed, walk, turn and bow, told from the leading edge; for work no longer than what was read. Key
              nothing in as well.
            </span>
          </span>
        </label>
      )}
      {saved?.correction && (
        <label className={`choice ${source === 'saved' ? 'chosen' : ''}`}>
          <input
            type="radio"
            name="source"
            checked={source === 'saved'}
            onChange={() => {
              onSource('saved');
            }}
          />
          <span>{`By this setup\u2019s correction, ${saved.words}`}</span>
        </label>
      )}
      {saved && !saved.correction && (
        <p className="notice">{`This setup\u2019s correction, ${saved.words}, stands in the machine\u2019s settings: files need no move.`}</p>
      )}
      {!saved && <p className="notice">Nothing is saved for this setup yet.</p>}
      <label className={`choice ${source === 'typed' ? 'chosen' : ''}`}>
        <input
          type="radio"
          name="source"
          checked={source === 'typed'}
          onChange={() => {
            onSource('typed');
          }}
        />
        <span>By figures typed here</span>
      </label>
    </>
  );
}

const TOP_WORDS = {
  0: 'top of the drawing away from you',
  90: 'top of the drawing to the left',
  180: 'top of the drawing towards you',
  270: 'top of the drawing to the right',
} as const;

function LoadChoice({
  load,
  feed,
  onLoad,
}: {
  readonly load: Load;
  readonly feed: FeedDirection;
  readonly onLoad: (load: Load) => void;
}) {
  const viewTurn = viewTurnOf(load, feed);
  return (
    <fieldset className="mt-2">
      <legend className="form-label">Where does the top of the drawing point in the cutter?</legend>
      <div className="lie">
        {TURNS.map((turn) => {
          const option: Load = { ...load, turnDeg: loadTurnOf(turn, feed) };
          return (
            <label key={turn} className={`choice ${turn === viewTurn ? 'chosen' : ''}`}>
              <input
                type="radio"
                name="top"
                checked={turn === viewTurn}
                aria-label={TOP_WORDS[turn]}
                onChange={() => {
                  onLoad(option);
                }}
              />
              <LoadPicture load={option} feed={feed} size={72} />
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}
