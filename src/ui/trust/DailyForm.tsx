'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { BORDER_CALIPER_SD_MM, readBorders, type BorderSide } from '@/core/reading/borders';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { dailyCheckKept, dailyCheckTakenBack } from '@/server/actions/trust';
import { BorderPicture } from '../measure/BorderPicture';
import { FourBorderFields, NO_BORDERS, wholeBorders, type TypedBorders } from '../measure/FourBorderFields';

interface Props {
  readonly setupId: string;
  readonly materialId: string;
  readonly toleranceMm: number;
  readonly system: UnitSystem;
}

/** Four borders of one finished piece, kept: two minutes, four figures. */
export function DailyForm({ setupId, materialId, toleranceMm, system }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState<TypedBorders>(NO_BORDERS);
  const [side, setSide] = useState<BorderSide>('outside');
  const [borderSdMm, setBorderSd] = useState(BORDER_CALIPER_SD_MM);
  const [round, setRound] = useState(0);
  const [kept, setKept] = useState<string | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const borders = wholeBorders(typed);
  const read = borders && readBorders(borders, { side, nominalMm: null, borderSdMm, toleranceMm });
  const shift = read?.ok ? read.value.shift : null;
  const length = (mm: number): string => formatLength(Math.abs(mm), system);
  const keep = (): void => {
    const id = uuid();
    startTransition(async () => {
      const done = await dailyCheckKept({ id, setupId, materialId, side, borders, borderSdMm, note: '' });
      setTold(done.ok ? 'Kept.' : done.message);
      if (!done.ok) return;
      setKept(id);
      setTyped(NO_BORDERS);
      setRound((n) => n + 1);
      router.refresh();
    });
  };
  const takeBack = (id: string): void => {
    startTransition(async () => {
      const done = await dailyCheckTakenBack({ id });
      setTold(done.ok ? 'Taken back: it counts no more.' : done.message);
      if (done.ok) setKept(null);
      router.refresh();
    });
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
      {shift && (
        <p>{`The cut lies ${length(shift.x)} to the ${shift.x >= 0 ? 'right' : 'left'} and ${length(shift.y)} ${shift.y >= 0 ? 'high' : 'low'} at this piece.`}</p>
      )}
      <button type="button" className="btn btn-primary" disabled={isBusy || !shift} onClick={keep}>
        Keep it
      </button>
      <p role="status" className="mb-0">
        {told}{' '}
        {kept && (
          <button
            type="button"
            className="btn-plain"
            disabled={isBusy}
            onClick={() => {
              takeBack(kept);
            }}
          >
            Take it back
          </button>
        )}
      </p>
    </section>
  );
}
