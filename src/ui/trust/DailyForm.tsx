'use client';

import { useState } from 'react';
import { BORDER_CALIPER_SD_MM, readBorders, type BorderSide } from '@/core/reading/borders';
import { dailyCheckKept } from '@/server/actions/trust';
import { BorderPicture } from '../measure/BorderPicture';
import { FourBorderFields, NO_BORDERS, wholeBorders, type TypedBorders } from '../measure/FourBorderFields';
import type { DailyPlace } from './daily-place';
import { KeepBar } from './KeepBar';
import { useKeptCheck } from './use-kept-check';

/** Four borders of one finished piece, kept: two minutes, four figures. */
export function DailyForm({ setupId, materialId, toleranceMm, system }: DailyPlace) {
  const [typed, setTyped] = useState<TypedBorders>(NO_BORDERS);
  const [side, setSide] = useState<BorderSide>('outside');
  const [borderSdMm, setBorderSd] = useState(BORDER_CALIPER_SD_MM);
  const [round, setRound] = useState(0);
  const check = useKeptCheck();
  const borders = wholeBorders(typed);
  const read = borders && readBorders(borders, { side, nominalMm: null, borderSdMm, toleranceMm });
  const shift = read?.ok ? read.value.shift : null;
  const keep = (): void => {
    check.keep(
      (id) => dailyCheckKept({ id, setupId, materialId, method: 'hand', side, borders, borderSdMm, note: '' }),
      () => {
        setTyped(NO_BORDERS);
        setRound((n) => n + 1);
      },
    );
  };
  return (
    <section aria-label="Four borders of a piece">
      <p>
        Take a finished piece, hold it upright as it was printed, and measure its border on all four sides. The same
        place on the sheet each day tells most.
      </p>
      <div key={round}>
        <FourBorderFields
          {...{ side, typed, system }}
          picture={<BorderPicture side={side} shift={shift ?? { x: 0, y: 0 }} />}
          sdMm={borderSdMm}
          onSide={setSide}
          onSd={setBorderSd}
          onTyped={setTyped}
        />
      </div>
      {read && !read.ok && (
        <p role="alert" className="notice">
          A border is zero or more. Where the cut ran into the print, type 0 there.
        </p>
      )}
      <KeepBar {...{ check, shift, system }} where="at this piece" onKeep={keep} />
    </section>
  );
}
