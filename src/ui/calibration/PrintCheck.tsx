'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { printFactor } from '@/core/target/print-factor';
import { formatFixed, formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import { printChecked } from '@/server/actions/calibration';
import { LengthField } from '../components/LengthField';

interface Props {
  readonly calibrationId: string;
  readonly nominalMm: number;
  readonly system: UnitSystem;
  /** Stand-in's own measure, when there is no real sheet. */
  readonly standinMm: number | null;
}

/** One long line: is it right? A print at another size is named and stops the calibration. */
export function PrintCheck({ calibrationId, nominalMm, system, standinMm }: Props) {
  const router = useRouter();
  const [isOther, setOther] = useState(false);
  const [lineMm, setLineMm] = useState<number | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();

  const send = (measuredMm: number): void => {
    startTransition(async () => {
      const done = await printChecked({ id: uuid(), calibrationId, lineMm: measuredMm });
      if (!done.ok) setTold(done.message);
      else if (done.value === 'right') router.push(`/calibrations/${calibrationId}/cut`);
      else {
        const { factor, likely } = printFactor(nominalMm, measuredMm);
        setTold(
          `This print is at ${formatFixed(factor * 100, 1)} %. ${likely} Print it again at actual size, then measure again. Nothing can be calibrated on this one.`,
        );
      }
    });
  };

  return (
    <section className="notice" aria-label="Check of the print">
      <h2>{`The long line on the left, bar to bar: is it ${formatSize(nominalMm, system)}?`}</h2>
      <p className="quiet">
        Lay a steel rule along it.
        {standinMm === null ? '' : ` (The stand-in\u2019s print measures ${formatLength(standinMm, system)}.)`}
      </p>
      <p className="d-flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy}
          onClick={() => {
            send(nominalMm);
          }}
        >
          Yes, it is right
        </button>
        <button
          type="button"
          className="btn btn-quiet"
          disabled={isBusy}
          onClick={() => {
            setOther(true);
          }}
        >
          It is something else
        </button>
      </p>
      {isOther && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (lineMm !== null) send(lineMm);
          }}
        >
          <LengthField
            label="It measures"
            system={system}
            onChange={setLineMm}
            hint="Bar to bar, as exactly as the rule tells."
          />
          <button type="submit" className="btn btn-primary" disabled={isBusy || lineMm === null}>
            Take this measure
          </button>
        </form>
      )}
      <p role="alert" className="mb-0 mt-2" style={{ color: 'var(--watch)' }}>
        {told}
      </p>
    </section>
  );
}
