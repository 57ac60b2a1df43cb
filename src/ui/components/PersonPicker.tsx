'use client';

import { useTransition } from 'react';
import { choosePerson, chooseTheme } from '@/server/actions/shop';
import type { CurrentPersonView } from './types';

const UNITS = { mm: 'mm', 'in-decimal': 'inches', 'in-fraction': 'inches, fractions' } as const;

/** Who is at the machine: entries carry this name, lengths are shown in their unit. */
export function PersonPicker({ people }: { readonly people: CurrentPersonView }) {
  const [isBusy, startTransition] = useTransition();
  const other = people.theme === 'dark' ? 'light' : 'dark';
  return (
    <>
      <label htmlFor="person" className="quiet d-block">
        At the machine
      </label>
      <select
        id="person"
        className="form-select"
        disabled={isBusy}
        value={people.person.id}
        onChange={(event) => {
          const personId = event.target.value;
          startTransition(async () => {
            await choosePerson({ personId });
          });
        }}
      >
        {people.persons.map((p) => (
          <option key={p.id} value={p.id}>
            {`${p.name}, ${UNITS[p.unitSystem]}`}
          </option>
        ))}
      </select>
      <button
        type="button"
        className="btn-plain"
        onClick={() => {
          startTransition(async () => {
            await chooseTheme(other);
          });
        }}
      >
        {`Make it ${other}`}
      </button>
    </>
  );
}
