'use client';

import type { ReactNode } from 'react';

export interface Choice<T extends string> {
  readonly value: T;
  readonly title: string;
  readonly words?: string;
  readonly picture?: ReactNode;
}

interface Props<T extends string> {
  readonly legend: string;
  readonly name: string;
  readonly choices: readonly Choice<T>[];
  readonly value: T | null;
  readonly onChange: (value: T) => void;
}

/** One question, its answers as cards large enough for a gloved finger. */
export function ChoiceCards<T extends string>({ legend, name, choices, value, onChange }: Props<T>) {
  return (
    <fieldset className="mb-3">
      <legend className="h2">{legend}</legend>
      <div className="cards">
        {choices.map((c) => (
          <label key={c.value} className={`choice ${value === c.value ? 'chosen' : ''}`}>
            <input
              type="radio"
              name={name}
              checked={value === c.value}
              onChange={() => {
                onChange(c.value);
              }}
            />
            <span>
              {c.picture}
              <strong>{c.title}</strong>
              {c.words && <span className="quiet d-block">{c.words}</span>}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
