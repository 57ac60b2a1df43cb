'use client';

import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { nextTurn, type TurnDeg } from '@/core/geometry/load';
import { figureName, type SheetDefinition } from '@/core/target/sheet-definition';
import { isTall, leapt, nudged, settled, turnOf, type LookFigure } from './figure-look';
import { FigureLoupe } from './FigureLoupe';
import { ReadingSheet } from './ReadingSheet';
import { ReadSoFar } from './ReadSoFar';
import { slotKey, type Kept } from './slot';
import { StationControls } from './StationControls';
import { WhatNext } from './WhatNext';
import { isUndo, MOVE_FIRST, nextOpen, randomStart } from './answering';
import { AllRead } from './AllRead';
import { TablePicture } from './TablePicture';
import { useReadings, type ReadingKeeper } from './use-readings';
import { keyStep } from './wedge-view';

export interface ReadView {
  readonly cutSetId: string;
  readonly setNo: number;
  readonly definition: SheetDefinition;
  readonly code: string;
  readonly turnDeg: TurnDeg;
  readonly leftOut: readonly string[];
  readonly kept: Readonly<Record<string, Kept>>;
  readonly isBlind: boolean;
  /** Which look at the figures: each is blind to the others. */
  readonly lookNo: number;
  /** Random place of the first picture, drawn by the server so that both sides agree. */
  readonly firstStartMm: number;
  readonly start: { readonly spotNo: number; readonly axis: string } | null;
  readonly next: { readonly href: string; readonly words: string };
  readonly pictureHref: string | null;
}

const keyOf = (f: LookFigure): string => slotKey({ method: f.kind, spotNo: f.spotNo, axis: f.axis });

/** The figures of a set that can be looked at one by one. */
function figuresOf({ definition, setNo, leftOut }: ReadView): readonly LookFigure[] {
  return [...definition.wedges, ...definition.combs].filter(
    (f) => f.setNo === setNo && !leftOut.includes(figureName(f)),
  );
}

interface Station {
  readonly figures: readonly LookFigure[];
  /** The figure under the loupe; null once all are answered. */
  readonly index: number | null;
  readonly valueMm: number;
  readonly turnDeg: TurnDeg;
  readonly keeper: ReadingKeeper;
  readonly setValue: (mm: number) => void;
  readonly turnOn: () => void;
  readonly choose: (index: number) => void;
  /** Keeps what is said of the figure and goes on; the value is the picture's unless another was typed. */
  readonly answer: (state: Kept['state'], typedMm?: number) => void;
  readonly undo: () => void;
  readonly said: string | null;
}

/** State of the station: which figure, where its picture stands, how the sheet is held. */
function useStation(view: ReadView): Station {
  const figures = useMemo(() => figuresOf(view), [view]);
  const keeper = useReadings(view);
  const [index, setIndex] = useState<number | null>(() => firstIndex(figures, view, keeper.kept));
  const [place, setPlace] = useState(view.firstStartMm);
  const [startedAtMm, setStarted] = useState(view.firstStartMm);
  // Only what somebody moved or typed is an answer.
  const [isMoved, setMoved] = useState(false);
  const [hint, setHint] = useState<string | null>(null);
  const [turnDeg, setTurnDeg] = useState<TurnDeg>(view.turnDeg);

  const shown = index === null ? undefined : figures[index];
  const valueMm = shown ? settled(shown, place) : place;
  const choose = useCallback((next: number | null) => {
    const start = randomStart();
    setIndex(next);
    setPlace(start);
    setStarted(start);
    setMoved(false);
    setHint(null);
  }, []);
  const setValue = (mm: number): void => {
    setPlace(mm);
    setMoved(true);
    setHint(null);
  };
  const answer = (state: Kept['state'], typedMm?: number): void => {
    if (index === null || !shown) return;
    if (state === 'read' && !isMoved && typedMm === undefined) {
      setHint(MOVE_FIRST);
      return;
    }
    const { spotNo, axis, kind: method } = shown;
    const readingMm = state === 'read' ? (typedMm ?? valueMm) : null;
    const repeatNo = view.lookNo;
    keeper.keep({ cutSetId: view.cutSetId, spotNo, axis, method, repeatNo, state, readingMm, startedAtMm });
    const names = figures.map(keyOf);
    choose(nextOpen(names, index, (name) => keeper.kept[name] === undefined));
  };
  const undo = (): void => {
    const slot = keeper.undo();
    if (slot !== null) choose(figures.findIndex((f) => keyOf(f) === slot));
  };
  const turnOn = (): void => {
    setTurnDeg(nextTurn(turnDeg));
  };
  return {
    figures,
    index,
    valueMm,
    turnDeg,
    keeper,
    setValue,
    turnOn,
    choose,
    answer,
    undo,
    said: hint ?? keeper.notice,
  };
}

