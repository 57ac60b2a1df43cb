import Link from 'next/link';
import { formatLength } from '@/core/units/length';
import type { Analysis } from '@/server/services/analysis';
import type { ReactNode } from 'react';
import type { StepProps } from './step-props';

interface Props extends Pick<StepProps, 'record' | 'system'> {
  readonly analysis: Analysis;
  readonly isCounted: boolean;
  /** Another choice beside reading again. */
  readonly children?: ReactNode;
}

/** Readings that the others contradict, each with the way back to its figure. */
export function OddReadings({ record, system, analysis, isCounted, children }: Props) {
  const odd = [...record.readings, ...record.repeats].filter((r) => analysis.fit.misfitIds.includes(r.id));
  return odd.map((r) => (
    <p key={r.id} className="notice">
      {`Spot ${r.spotNo} ${r.axis} (${formatLength(r.readingMm ?? 0, system, true)}) does not belong: the other readings contradict it. ${isCounted ? 'It is counted all the same.' : 'It is left out.'} `}
      <Link
        href={`/calibrations/${record.calibration.id}/read?look=fine&spot=${r.spotNo}&axis=${r.axis}`}
        prefetch={false}
      >
        Read it again
      </Link>
      {children}.
    </p>
  ));
}
