'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { jobArchived, jobBroughtBack, jobCopied } from '@/server/actions/job';

interface Props {
  readonly jobId: string;
  readonly isArchived: boolean;
  readonly isDraft: boolean;
}

/** A changed copy, and putting away with a reason: nothing is deleted. */
export function JobEnds({ jobId, isArchived, isDraft }: Props) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const copy = (): void => {
    startTransition(async () => {
      const done = await jobCopied({ id: uuid(), jobId });
      setTold(done.ok ? null : done.message);
      if (done.ok) router.push(`/jobs/${done.value}`);
    });
  };
  const run = (act: () => Promise<{ readonly ok: boolean; readonly message?: string }>): void => {
    startTransition(async () => {
      const done = await act();
      setTold(done.ok ? null : (done.message ?? null));
      if (done.ok) router.refresh();
    });
  };
  return (
    <section aria-label="Copy or put away" className="mt-4">
      <h2>Something else</h2>
      {!isDraft && (
        <p>
          <button type="button" className="btn btn-quiet" disabled={isBusy} onClick={copy}>
            Make a changed copy
          </button>
          <span className="quiet ms-2">a change makes another job, with its own lock</span>
        </p>
      )}
      {isArchived ? (
        <button
          type="button"
          className="btn btn-quiet"
          disabled={isBusy}
          onClick={() => {
            run(() => jobBroughtBack({ jobId }));
          }}
        >
          Take it out of the archive
        </button>
      ) : (
        <details>
          <summary>Put it away</summary>
          <p className="quiet">
            Its layout, files and cut data stay: a print without its cut data can never be cut. It only leaves the list.
          </p>
          <label className="form-label" htmlFor="reason">
            Why?
          </label>
          <input
            id="reason"
            className="form-control mb-2"
            maxLength={200}
            value={reason}
            onChange={(event) => {
              setReason(event.target.value);
            }}
          />
          <button
            type="button"
            className="btn btn-quiet"
            disabled={isBusy || reason.trim().length < 3}
            onClick={() => {
              run(() => jobArchived({ jobId, reason }));
            }}
          >
            Put it away
          </button>
        </details>
      )}
      <p role="status">{told}</p>
    </section>
  );
}
