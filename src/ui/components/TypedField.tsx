import { useId, type ReactNode } from 'react';

interface Props {
  readonly label: string;
  readonly text: string;
  readonly unit: string;
  /** What is wrong with what is typed; null when nothing is. */
  readonly problem: string | null;
  readonly hint?: ReactNode;
  /** Where a table's heads say what the field is and its unit: both are only read out. */
  readonly isLabelHidden?: boolean;
  readonly onType: (text: string) => void;
  readonly onLeave?: () => void;
}

const ALONE = { field: 'mb-3', label: 'form-label', unit: '' } as const;
const IN_TABLE = { field: '', label: 'visually-hidden', unit: 'visually-hidden' } as const;

/** A figure that is typed, with its unit; what is typed stays, and what is wrong is said beside it. */
export function TypedField({ label, text, unit, problem, hint, isLabelHidden, onType, onLeave }: Props) {
  const id = useId();
  const look = isLabelHidden ? IN_TABLE : ALONE;
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
          onBlur={onLeave}
          onChange={(event) => {
            onType(event.target.value);
          }}
        />
        <span className={look.unit}>{unit}</span>
      </div>
      <div id={`${id}-help`} className={problem ? 'invalid-feedback d-block' : 'quiet'}>
        {problem ?? hint}
      </div>
    </div>
  );
}
