'use client';

import { useState } from 'react';
import {
  formatLength,
  formatSizeNumber,
  lengthProblemWords,
  parseLength,
  unitWord,
  type UnitSystem,
} from '@/core/units/length';
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
  const [text, setText] = useState(initialMm === undefined ? '' : formatSizeNumber(initialMm, system));
  const [isTouched, setTouched] = useState(false);
  const parsed = parseLength(text, system);
  // A fraction has its decimal beside it, and so has a length typed in another unit.
  const isOtherwise = parsed.ok && /[/a-z"]/i.test(text);
  const beside = isOtherwise ? ` = ${formatLength(parsed.value, system)}` : '';
  const isLeftEmpty = isOptional && text.trim() === '';
  return (
    <TypedField
      label={label}
      text={text}
      unit={`${unitWord(system)}${beside}`}
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
