'use client';

import { useState } from 'react';
import { learnStep, type Ladder, type StepProblem } from '@/core/reading/ladder';
import { formatFixed, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { LinePicker } from './LinePicker';

interface Props {
  readonly ladder: Ladder;
  readonly system: UnitSystem;
  readonly onLearned: (stepMm: number) => void;
}

const PROBLEMS: Readonly<Record<StepProblem['kind'], string>> = {
  'too-near': 'The two lines lie fewer than three apart: set a larger change and run it again.',
  'no-change': 'Type the change that was set between the two runs.',
};

/** Learns the step of a ladder from two runs with a known change between them. */
export function LearnStep({ ladder, system, onLearned }: Props) {
  const [before, setBefore] = useState<number | null>(null);
  const [after, setAfter] = useState<number | null>(null);
  const [changeMm, setChangeMm] = useState<number | null>(null);
  const learned = before === null || after === null || changeMm === null ? null : learnStep(before, after, changeMm);
  return (
    <details>
      <summary>The step is not known: learn it from two runs</summary>
      <p>
        Run the machine&rsquo;s test and press the line that looks best. Set a shift that you know, run the test again,
        and press the line that looks best now. Put the shift back afterwards.
      </p>
      <p className="mb-1">Best line before</p>
      <LinePicker ladder={ladder} title="Best line before" line={before} onPick={setBefore} />
      <LengthField label="Change that was set" system={system} isOptional onChange={setChangeMm} />
      <p className="mb-1">Best line after</p>
      <LinePicker ladder={ladder} title="Best line after" line={after} onPick={setAfter} />
      {learned && !learned.ok && (
        <p role="alert" className="notice">
          {PROBLEMS[learned.error.kind]}
        </p>
      )}
      {learned?.ok && (
        <p role="status">
          {`From line to line: ${formatFixed(learned.value.stepMm, 3)} \u00b1 ${formatFixed(1.96 * learned.value.standardUncertaintyMm, 3)} mm. `}
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => {
              onLearned(learned.value.stepMm);
            }}
          >
            Use this step
          </button>
        </p>
      )}
    </details>
  );
}
