'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { trialCut } from '@/server/actions/calibration';
import { Instructions, type InstructionsView } from '../calibration/Instructions';
import { TypedBack, typedNumbers, type ChangeView } from '../calibration/TypedBack';

interface Props {
  readonly calibrationId: string;
  readonly changes: readonly ChangeView[];
  readonly instructions: InstructionsView;
  /** Work that cuts a print only once: the second cut is a second sheet. */
  readonly isTwoSheets: boolean;
}

/** Between the two cuts of a which-way test: the value is changed; the sheet stays loaded where it can be cut again. */
export function TrialCut({ calibrationId, changes, instructions, isTwoSheets }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const numbers = typedNumbers(changes, typed);
  return (
    <div className="two">
      <div>
        <p className="caution">
          {isTwoSheets
            ? 'Lay the second sheet in just as the first. '
            : 'Do not unload, and do not have the marks read again: another load would decide the sign. '}
          Write the old values down first, where they can be read. Tool up and hand at stop for the first run with a new
          value.
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
              const done = await trialCut({ id: uuid(), calibrationId, typed: numbers });
              if (done.ok) router.push(`/calibrations/${calibrationId}/read`);
              else setProblem(done.message);
            });
          }}
        >
          {isTwoSheets ? 'Set, and the second sheet is cut' : 'Set, and set 2 is cut'}
        </button>
        {Object.keys(numbers).length < changes.length && (
          <p className="quiet mt-1">Type each value back as the display shows it.</p>
        )}
        <p role="alert">{problem}</p>
      </div>
    </div>
  );
}
