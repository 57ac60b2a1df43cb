'use client';

import { useState } from 'react';
import { readDisplay } from '../calibration/TypedBack';
import { TypedField } from './TypedField';

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
  const [text, setText] = useState(initial === undefined ? '' : String(initial));
  const mayBeEmpty = initial === undefined && text.trim() === '';
  const isWrong = !mayBeEmpty && readDisplay(text) === null;
  return (
    <TypedField
      label={label}
      text={text}
      unit={unit}
      problem={isWrong ? 'Type a number such as 0.25 or -0,25.' : null}
      onType={(typed) => {
        setText(typed);
        onChange(readDisplay(typed));
      }}
    />
  );
}
