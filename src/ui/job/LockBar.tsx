'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { FileFingerprint } from '@/contracts/jobs';
import { jobLocked } from '@/server/actions/job';
import type { LayoutWorker } from '@/workers/layout.client';
import { OwnFileDrop } from './OwnFileDrop';

interface Props {
  readonly jobId: string;
  readonly isOwnProgram: boolean;
  /** Things that stop it, and things to have looked at. */
  readonly stops: number;
  readonly looks: number;
  readonly isReady: boolean;
  readonly worker: () => LayoutWorker;
  /** Sends what waits and tells the version that is to be locked; null where it could not be sent. */
  readonly send: () => Promise<number | null>;
}

/** Why it cannot be locked yet; null where it can. */
function hindrance({ stops, isReady, isOwnProgram }: Props, file: FileFingerprint | null): string | null {
  if (stops > 0) return stops === 1 ? 'One thing above stops it.' : `${stops} things above stop it.`;
  if (isOwnProgram && !file) return 'Drop the file that your program saved first.';
  return isReady || isOwnProgram ? null : 'Nothing is on the page yet.';
}

/** From here on nothing of the layout changes: the one dark button. */
export function LockBar(props: Props) {
  const { jobId, isOwnProgram, looks, worker, send } = props;
  const router = useRouter();
  const [file, setFile] = useState<FileFingerprint | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const wait = hindrance(props, file);
  return (
    <section aria-label="Lock for printing" className="mt-4">
      <h2>Lock for printing</h2>
      <p className="quiet">
        Once locked, nothing of the layout changes: the print file and the cut file come from the same lock. A change
        makes another job.
      </p>
      {isOwnProgram && (
        <OwnFileDrop
          words="The file as your program saved it; its fingerprint is kept, the file stays with you"
          worker={worker}
          onFile={setFile}
        />
      )}
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy || wait !== null}
        onClick={() => {
          startTransition(async () => {
            setTold('Locking ...');
            const version = await send();
            if (version === null) {
              setTold('What you typed could not be sent: try again in a moment.');
              return;
            }
            const done = await jobLocked({ id: uuid(), jobId, version, ownFile: isOwnProgram ? file : null });
            setTold(done.ok ? null : done.message);
            if (done.ok) router.refresh();
          });
        }}
      >
        {looks > 0 ? `I have looked at ${looks === 1 ? 'it' : `all ${looks}`}: lock for printing` : 'Lock for printing'}
      </button>
      <p role="status" className="mt-2">
        {told ?? wait}
      </p>
    </section>
  );
}
