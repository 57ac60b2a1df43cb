'use client';

import { useState } from 'react';
import { formatLengthNumber, lengthProblemWords, parseLength, unitWord, type UnitSystem } from '@/core/units/length';
import { TypedField } from './TypedField';

interface Props {
  readonly label: string;
  readonly system: UnitSystem;
  readonly initialMm?: number;
  readonly hint?: string;
  /** Where a table's heads say what the field is and its unit: the label is only read out. */
  readonly isLabelHidden?: boolean;
  /** May be left empty: then null is told and nothing is wrong. */
  readonly isOptional?: boolean;
  /** Told on every change: mm, or null while what is typed is not a length. */
  readonly onChange: (mm: number | null) => void;
}

/** A length typed as people write it, in the person's unit; says what is wrong beside the field and keeps what was typed. */
export function LengthField({ label, system, initialMm, hint, isLabelHidden, isOptional = false, onChange }: Props) {
  const [text, setText] = useState(initialMm === undefined ? '' : formatLengthNumber(initialMm, system));
  const [isTouched, setTouched] = useState(false);
  const parsed = parseLength(text, system);
  const isLeftEmpty = isOptional && text.trim() === '';
  return (
    <TypedField
      label={label}
      text={text}
      unit={unitWord(system)}
      problem={isTouched && !parsed.ok && !isLeftEmpty ? lengthProblemWords(parsed.error, system) : null}
      hint={hint}
      isLabelHidden={isLabelHidden}
      onLeave={() => {
        setTouched(true);
      }}
      onType={(typed) => {
        setText(typed);
        const next = parseLength(typed, system);
        onChange(next.ok ? next.value : null);
      }}
    />
  );
}
