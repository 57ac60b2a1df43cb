'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';

interface Props {
  readonly words: string;
  readonly isMain?: boolean;
  /** What is done, and what is then told; null: nothing more than the page itself shows. */
  readonly act: () => Promise<{ readonly ok: boolean; readonly told: string | null }>;
}

/** One press, one thing done; what came of it, or what went wrong, stands beside it. */
export function OnePress({ words, isMain = false, act }: Props) {
  const router = useRouter();
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <p>
      <button
        type="button"
        className={`btn ${isMain ? 'btn-primary' : 'btn-quiet'}`}
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await act();
            setTold(done.told);
            if (done.ok) router.refresh();
          });
        }}
      >
        {words}
      </button>
      <span role="status" className="ms-3">
        {told}
      </span>
    </p>
  );
}
