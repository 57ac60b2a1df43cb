'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { demoRemoved } from '@/server/actions/shop';

/** Removes the demo shop after a second press that says what goes. */
export function RemoveDemo() {
  const router = useRouter();
  const [isAsked, setIsAsked] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (!isAsked)
    return (
      <button
        type="button"
        className="btn btn-quiet"
        onClick={() => {
          setIsAsked(true);
        }}
      >
        Remove the demo shop
      </button>
    );
  return (
    <div role="group" aria-label="Remove the demo shop">
      <p className="caution">
        Everything in the demo shop goes, also what you tried there. Your own shops stay. You can add a fresh demo shop
        at any time.
      </p>
      <p className="d-flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy}
          onClick={() => {
            startTransition(async () => {
              const done = await demoRemoved('demo');
              if (!done.ok) setProblem(done.message);
              else {
                router.push('/');
                router.refresh();
              }
            });
          }}
        >
          {isBusy ? 'Removing ...' : 'Remove it'}
        </button>
        <button
          type="button"
          className="btn btn-quiet"
          disabled={isBusy}
          onClick={() => {
            setIsAsked(false);
          }}
        >
          Keep it
        </button>
      </p>
      <p role="alert" className="invalid-feedback d-block">
        {problem}
      </p>
    </div>
  );
}
