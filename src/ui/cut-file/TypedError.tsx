'use client';

import { useState } from 'react';
import type { ErrorParameters } from '@/core/geometry/error-parameters';
import type { UnitSystem } from '@/core/units/length';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';

interface Typed {
  readonly across: number | null;
  readonly along: number | null;
  readonly turn: number | null;
  readonly scaleAcross: number | null;
  readonly scaleAlong: number | null;
  readonly lean: number | null;
}

const NOTHING: Typed = { across: 0, along: 0, turn: 0, scaleAcross: 0, scaleAlong: 0, lean: 0 };

/** mm in 100 mm to a plain ratio, and percent likewise. */
const perHundred = (value: number): number => value / 100;

function errorOf(t: Typed): ErrorParameters | null {
  const { across, along, turn, scaleAcross, scaleAlong, lean } = t;
  if (
    across === null ||
    along === null ||
    turn === null ||
    scaleAcross === null ||
    scaleAlong === null ||
    lean === null
  )
    return null;
  return {
    offsetAcrossMm: across,
    offsetAlongMm: along,
    rotationRad: Math.atan(perHundred(turn)),
    scaleAcross: perHundred(scaleAcross),
    scaleAlong: perHundred(scaleAlong),
    squareness: perHundred(lean),
  };
}

interface Props {
  readonly system: UnitSystem;
  /** Told on every change; null while something typed is no number. */
  readonly onChange: (error: ErrorParameters | null) => void;
}

/** How far the cut lies off its print, typed: for errors measured elsewhere. */
export function TypedError({ system, onChange }: Props) {
  const [typed, setTyped] = useState<Typed>(NOTHING);
  const tell = (change: Partial<Typed>): void => {
    const next = { ...typed, ...change };
    setTyped(next);
    onChange(errorOf(next));
  };
  return (
    <div>
      <p className="quiet">
        How far the cut lies off its print now, seen with the drawing upright: to the right and up are plus.
      </p>
      <div className="d-flex flex-wrap gap-3">
        <LengthField
          label="Across"
          system={system}
          initialMm={0}
          onChange={(across) => {
            tell({ across });
          }}
        />
        <LengthField
          label="Along"
          system={system}
          initialMm={0}
          onChange={(along) => {
            tell({ along });
          }}
        />
        <FigureField
          label="Turned, counter-clockwise"
          unit="mm in 100 mm"
          initial={0}
          onChange={(turn) => {
            tell({ turn });
          }}
        />
        <FigureField
          label="Too wide"
          unit="%"
          initial={0}
          onChange={(scaleAcross) => {
            tell({ scaleAcross });
          }}
        />
        <FigureField
          label="Too long"
          unit="%"
          initial={0}
          onChange={(scaleAlong) => {
            tell({ scaleAlong });
          }}
        />
        <FigureField
          label="Leans to the right"
          unit="mm in 100 mm"
          initial={0}
          onChange={(lean) => {
            tell({ lean });
          }}
        />
      </div>
    </div>
  );
}
