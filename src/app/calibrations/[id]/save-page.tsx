import Link from 'next/link';
import { formatLength } from '@/core/units/length';
import { PlumbGauge } from '@/ui/components/PlumbGauge';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Kept: what stands in the history now, and where to go. */
export function SavePage({ record, system }: StepProps) {
  const passed = record.confirmations.find((c) => c.verdict === 'pass');
  const changes = record.correctionSettings;
  return (
    <>
      <PageHeading>{`${record.setupRow.setup.name} is in register, and the record is kept`}</PageHeading>
      <div className="verdict">
        <PlumbGauge worstMm={passed?.worstMm ?? null} toleranceMm={record.calibration.toleranceMm} size={150} />
        <div>
          {passed && (
            <p className="lead">{`Constant error ${formatLength(passed.worstMm, system)}, below ${formatLength(passed.upperMm, system)} with 95 % confidence. Next job within ${formatLength(passed.nextJobMm, system)} 95 times in 100.`}</p>
          )}
          {changes.map((c) => (
            <p key={c.machineSettingId + c.correctionId}>{c.words}</p>
          ))}
          <p className="d-flex gap-2">
            <Link className="btn btn-primary" href="/" prefetch={false}>
              Back to the bench
            </Link>
            <Link className="btn btn-quiet" href="/history" prefetch={false}>
              See it in the history
            </Link>
          </p>
        </div>
      </div>
    </>
  );
}
