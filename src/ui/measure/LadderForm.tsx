'use client';

import { useState } from 'react';
import {
  isLadder,
  labelOf,
  linesOf,
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

interface ChoiceProps {
  readonly id: string;
  readonly label: string;
  readonly value: string | number;
  readonly options: readonly { readonly value: string | number; readonly words: string }[];
  readonly onChoose: (value: string) => void;
}

function Choice({ id, label, value, options, onChoose }: ChoiceProps) {
  return (
    <div className="mb-3">
      <label htmlFor={id} className="form-label">
        {label}
      </label>
      <select
        id={id}
        className="form-select"
        value={value}
        onChange={(event) => {
          onChoose(event.target.value);
        }}
      >
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.words}
          </option>
        ))}
      </select>
    </div>
  );
}

const middleWords = (ladder: Ladder, at: number): string =>
  ladder.labels === 'signed' ? `${at} of ${ladder.lines}` : labelOf(ladder, at);

/** How one row of the machine's test looks: labels, how many, which one has no shift, halves, step. What is typed is shown even where it is no row. */
export function LadderForm({ id, ladder, system, onChange }: Props) {
  const [stepNo, setStepNo] = useState(0);
  const isRight = isLadder(ladder);
  const take = (over: Partial<Ladder>): void => {
    onChange({ ...ladder, ...over });
  };
  return (
    <>
      <div className="d-flex flex-wrap gap-3">
        <Choice
          id={`${id}-labels`}
          label="Its lines are labelled with"
          value={ladder.labels}
          options={LINE_LABELS.map((labels) => ({ value: labels, words: LABEL_WORDS[labels] }))}
          onChoose={(labels) => {
            take({ labels: labels as LineLabels });
          }}
        />
        <FigureField
          label="How many lines"
          unit=""
          initial={ladder.lines}
          onChange={(lines) => {
            // The line without shift is the one in the middle, until another is chosen.
            take({ lines: lines ?? NaN, middle: Math.floor(((lines ?? 0) + 1) / 2) });
          }}
        />
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
        {isRight && (
          <Choice
            id={`${id}-middle`}
            label="Line without shift"
            value={ladder.middle}
            options={linesOf(ladder).map((at) => ({ value: at, words: middleWords(ladder, at) }))}
            onChoose={(middle) => {
              take({ middle: Number(middle) });
            }}
          />
        )}
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
      {!isRight && (
        <p role="alert" className="notice">
          {`A row has from two to ${ladder.labels === 'letters' ? MOST_LETTERS : MOST_LINES} lines, and whole numbers beside them.`}
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
      {isRight && (
        <LearnStep
          ladder={ladder}
          system={system}
          onLearned={(stepMm) => {
            take({ stepMm });
            setStepNo(stepNo + 1);
          }}
        />
      )}
    </>
  );
}
