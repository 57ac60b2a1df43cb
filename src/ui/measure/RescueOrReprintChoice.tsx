'use client';

import { useState } from 'react';
import { rescueOrReprint } from '@/core/registration/rescue-or-reprint';
import { formatFixed } from '@/core/units/length';
import { FigureField } from '../components/FigureField';

/** A setup in register spoils about one in twenty. Common practice, no published source; typed over when known. */
const USUAL_OUT_PERCENT = 5;

/** Is the sheet worth cutting? The work and the risk of a rescue against those of printing again, as arithmetic. */
export function RescueOrReprintChoice({ outShare }: { readonly outShare: number }) {
  const [material, setMaterial] = useState<number | null>(3);
  const [reprintMinutes, setReprintMinutes] = useState<number | null>(8);
  const [rescueMinutes, setRescueMinutes] = useState<number | null>(6);
  const [perHour, setPerHour] = useState<number | null>(30);
  const [outPercent, setOutPercent] = useState<number | null>(USUAL_OUT_PERCENT);
  const money = (value: number): string => formatFixed(value, 2);
  const isWhole =
    material !== null && reprintMinutes !== null && rescueMinutes !== null && perHour !== null && outPercent !== null;
  const told = isWhole
    ? rescueOrReprint({ material, reprintMinutes, rescueMinutes, perHour }, outShare, outPercent / 100)
    : null;
  const percent = formatFixed(100 * outShare, 0);
  return (
    <section aria-label="Rescue or reprint">
      {told && (
        <>
          <h2>{told.better === 'rescue' ? 'Worth cutting' : 'Print it again'}</h2>
          <p>
            {`Registering it: ${money(told.rescueCost)} of work and ${percent} % of a new sheet at ${money(told.reprintCost)}, together ${money(told.expectedRescue)}. Printing it again: ${money(told.reprintCost)} and ${formatFixed(outPercent ?? 0, 0)} % of another, together ${money(told.expectedReprint)}.`}
          </p>
        </>
      )}
      <details open={!told}>
        <summary>What a sheet costs here</summary>
        <div className="d-flex flex-wrap gap-3">
          <FigureField label="Material and ink" unit="a sheet" initial={3} onChange={setMaterial} />
          <FigureField label="Printing again" unit="minutes" initial={8} onChange={setReprintMinutes} />
          <FigureField label="Registering by hand" unit="minutes" initial={6} onChange={setRescueMinutes} />
          <FigureField label="Work" unit="an hour" initial={30} onChange={setPerHour} />
          <FigureField
            label="Spoiled when printed afresh"
            unit="%"
            initial={USUAL_OUT_PERCENT}
            onChange={setOutPercent}
          />
        </div>
      </details>
    </section>
  );
}
