'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { valueShown } from '@/server/actions/shop';

interface Props {
  readonly settingId: string;
  readonly name: string;
  readonly value: number;
  readonly words: string;
}

/** Tells that a setting was keyed in, so that the next strip is judged by it. */
export function SetIt({ settingId, name, value, words }: Props) {
  const router = useRouter();
  const [id] = useState(() => uuid());
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <p>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await valueShown({ id, settingId, value });
            setProblem(done.ok ? null : done.message);
            if (done.ok) router.refresh();
          });
        }}
      >
        {`I have set ${name} to ${words}`}
      </button>
      <span role="alert" className="ms-3">
        {problem}
      </span>
    </p>
  );
}
