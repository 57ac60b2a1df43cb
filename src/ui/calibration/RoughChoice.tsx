'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { roughUsed } from '@/server/actions/calibration';
import { TypedBack, typedNumbers, type ChangeView } from './TypedBack';

interface Props {
  readonly calibrationId: string;
  readonly changes: readonly ChangeView[];
  readonly shiftWords: string;
}

/** Out of reach of the fine figures: bring the cut near by the machine's offset, or cut set 2 with the shift in its file. */
export function RoughChoice({ calibrationId, changes, shiftWords }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const numbers = typedNumbers(changes, typed);
  const use = (way: 'file' | 'settings'): void => {
    startTransition(async () => {
      const done = await roughUsed({ id: uuid(), calibrationId, way, typed: numbers });
      if (done.ok) router.push(`/calibrations/${calibrationId}/cut`);
      else setProblem(done.message);
    });
  };
  return (
    <div className="two">
      <section aria-label="In the file">
        <h2>Cut set 2 with this shift in its file</h2>
        <p>{`The cut is ${shiftWords}. Set 2 is moved back by that much in its file; the shift is written down with the set and counted in again. Nothing is changed on the machine yet. The strips of set 1 are not weeded.`}</p>
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy}
          onClick={() => {
            use('file');
          }}
        >
          Move it in the file
        </button>
      </section>
      {changes.length > 0 && (
        <section aria-label="At the machine">
          <h2>Or bring it near at the machine first</h2>
          <p className="caution">Write the old value down first, where it can be read.</p>
          <TypedBack
            changes={changes}
            typed={typed}
            onTyped={(id, text) => {
              setTyped({ ...typed, [id]: text });
            }}
          />
          <button
            type="button"
            className="btn btn-quiet"
            disabled={isBusy || Object.keys(numbers).length < changes.length}
            onClick={() => {
              use('settings');
            }}
          >
            I have set them
          </button>
        </section>
      )}
      <p role="alert">{problem}</p>
    </div>
  );
}
