'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { putBackEntry } from '@/server/actions/shop';

/** Puts an earlier entry's values back, as a new entry: asked once more, because the machine must be set to them too. */
export function PutBackButton({
  historyEntryId,
  changes,
}: {
  readonly historyEntryId: string;
  readonly changes: readonly string[];
}) {
  const router = useRouter();
  const [isAsking, setAsking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (!isAsking) {
    return (
      <button
        type="button"
        className="btn btn-quiet"
        onClick={() => {
          setAsking(true);
        }}
      >
        Put these values back
      </button>
    );
  }
  return (
    <div className="notice">
      <p>{`Set on the machine now: ${changes.join(', ')}. Then write it down here. Confirm it with a cut of a new load before work depends on it.`}</p>
      <p className="caution">Write the present values down before you change them.</p>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await putBackEntry({ id: crypto.randomUUID(), historyEntryId });
            if (done.ok) router.push(`/history/${done.value}`);
            else setProblem(done.message);
          });
        }}
      >
        I have set them
      </button>{' '}
      <button
        type="button"
        className="btn btn-quiet"
        onClick={() => {
          setAsking(false);
        }}
      >
        Not now
      </button>
      <p role="alert">{problem}</p>
    </div>
  );
}