/** Read by matching the picture: one figure at a time, drawn large, moved until it looks like the sheet. */
export function ReadStation({ view }: { readonly view: ReadView }) {
  const station = useStation(view);
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.focus({ preventScroll: true });
  }, []);
  const { figures, index, valueMm, turnDeg, keeper, choose } = station;
  const chooseFigure = useCallback(
    (w: LookFigure) => {
      choose(figures.indexOf(w));
    },
    [choose, figures],
  );
  const doneKeys = useMemo(() => figures.filter((f) => keeper.kept[keyOf(f)]).map(figureName), [figures, keeper.kept]);
  const [first] = figures;
  if (!first) return <p>This set has no figures to read.</p>;
  const figure = index === null ? null : (figures[index] ?? null);
  const left = figures.length - doneKeys.length;
  const turn = turnOf(figure ?? first, turnDeg);

  const handleKey = (event: KeyboardEvent): void => {
    if (event.target instanceof HTMLInputElement) return;
    if (isUndo(event)) {
      event.preventDefault();
      station.undo();
      return;
    }
    if (event.key.toLowerCase() === 'r') station.turnOn();
    if (!figure) return;
    const step = keyStep(event.key, turn);
    if (step !== 0) {
      event.preventDefault();
      station.setValue((event.shiftKey ? leapt : nudged)(figure, valueMm, step));
    } else if (event.key === 'Enter' && event.target === frame.current) station.answer('read');
  };

  return (
    <div
      className="station"
      ref={frame}
      tabIndex={-1}
      onKeyDown={handleKey}
      role="application"
      aria-label="Match the picture"
    >
      <div className="station-sheet">
        <ReadingSheet
          definition={view.definition}
          code={view.code}
          figures={figures}
          turnDeg={turnDeg}
          current={figure}
          done={doneKeys}
          onChoose={chooseFigure}
        />
        <button type="button" className="btn-plain" onClick={station.turnOn}>
          Hold the sheet like this, or turn the picture <span className="key">R</span>
        </button>
        {view.pictureHref && figure && (
          <TablePicture href={view.pictureHref} figure={figure} turnDeg={turnDeg} isWeeded={figure.kind === 'wedge'} />
        )}
      </div>
      <div className="station-figure">
        {figure ? (
          <>
            <h2>{`Spot ${figure.spotNo}, ${figure.axis}: make the picture look like the sheet`}</h2>
            <div className={`at-loupe ${isTall(figure, turn) ? 'upright' : 'lying'}`}>
              <FigureLoupe figure={figure} valueMm={valueMm} turn={turn} onValue={station.setValue} />
              <div>
                <StationControls
                  figure={figure}
                  valueMm={valueMm}
                  turn={turn}
                  said={station.said}
                  canUndo={keeper.canUndo}
                  onUndo={station.undo}
                  onValue={station.setValue}
                  onAnswer={station.answer}
                />
              </div>
            </div>
          </>
        ) : (
          <AllRead count={figures.length} canUndo={keeper.canUndo} onUndo={station.undo} />
        )}
        <ReadSoFar figures={figures} kept={keeper.kept} isBlind={view.isBlind} onChoose={choose} current={index} />
        <WhatNext left={left} unsaved={keeper.unsaved} next={view.next} isDone={figure === null} />
      </div>
    </div>
  );
}

/** The figure asked for, else the first that is open; null where all are answered. */
function firstIndex(
  figures: readonly LookFigure[],
  { start: wanted }: ReadView,
  kept: ReadView['kept'],
): number | null {
  const asked = wanted ? figures.findIndex((f) => f.spotNo === wanted.spotNo && f.axis === wanted.axis) : -1;
  if (asked >= 0) return asked;
  const open = figures.findIndex((f) => kept[keyOf(f)] === undefined);
  return open >= 0 ? open : null;
}
