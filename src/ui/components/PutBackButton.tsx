'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { putBackEntry } from '@/server/actions/shop';
import { TypedBack, typedNumbers, type ChangeView } from '../calibration/TypedBack';

interface Props {
  readonly historyEntryId: string;
  /** What differs now from how the machine stood then. */
  readonly changes: readonly ChangeView[];
}

/** Puts the machine back to how it stood at an entry, as a new entry: every value is keyed in at the machine and typed back. */
export function PutBackButton({ historyEntryId, changes }: Props) {
  const router = useRouter();
  const [isAsking, setAsking] = useState(false);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (changes.length === 0) return <p className="quiet">The machine stands as it did then: nothing to put back.</p>;
  if (!isAsking) {
    return (
      <button
        type="button"
        className="btn btn-quiet"
        onClick={() => {
          setAsking(true);
        }}
      >
        Put the machine back to how it stood then
      </button>
    );
  }
  const numbers = typedNumbers(changes, typed);
  return (
    <section className="notice" aria-label="Put back">
      <p className="caution">
        Write the present values down before you change them. First run with a changed setting: tool up, hand at stop.
      </p>
      <TypedBack
        changes={changes}
        typed={typed}
        onTyped={(id, text) => {
          setTyped({ ...typed, [id]: text });
        }}
      />
      <p>Confirm it with a cut of a new load before work depends on it.</p>
      <p className="d-flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy || Object.keys(numbers).length < changes.length}
          onClick={() => {
            startTransition(async () => {
              const done = await putBackEntry({ id: uuid(), historyEntryId, typed: numbers });
              if (done.ok) router.push(`/history/${done.value}`);
              else setProblem(done.message);
            });
          }}
        >
          I have set them
        </button>
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            setAsking(false);
          }}
        >
          Not now
        </button>
      </p>
      <p role="alert">{problem}</p>
    </section>
  );
}
