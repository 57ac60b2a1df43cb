'use client';

import { lookWords, nudged, reachOf, scaleOfFigure, settled, type LookFigure } from './figure-look';
import { LooksLikeThis } from './LooksLikeThis';
import { NotRead } from './NotRead';
import { ReadingNumber } from './ReadingNumber';
import type { Kept } from './slot';
import { keysFor, type FigureTurn } from './wedge-view';

interface ControlsProps {
  readonly figure: LookFigure;
  readonly valueMm: number;
  readonly turn: FigureTurn;
  readonly said: string | null;
  readonly canUndo: boolean;
  readonly onUndo: () => void;
  readonly onValue: (mm: number) => void;
  readonly onAnswer: (state: Kept['state'], typedMm?: number) => void;
}

/** The number, the two keys that move the cut, and what can be said of the figure. */
export function StationControls(props: ControlsProps) {
  const { figure, valueMm, turn, onValue, onAnswer } = props;
  const [less, more] = keysFor(turn);
  const words = lookWords(figure);
  const nudge = (steps: number): void => {
    onValue(nudged(figure, valueMm, steps));
  };
  return (
    <>
      <ReadingNumber
        label={words.number}
        reachMm={reachOf(figure)}
        beyondWords={words.beyond}
        settle={(mm) => settled(figure, mm)}
        valueMm={valueMm}
        scale={scaleOfFigure(figure)}
        onChange={onValue}
        onEnter={(mm) => {
          onAnswer('read', mm);
        }}
      />
      <p className="d-flex flex-wrap gap-2 mb-1">
        <button
          type="button"
          className="btn btn-quiet"
          aria-label="less"
          onClick={() => {
            nudge(-1);
          }}
        >
          {less}
        </button>
        <button
          type="button"
          className="btn btn-quiet"
          aria-label="more"
          onClick={() => {
            nudge(1);
          }}
        >
          {more}
        </button>
        <LooksLikeThis
          onClick={() => {
            onAnswer('read');
          }}
        />
      </p>
      <p className="quiet mb-1">
        {words.touch}, then fine-tune with {less} {more} (Shift: {words.leap}).
      </p>
      <NotRead onAnswer={onAnswer} canUndo={props.canUndo} onUndo={props.onUndo} />
      <p className="mb-2" role="status">
        {props.said}
      </p>
    </>
  );
}
