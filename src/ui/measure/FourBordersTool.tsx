'use client';

import { useState } from 'react';
import { BORDER_RULE_SD_MM, readBorders, type BorderSide } from '@/core/reading/borders';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { BorderPicture } from './BorderPicture';
import { FourBorderFields, NO_BORDERS, wholeBorders, type TypedBorders } from './FourBorderFields';
import type { MeasureToolView } from './measure-view';

const VERDICTS = {
  pass: 'In register at this piece',
  fail: 'Out of register at this piece',
  cannot_tell: 'Cannot be told from this piece',
} as const;

/** The four borders of one finished piece: how far the cut lies off its print there, in a minute. */
export function FourBordersTool({ view }: { readonly view: MeasureToolView }) {
  const { system, toleranceMm } = view;
  const [typed, setTyped] = useState<TypedBorders>(NO_BORDERS);
  const [side, setSide] = useState<BorderSide>('outside');
  const [sdMm, setSdMm] = useState(BORDER_RULE_SD_MM);
  const borders = wholeBorders(typed);
  const read = borders && readBorders(borders, { side, nominalMm: null, borderSdMm: sdMm, toleranceMm });
  return (
    <div className="two">
      <div className="bed stay">
        <BorderPicture side={side} shift={read?.ok ? read.value.shift : { x: 0, y: 0 }} />
      </div>
      <div>
        <p>Take a finished piece, hold it upright as it was printed, and measure the border on all four sides.</p>
        <FourBorderFields
          {...{ side, sdMm, system }}
          onSide={setSide}
          onSd={setSdMm}
          onTyped={setTyped}
          typed={typed}
        />
        <Told read={read} system={system} toleranceMm={toleranceMm} />
      </div>
    </div>
  );
}

interface ToldProps {
  readonly read: ReturnType<typeof readBorders> | null;
  readonly system: UnitSystem;
  readonly toleranceMm: number;
}

function Told({ read, system, toleranceMm }: ToldProps) {
  if (!read) {
    return (
      <p role="status" className="quiet">
        All four sides are needed: two alone do not tell a shift from a border that is narrower all round.
      </p>
    );
  }
  if (!read.ok) {
    return (
      <p role="alert" className="notice">
        A border is zero or more. Where the cut ran into the print, or the other way, type 0 there.
      </p>
    );
  }
  const { shift, bounds, verdict, standardUncertaintyMm } = read.value;
  const length = (mm: number): string => formatLength(Math.abs(mm), system);
  return (
    <section aria-label="What the borders tell" role="status">
      <h2>{VERDICTS[verdict]}</h2>
      <p>
        {`The cut lies ${length(shift.x)} to the ${shift.x >= 0 ? 'right' : 'left'} and ${length(shift.y)} ${shift.y >= 0 ? 'high' : 'low'}: out by ${length(bounds.worstMm)} (\u00b1 ${length(1.96 * standardUncertaintyMm)}), ${length(toleranceMm)} allowed.`}
      </p>
      <p className="quiet">
        One piece tells a shift at its own place, nothing of scale, turn or what changes with every load. A piece from
        each end of the sheet tells more; a quick check tells it all.
      </p>
    </section>
  );
}
