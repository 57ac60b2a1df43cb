'use client';

import { useId, useState } from 'react';
import { readDisplay } from '../calibration/TypedBack';

interface Props {
  readonly label: string;
  readonly unit: string;
  /** Absent: the field begins empty, and may be left so. */
  readonly initial?: number;
  /** Told on every change: the number, or null while what is typed is none. */
  readonly onChange: (value: number | null) => void;
}

/** A plain number with its unit; what is typed stays, and what is wrong is said beside it. */
export function FigureField({ label, unit, initial, onChange }: Props) {
  const id = useId();
  const [text, setText] = useState(initial === undefined ? '' : String(initial));
  const mayBeEmpty = initial === undefined && text.trim() === '';
  const isWrong = !mayBeEmpty && readDisplay(text) === null;
  return (
    <div className="mb-3">
      <label htmlFor={id} className="form-label">
        {label}
      </label>
      <div className="d-flex align-items-center gap-2">
        <input
          id={id}
          className={`form-control figures ${isWrong ? 'is-invalid' : ''}`}
          style={{ maxWidth: '8rem' }}
          inputMode="decimal"
          autoComplete="off"
          value={text}
          aria-invalid={isWrong}
          aria-describedby={`${id}-help`}
          onChange={(event) => {
            setText(event.target.value);
            onChange(readDisplay(event.target.value));
          }}
        />
        <span>{unit}</span>
      </div>
      <div id={`${id}-help`} className={isWrong ? 'invalid-feedback d-block' : ''}>
        {isWrong ? `Type a number such as 0.25 or -0,25.` : null}
      </div>
    </div>
  );
}
