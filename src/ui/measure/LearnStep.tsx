'use client';

import { useState } from 'react';
import { learnStep, type StepProblem } from '@/core/reading/ladder';
import { formatFixed, type UnitSystem } from '@/core/units/length';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';

interface Props {
  readonly system: UnitSystem;
  readonly onLearned: (stepMm: number) => void;
}

const PROBLEMS: Readonly<Record<StepProblem['kind'], string>> = {
  'no-half': 'Whole lines, or the half between two: finer than that the eye does not tell.',
  'too-near': 'The two lines lie fewer than three apart: key in a larger change and run it again.',
  'no-change': 'Type the change that was keyed in between the two runs.',
};

/** Learns the step of a ladder from two runs with a known change between them. */
export function LearnStep({ system, onLearned }: Props) {
  const [before, setBefore] = useState<number | null>(null);
  const [after, setAfter] = useState<number | null>(null);
  const [changeMm, setChangeMm] = useState<number | null>(null);
  const learned = before === null || after === null || changeMm === null ? null : learnStep(before, after, changeMm);
  return (
    <details>
      <summary>The step is not known: learn it from two runs</summary>
      <p>
        Run the machine&rsquo;s test, note the best line. Key in a shift that you know in mm, run the test again, note
        the best line again. Put the shift back afterwards.
      </p>
      <div className="d-flex flex-wrap gap-3">
        <FigureField label="Best line before" unit="" onChange={setBefore} />
        <LengthField label="Change keyed in" system={system} isOptional onChange={setChangeMm} />
        <FigureField label="Best line after" unit="" onChange={setAfter} />
      </div>
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
