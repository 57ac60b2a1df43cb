'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { trialCut } from '@/server/actions/calibration';
import { Instructions, type InstructionsView } from '../calibration/Instructions';
import { TypedBack, typedNumbers, type ChangeView } from '../calibration/TypedBack';

interface Props {
  readonly calibrationId: string;
  readonly changes: readonly ChangeView[];
  readonly instructions: InstructionsView;
}

/** Between the two cuts of a which-way test: the sheet stays loaded, the value is changed, set 2 is cut. */
export function TrialCut({ calibrationId, changes, instructions }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const numbers = typedNumbers(changes, typed);
  return (
    <div className="two">
      <div>
        <p className="caution">
          Do not unload, and do not have the marks read again: another load would decide the sign. Write the old values
          down first. Tool up and hand at stop for the first run with a new value.
        </p>
        <TypedBack
          changes={changes}
          typed={typed}
          onTyped={(id, text) => {
            setTyped({ ...typed, [id]: text });
          }}
        />
      </div>
      <div>
        <Instructions view={instructions} />
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy || Object.keys(numbers).length < changes.length}
          onClick={() => {
            startTransition(async () => {
              const done = await trialCut({ id: crypto.randomUUID(), calibrationId, typed: numbers });
              if (done.ok) router.push(`/calibrations/${calibrationId}/read`);
              else setProblem(done.message);
            });
          }}
        >
          Set, and set 2 is cut
        </button>
        {Object.keys(numbers).length < changes.length && (
          <p className="quiet mt-1">Type each value back as the display shows it.</p>
        )}
        <p role="alert">{problem}</p>
      </div>
    </div>
  );
}
