'use client';

import { useId, useState } from 'react';
import { formatLengthNumber, lengthProblemWords, parseLength, unitWord, type UnitSystem } from '@/core/units/length';

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

const ALONE = { field: 'mb-3', label: 'form-label', unit: '' } as const;
const IN_TABLE = { field: '', label: 'visually-hidden', unit: 'visually-hidden' } as const;

/** A length typed as people write it, in the person's unit; says what is wrong beside the field and keeps what was typed. */
export function LengthField({ label, system, initialMm, hint, isLabelHidden, isOptional = false, onChange }: Props) {
  const id = useId();
  const look = isLabelHidden ? IN_TABLE : ALONE;
  const [text, setText] = useState(initialMm === undefined ? '' : formatLengthNumber(initialMm, system));
  const [isTouched, setTouched] = useState(false);
  const parsed = parseLength(text, system);
  const isLeftEmpty = isOptional && text.trim() === '';
  const problem = isTouched && !parsed.ok && !isLeftEmpty ? lengthProblemWords(parsed.error, system) : null;
  return (
    <div className={look.field}>
      <label htmlFor={id} className={look.label}>
        {label}
      </label>
      <div className="d-flex align-items-center gap-2">
        <input
          id={id}
          className={`form-control figures ${problem ? 'is-invalid' : ''}`}
          style={{ maxWidth: '9rem' }}
          inputMode="decimal"
          autoComplete="off"
          value={text}
          aria-describedby={`${id}-help`}
          aria-invalid={problem !== null}
          onBlur={() => {
            setTouched(true);
          }}
          onChange={(event) => {
            setText(event.target.value);
            const next = parseLength(event.target.value, system);
            onChange(next.ok ? next.value : null);
          }}
        />
        <span className={look.unit}>{unitWord(system)}</span>
      </div>
      <div id={`${id}-help`} className={problem ? 'invalid-feedback d-block' : 'quiet'}>
        {problem ?? hint}
      </div>
    </div>
  );
}
