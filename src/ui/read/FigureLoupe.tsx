'use client';

import { formatReading } from '@/core/units/length';
import { CombLoupe } from './CombLoupe';
import { combFromTouch, scaleOfFigure, type LookFigure } from './figure-look';
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
  const value = formatReading(valueMm, scaleOfFigure(figure), true);
  if (figure.kind === 'comb')
    return (
      <CombLoupe
        figure={figure}
        readingMm={valueMm}
        turn={turn}
        label={`Comb ${spotNo} ${axis} with the ticks in one line at ${value}`}
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
      scale={figure.scale}
      turn={turn}
      numbersAtV={axis === 'along' ? -4.6 : 3.9}
      label={`Wedge ${spotNo} ${axis} with the tips meeting at ${value}`}
      onTouch={(place) => {
        onValue(readingFromTouch(place, turn, figure));
      }}
    />
  );
}
