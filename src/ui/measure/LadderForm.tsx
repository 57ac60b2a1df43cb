'use client';

import { useState } from 'react';
import {
  isLadder,
  labelOf,
  LINE_LABELS,
  MOST_LETTERS,
  MOST_LINES,
  type Ladder,
  type LineLabels,
} from '@/core/reading/ladder';
import type { UnitSystem } from '@/core/units/length';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';
import { LearnStep } from './LearnStep';

interface Props {
  readonly id: string;
  readonly ladder: Ladder;
  readonly system: UnitSystem;
  readonly onChange: (ladder: Ladder) => void;
}

const LABEL_WORDS: Readonly<Record<LineLabels, string>> = {
  numbers: 'numbers: 1, 2, 3',
  letters: 'letters: A, B, C',
  signed: 'from the middle: \u22121, 0, +1',
};

/** How one row of the machine's test looks: labels, how many, which one has no shift, halves, step. */
export function LadderForm({ id, ladder, system, onChange }: Props) {
  const [stepNo, setStepNo] = useState(0);
  const [isWrong, setIsWrong] = useState(false);
  /** What is typed is taken when it can be a row; the middle stays in the middle until it is chosen. */
  const take = (over: Partial<Ladder>): void => {
    const next = { ...ladder, ...over };
    setIsWrong(!isLadder(next));
    if (isLadder(next)) onChange(next);
  };
  const setLines = (lines: number | null): void => {
    take({ lines: lines ?? NaN, middle: Math.floor(((lines ?? 0) + 1) / 2) });
  };
  return (
    <>
      <div className="d-flex flex-wrap gap-3">
        <div className="mb-3">
          <label htmlFor={`${id}-labels`} className="form-label">
            Beside its lines stand
          </label>
          <select
            id={`${id}-labels`}
            className="form-select"
            value={ladder.labels}
            onChange={(event) => {
              take({ labels: event.target.value as LineLabels });
            }}
          >
            {LINE_LABELS.map((labels) => (
              <option key={labels} value={labels} disabled={labels === 'letters' && ladder.lines > MOST_LETTERS}>
                {LABEL_WORDS[labels]}
              </option>
            ))}
          </select>
        </div>
        <FigureField label="How many lines" unit="" initial={ladder.lines} onChange={setLines} />
        {ladder.labels === 'numbers' && (
          <FigureField
            label="Number of the first"
            unit=""
            initial={ladder.firstNumber}
            onChange={(firstNumber) => {
              take({ firstNumber: firstNumber ?? NaN });
            }}
          />
        )}
        <div className="mb-3">
          <label htmlFor={`${id}-middle`} className="form-label">
            Line without shift
          </label>
          <select
            id={`${id}-middle`}
            className="form-select"
            value={ladder.middle}
            onChange={(event) => {
              take({ middle: Number(event.target.value) });
            }}
          >
            {Array.from({ length: ladder.lines }, (_, i) => i + 1).map((at) => (
              <option key={at} value={at}>
                {ladder.labels === 'signed'
                  ? labelOf({ ...ladder, middle: 0 }, at).replace('+', '')
                  : labelOf(ladder, at)}
              </option>
            ))}
          </select>
        </div>
        <LengthField
          key={stepNo}
          label="From line to line"
          system={system}
          isOptional
          {...(ladder.stepMm !== null && { initialMm: ladder.stepMm })}
          hint="Leave empty when the machine does not say."
          onChange={(stepMm) => {
            take({ stepMm });
          }}
        />
      </div>
      {isWrong && (
        <p role="alert" className="notice">
          {`A row has from two to ${ladder.labels === 'letters' ? MOST_LETTERS : MOST_LINES} lines, the one without shift among them.`}
        </p>
      )}
      <div className="d-flex align-items-center gap-2 mb-3">
        <input
          id={`${id}-halves`}
          type="checkbox"
          className="form-check-input flex-shrink-0 m-0"
          checked={ladder.takesHalves}
          onChange={(event) => {
            take({ takesHalves: event.target.checked });
          }}
        />
        <label htmlFor={`${id}-halves`} className="m-0">
          The machine takes the half between two lines
        </label>
      </div>
      <LearnStep
        ladder={ladder}
        system={system}
        onLearned={(stepMm) => {
          take({ stepMm });
          setStepNo(stepNo + 1);
        }}
      />
    </>
  );
}
