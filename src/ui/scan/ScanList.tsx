'use client';

import type { ScanResult } from '@/core/scan/scan-result';
import type { ScanJob, Scans } from './use-scans';

const DOING: Readonly<Record<ScanJob['stage'], string>> = {
  waiting: 'waits its turn',
  reading: 'is read',
  finding: 'its discs are looked for',
  measuring: 'its discs are measured',
  measured: '',
  refused: '',
};

/** What a measured scan tells, in a line. */
type LineOf = (result: ScanResult) => string;

function Line({
  job,
  lineOf,
  onRemove,
}: {
  readonly job: ScanJob;
  readonly lineOf: LineOf;
  readonly onRemove: () => void;
}) {
  const { stage, measured, refusal, share } = job;
  const fileName = job.file.name;
  if (stage === 'refused' || measured)
    return (
      <li className={refusal ? 'notice' : undefined}>
        <strong>{fileName}</strong>
        {refusal ? ` \u2013 ${refusal} ` : measured ? ` \u2013 ${lineOf(measured.result)} ` : ''}
        <button type="button" className="btn-plain" onClick={onRemove} aria-label={`Take ${fileName} away`}>
          take away
        </button>
      </li>
    );
  return (
    <li>
      <strong>{fileName}</strong>
      {` ${DOING[stage]}`}
      <progress
        className="w-100"
        max={1}
        value={stage === 'reading' || stage === 'measuring' ? share : undefined}
        aria-label={`${fileName} ${DOING[stage]}`}
      />
    </li>
  );
}

/** The scans handed in, each with what came of it. */
export function ScanList({ scans, lineOf }: { readonly scans: Scans; readonly lineOf: LineOf }) {
  const { jobs, isBusy, cancel, remove } = scans;
  if (jobs.length === 0) return null;
  return (
    <div aria-live="polite">
      <ul className="scan-list">
        {jobs.map((job) => (
          <Line
            key={job.id}
            job={job}
            lineOf={lineOf}
            onRemove={() => {
              remove(job.id);
            }}
          />
        ))}
      </ul>
      {isBusy && (
        <button type="button" className="btn btn-quiet" onClick={cancel}>
          Cancel
        </button>
      )}
    </div>
  );
}
