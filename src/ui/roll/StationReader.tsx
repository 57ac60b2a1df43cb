'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { slotName, stripFigures, type RollStrip, type StripFigure } from '@/core/target/roll-strip';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { FigureLoupe } from '../read/FigureLoupe';
import { isTall, leapt, nudged, turnOf } from '../read/figure-look';
import { AllRead } from '../read/AllRead';
import { isUndo, MOVE_FIRST, nextOpen, randomStart } from '../read/answering';
import { StationControls } from '../read/StationControls';
import { keyStep } from '../read/wedge-view';
import type { Kept } from '../read/slot';
import { useStations, type StationKeeper } from './use-stations';

export interface StationReaderView {
  readonly rollId: string;
  readonly strip: RollStrip;
  readonly kept: Readonly<Record<string, Kept>>;
  /** Random place of the first picture, drawn by the server so that both sides agree. */
  readonly firstStartMm: number;
  readonly system: UnitSystem;
}

const nameOf = (f: StripFigure): string => `Station ${f.stationNo} ${f.side}, ${f.axis}`;

interface Station {
  readonly keeper: StationKeeper;
  readonly index: number | null;
  /** The figure under the loupe; null once all are answered. */
  readonly figure: StripFigure | null;
  readonly valueMm: number;
  readonly left: number;
  readonly said: string | null;
  readonly setValue: (mm: number) => void;
  readonly choose: (index: number | null) => void;
  readonly answer: (state: Kept['state'], typedMm?: number) => void;
  readonly undo: () => void;
}

/** State of the reader: which figure, where its picture stands, and the answers so far. */
function useStation(view: StationReaderView, figures: readonly StripFigure[]): Station {
  const keeper = useStations(view.rollId, view.kept);
  const [index, setIndex] = useState(() =>
    nextOpen(figures.map(slotName), -1, (name) => keeper.kept[name] === undefined),
  );
  const [valueMm, setPlace] = useState(view.firstStartMm);
  // Only what somebody moved or typed is an answer.
  const [isMoved, setMoved] = useState(false);
  const [hint, setHint] = useState<string | null>(null);
  const figure = index === null ? null : (figures[index] ?? null);
  const isOpen = (name: string): boolean => keeper.kept[name] === undefined;
  const choose = (next: number | null): void => {
    setIndex(next);
    setPlace(randomStart());
    setMoved(false);
    setHint(null);
  };
  const setValue = (mm: number): void => {
    setPlace(mm);
    setMoved(true);
    setHint(null);
  };
  const answer = (state: Kept['state'], typedMm?: number): void => {
    if (index === null || !figure) return;
    if (state === 'read' && !isMoved && typedMm === undefined) {
      setHint(MOVE_FIRST);
      return;
    }
    const { stationNo, side, axis } = figure;
    const readingMm = state === 'read' ? (typedMm ?? valueMm) : null;
    keeper.keep({ rollId: view.rollId, stationNo, side, axis, method: 'eye', state, readingMm });
    choose(nextOpen(figures.map(slotName), index, isOpen));
  };
  const undo = (): void => {
    const slot = keeper.undo();
    if (slot !== null) choose(figures.findIndex((f) => slotName(f) === slot));
  };
  const left = figures.filter((f) => isOpen(slotName(f))).length;
  return { keeper, index, figure, valueMm, left, said: hint ?? keeper.notice, setValue, choose, answer, undo };
}

/** The way on: how much is left, or what is still being saved. */
function onwardWords(left: number, unsaved: number): string {
  if (unsaved > 0) return `Saving ${String(unsaved)} ...`;
  return left === 0 ? 'All read: see the drift' : `${left} still to read; see the drift so far`;
}

/** What an earlier look at this figure said. */
function earlierWords(standing: Kept | undefined, system: UnitSystem): string {
  const mm = standing?.readingMm ?? null;
  return mm === null ? '' : ` Read as ${formatLength(mm, system, true)} already: another look replaces it.`;
}

/** Stations read by matching the picture, one figure after another from the leading edge. */
export function StationReader({ view }: { readonly view: StationReaderView }) {
  const [figures] = useState(() => stripFigures(view.strip));
  const [first] = figures;
  return first ? <Figures view={view} figures={figures} first={first} /> : <p>This strip has no figures.</p>;
}

interface FiguresProps {
  readonly view: StationReaderView;
  readonly figures: readonly StripFigure[];
  readonly first: StripFigure;
}

function Figures({ view, figures, first }: FiguresProps) {
  const router = useRouter();
  const { system } = view;
  const station = useStation(view, figures);
  const { keeper, index, figure, valueMm, left, setValue, choose, answer, undo } = station;
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.focus({ preventScroll: true });
  }, []);
  const turn = turnOf(figure ?? first, 0);
  const handleKey = (event: KeyboardEvent): void => {
    if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return;
    if (isUndo(event)) {
      event.preventDefault();
      undo();
      return;
    }
    if (!figure) return;
    const step = keyStep(event.key, turn);
    if (step !== 0) {
      event.preventDefault();
      setValue((event.shiftKey ? leapt : nudged)(figure, valueMm, step));
    } else if (event.key === 'Enter' && event.target === frame.current) answer('read');
  };
  return (
    <div ref={frame} tabIndex={-1} onKeyDown={handleKey} role="application" aria-label="Match the picture">
      {figure ? (
        <>
          <h2>{`${nameOf(figure)}: make the picture look like the strip`}</h2>
          <p className="quiet">
            Hold the strip so that its arrows point up, away from the leading edge.
            {earlierWords(keeper.kept[slotName(figure)], system)}
          </p>
          <div className={`at-loupe ${isTall(figure, turn) ? 'upright' : 'lying'}`}>
            <FigureLoupe figure={figure} valueMm={valueMm} turn={turn} onValue={setValue} />
            <div>
              <StationControls
                figure={figure}
                valueMm={valueMm}
                turn={turn}
                said={station.said}
                canUndo={keeper.canUndo}
                onUndo={undo}
                onValue={setValue}
                onAnswer={answer}
              />
            </div>
          </div>
        </>
      ) : (
        <AllRead count={figures.length} canUndo={keeper.canUndo} onUndo={undo} />
      )}
      <div className="d-flex flex-wrap gap-3 align-items-end">
        <label>
          <span className="form-label d-block">Go to</span>
          <select
            className="form-select"
            value={index ?? ''}
            onChange={(e) => {
              choose(Number(e.target.value));
            }}
          >
            {index === null && <option value="">All answered</option>}
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
          disabled={keeper.unsaved > 0}
          onClick={() => {
            router.push(`/rolls/${view.rollId}?look=drift`);
          }}
        >
          {onwardWords(left, keeper.unsaved)}
        </button>
      </div>
    </div>
  );
}
