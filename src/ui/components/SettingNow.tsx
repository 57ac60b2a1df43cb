'use client';

import { v4 as uuid } from 'uuid';
import { useId, useState, useTransition } from 'react';
import { valueShown } from '@/server/actions/shop';
import { readDisplay } from '../calibration/TypedBack';

interface Props {
  readonly settingId: string;
  readonly name: string;
  /** The value as the record has it, with its unit. */
  readonly value: string;
}

/** A setting's value as the record has it, and the way to say that the display shows something else. */
export function SettingNow({ settingId, name, value }: Props) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (text === null) {
    return (
      <>
        <span className="figures">{value}</span>{' '}
        <button
          type="button"
          className="btn-plain"
          aria-label={`${name} shows something else`}
          onClick={() => {
            setText('');
          }}
        >
          it shows something else
        </button>
      </>
    );
  }
  const typed = readDisplay(text);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (typed === null) {
          setProblem(text.trim() === '' ? `Type what ${name} shows.` : `"${text}" is not a number.`);
          return;
        }
        startTransition(async () => {
          const done = await valueShown({ id: uuid(), settingId, value: typed });
          setProblem(done.ok ? null : done.message);
          if (done.ok) setText(null);
        });
      }}
    >
      <label htmlFor={id} className="visually-hidden">{`${name} shows`}</label>
      <span className="d-flex flex-wrap gap-2">
        <input
          id={id}
          className={`form-control figures ${problem ? 'is-invalid' : ''}`}
          style={{ maxWidth: '7rem' }}
          inputMode="decimal"
          autoComplete="off"
          autoFocus
          value={text}
          aria-describedby={`${id}-help`}
          onChange={(e) => {
            setText(e.target.value);
          }}
        />
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          Write it down
        </button>
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            setText(null);
            setProblem(null);
          }}
        >
          Not now
        </button>
      </span>
      <span id={`${id}-help`} role="alert" className="invalid-feedback d-block">
        {problem}
      </span>
    </form>
  );
}
