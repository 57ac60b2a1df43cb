'use client';

import type { ReactNode } from 'react';
import { BORDER_CALIPER_SD_MM, BORDER_RULE_SD_MM, type BorderSide, type FourBorders } from '@/core/reading/borders';
import type { UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { InstrumentChoice } from './InstrumentChoice';

export type TypedBorders = Readonly<Record<keyof FourBorders, number | null>>;

const SIDES: readonly (readonly [keyof FourBorders, string])[] = [
  ['leftMm', 'left'],
  ['rightMm', 'right'],
  ['topMm', 'top'],
  ['bottomMm', 'bottom'],
];

export const NO_BORDERS: TypedBorders = { leftMm: null, rightMm: null, topMm: null, bottomMm: null };

export const wholeBorders = ({ leftMm, rightMm, topMm, bottomMm }: TypedBorders): FourBorders | null =>
  leftMm === null || rightMm === null || topMm === null || bottomMm === null
    ? null
    : { leftMm, rightMm, topMm, bottomMm };

interface Props {
  readonly side: BorderSide;
  readonly sdMm: number;
  readonly typed: TypedBorders;
  readonly system: UnitSystem;
  /** The piece: the fields stand about it. */
  readonly picture?: ReactNode;
  readonly onSide: (side: BorderSide) => void;
  readonly onSd: (sdMm: number) => void;
  readonly onTyped: (typed: TypedBorders) => void;
}

/** What was cut, what it is measured with, and its four borders. */
export function FourBorderFields({ side, sdMm, typed, system, picture, onSide, onSd, onTyped }: Props) {
  return (
    <>
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
              onSide(value);
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
        onChange={onSd}
      />
      <div className={picture ? 'about-piece' : 'd-flex flex-wrap gap-3'}>
        {SIDES.map(([name, words]) => (
          <div key={name} className={words}>
            <LengthField
              label={words}
              system={system}
              isOptional
              onChange={(mm) => {
                onTyped({ ...typed, [name]: mm });
              }}
            />
          </div>
        ))}
        {picture && <div className="piece">{picture}</div>}
      </div>
    </>
  );
}
