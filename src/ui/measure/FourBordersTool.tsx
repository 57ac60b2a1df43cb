'use client';

import { useState } from 'react';
import {
  BORDER_CALIPER_SD_MM,
  BORDER_RULE_SD_MM,
  readBorders,
  type BorderSide,
  type FourBorders,
} from '@/core/reading/borders';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { BorderPicture } from './BorderPicture';
import { InstrumentChoice } from './InstrumentChoice';
import type { MeasureToolView } from './measure-view';

type Typed = Readonly<Record<keyof FourBorders, number | null>>;

const SIDES: readonly (readonly [keyof FourBorders, string])[] = [
  ['leftMm', 'left'],
  ['rightMm', 'right'],
  ['topMm', 'top'],
  ['bottomMm', 'bottom'],
];

const VERDICTS = {
  pass: 'In register at this piece',
  fail: 'Out of register at this piece',
  cannot_tell: 'Cannot be told from this piece',
} as const;

const wholeOf = ({ leftMm, rightMm, topMm, bottomMm }: Typed): FourBorders | null =>
  leftMm === null || rightMm === null || topMm === null || bottomMm === null
    ? null
    : { leftMm, rightMm, topMm, bottomMm };

/** The four borders of one finished piece: how far the cut lies off its print there, in a minute. */
export function FourBordersTool({ view }: { readonly view: MeasureToolView }) {
  const { system, toleranceMm } = view;
  const [typed, setTyped] = useState<Typed>({ leftMm: null, rightMm: null, topMm: null, bottomMm: null });
  const [side, setSide] = useState<BorderSide>('outside');
  const [sdMm, setSdMm] = useState(BORDER_RULE_SD_MM);
  const borders = wholeOf(typed);
  const read = borders && readBorders(borders, { side, nominalMm: null, borderSdMm: sdMm, toleranceMm });
  return (
    <div className="two">
      <div className="bed stay">
        <BorderPicture side={side} shift={read?.ok ? read.value.shift : { x: 0, y: 0 }} />
      </div>
      <div>
        <p>Take a finished piece, hold it upright as it was printed, and measure the border on all four sides.</p>
        <p className="d-flex flex-wrap gap-2">
          {(
            [
              ['outside', 'cut round the print'],
              ['inside', 'a hole cut in the print'],
            ] as const
          ).map(([value, words]) => (
            <button
              key={value}
              type="button"
              className={`btn ${value === side ? 'btn-primary' : 'btn-quiet'}`}
              aria-pressed={value === side}
              onClick={() => {
                setSide(value);
              }}
            >
              {words}
            </button>
          ))}
        </p>
        <InstrumentChoice
          sdMm={sdMm}
          ruleMm={BORDER_RULE_SD_MM}
          caliperMm={BORDER_CALIPER_SD_MM}
          system={system}
          onChange={setSdMm}
        />
        <div className="d-flex flex-wrap gap-3">
          {SIDES.map(([name, words]) => (
            <LengthField
              key={name}
              label={words}
              system={system}
              isOptional
              onChange={(mm) => {
                setTyped({ ...typed, [name]: mm });
              }}
            />
          ))}
        </div>
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
