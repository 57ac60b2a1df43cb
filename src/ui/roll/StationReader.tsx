'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { slotName, stripFigures, type RollStrip, type StripFigure } from '@/core/target/roll-strip';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { FigureLoupe } from '../read/FigureLoupe';
import { isTall, leapt, nudged, turnOf } from '../read/figure-look';
import { StationControls } from '../read/StationControls';
import { keyStep } from '../read/wedge-view';
import { useStations, type StationKept } from './use-stations';

export interface StationReaderView {
  readonly rollId: string;
  readonly strip: RollStrip;
  readonly kept: Readonly<Record<string, StationKept>>;
  /** Random place of the first picture, drawn by the server so that both sides agree. */
  readonly firstStartMm: number;
  readonly system: UnitSystem;
}

/** Anywhere within half a mm, never what is expected: the eye must do the work. */
function randomStart(): number {
  const [bits = 0] = crypto.getRandomValues(new Uint32Array(1));
  return bits / 2 ** 32 - 0.5;
}

const nameOf = (f: StripFigure): string => `Station ${f.stationNo} ${f.side}, ${f.axis}`;

/** Stations read by matching the picture, one figure after another from the leading edge. */
export function StationReader({ view }: { readonly view: StationReaderView }) {
  const router = useRouter();
  const { strip, system } = view;
  const [figures] = useState(() => stripFigures(strip));
  const keeper = useStations(view.rollId, view.kept);
  const firstOpen = figures.findIndex((f) => view.kept[slotName(f)] === undefined);
  const [index, setIndex] = useState(Math.max(0, firstOpen));
  const [valueMm, setValue] = useState(view.firstStartMm);
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.focus({ preventScroll: true });
  }, []);
  const figure = figures[index];
  if (!figure) return <p>This strip has no figures.</p>;
  const left = figures.filter((f) => keeper.kept[slotName(f)] === undefined).length;
  const turn = turnOf(figure, 0);

  const answer = (state: StationKept['state'], typedMm = valueMm): void => {
    const { stationNo, side, axis } = figure;
    keeper.keep({ stationNo, side, axis, method: 'eye', state, readingMm: state === 'read' ? typedMm : null });
    const rest = [...figures.slice(index + 1), ...figures.slice(0, index)];
    const next = rest.find((f) => keeper.kept[slotName(f)] === undefined);
    setIndex(next ? figures.indexOf(next) : index);
    setValue(randomStart());
  };
  const standing = keeper.kept[slotName(figure)];
  const handleKey = (event: KeyboardEvent): void => {
    if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return;
    const step = keyStep(event.key, turn);
    if (step !== 0) {
      event.preventDefault();
      setValue((event.shiftKey ? leapt : nudged)(figure, valueMm, step));
    } else if (event.key === 'Enter' && event.target === frame.current) answer('read');
  };
  return (
    <div ref={frame} tabIndex={-1} onKeyDown={handleKey} role="application" aria-label="Match the picture">
      <h2>{`${nameOf(figure)}: make the picture look like the strip`}</h2>
      <p className="quiet">
        Hold the strip so that its arrows point up, away from the leading edge.
        {standing?.readingMm !== null && standing?.readingMm !== undefined
          ? ` Read as ${formatLength(standing.readingMm, system, true)} already: another look replaces it.`
          : ''}
      </p>
      <div className={`at-loupe ${isTall(figure, turn) ? 'upright' : 'lying'}`}>
        <FigureLoupe figure={figure} valueMm={valueMm} turn={turn} onValue={setValue} />
        <div>
          <StationControls
            figure={figure}
            valueMm={valueMm}
            turn={turn}
            system={system}
            keeper={keeper}
            onValue={setValue}
            onAnswer={answer}
          />
        </div>
      </div>
      <div className="d-flex flex-wrap gap-3 align-items-end">
        <label>
          <span className="form-label d-block">Go to</span>
          <select
            className="form-select"
            value={index}
            onChange={(e) => {
              setIndex(Number(e.target.value));
              setValue(randomStart());
            }}
          >
            {figures.map((f, i) => (
              <option key={slotName(f)} value={i}>
                {`${nameOf(f)}${keeper.kept[slotName(f)] ? ', done' : ''}`}
              </option>
            ))}
          </select>
        </label>
        <button
          type="button"
          className={`btn ${left === 0 ? 'btn-primary' : 'btn-quiet'}`}
          disabled={keeper.sending > 0}
          onClick={() => {
            router.push(`/rolls/${view.rollId}?look=drift`);
          }}
        >
          {left === 0 ? 'All read: see the drift' : `${left} still to read; see the drift so far`}
        </button>
      </div>
    </div>
  );
}
