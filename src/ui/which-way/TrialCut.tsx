'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { TrialLoading } from '@/core/setting/which-way';
import { trialCut } from '@/server/actions/calibration';
import { Instructions, type InstructionsView } from '../calibration/Instructions';
import { TypedBack, typedNumbers, type ChangeView } from '../calibration/TypedBack';

interface Props {
  readonly calibrationId: string;
  readonly changes: readonly ChangeView[];
  readonly instructions: InstructionsView;
  /** How the sheet comes to this cut. */
  readonly loading: TrialLoading;
}

const CAUTIONS: Readonly<Record<TrialLoading, string>> = {
  'same-load': 'Do not unload, and do not have the marks read again: another load would decide the sign.',
  reload: 'Load the sheet just as before.',
  'another-sheet': 'Lay the second sheet in just as the first.',
};

/** Between the two cuts that tell which way + goes: the value is changed. */
export function TrialCut({ calibrationId, changes, instructions, loading }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const numbers = typedNumbers(changes, typed);
  return (
    <div className="two">
      <div>
        <p className="caution">
          {CAUTIONS[loading]} Write the old values down first, where they can be read. Tool up and hand at stop for the
          first run with a new value.
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
          {loading === 'another-sheet' ? 'Set, and the second sheet is cut' : 'Set, and set 2 is cut'}
        </button>
        {Object.keys(numbers).length < changes.length && (
          <p className="quiet mt-1">Type each value back as the display shows it.</p>
        )}
        <p role="alert">{problem}</p>
      </div>
    </div>
  );
}
