'use client';

import { formatFixed } from '@/core/units/length';
import { CombLoupe } from './CombLoupe';
import { combFromTouch, type LookFigure } from './figure-look';
import { readingFromTouch, type FigureTurn } from './wedge-view';
import { WedgeLoupe } from './WedgeLoupe';

interface LoupeProps {
  readonly figure: LookFigure;
  readonly valueMm: number;
  readonly turn: FigureTurn;
  readonly onValue: (mm: number) => void;
}

/** The figure drawn large for the value entered. */
export function FigureLoupe({ figure, valueMm, turn, onValue }: LoupeProps) {
  const { spotNo, axis } = figure;
  const mm = formatFixed(valueMm, 2, true);
  if (figure.kind === 'comb')
    return (
      <CombLoupe
        figure={figure}
        readingMm={valueMm}
        turn={turn}
        label={`Comb ${spotNo} ${axis} with the ticks in one line at ${mm}`}
        onTouch={(place) => {
          onValue(combFromTouch(figure, place, turn, valueMm));
        }}
      />
    );
  return (
    <WedgeLoupe
      halfLengthMm={figure.halfLengthMm}
      ditherMm={figure.ditherMm}
      readingMm={valueMm}
      turn={turn}
      numbersAtV={axis === 'along' ? -4.6 : 3.9}
      label={`Wedge ${spotNo} ${axis} with the tips meeting at ${mm}`}
      onTouch={(place) => {
        onValue(readingFromTouch(place, turn, figure.halfLengthMm));
      }}
    />
  );
}
