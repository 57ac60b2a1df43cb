'use client';

import { useRouter } from 'next/navigation';
import { useTransition } from 'react';
import { choosePerson, chooseShop, chooseTheme } from '@/server/actions/shop';
import type { CurrentPersonView } from './types';

const UNITS = { mm: 'mm', 'in-decimal': 'inches', 'in-fraction': 'inches, fractions' } as const;

/** Who is at the machine: entries carry this name, lengths are shown in their unit. */
export function PersonPicker({ people }: { readonly people: CurrentPersonView }) {
  const router = useRouter();
  const [isBusy, startTransition] = useTransition();
  const other = people.theme === 'dark' ? 'light' : 'dark';
  return (
    <>
      {people.shops.length > 1 && (
        <>
          <label htmlFor="shop" className="quiet d-block">
            Shop
          </label>
          <select
            id="shop"
            className="form-select mb-2"
            disabled={isBusy}
            value={people.shop.id}
            onChange={(event) => {
              const shopId = event.target.value;
              startTransition(async () => {
                const done = await chooseShop({ shopId });
                if (done.ok) router.push('/');
              });
            }}
          >
            {people.shops.map((s) => (
              <option key={s.id} value={s.id}>
                {s.isDemo ? `${s.name} (demo)` : s.name}
              </option>
            ))}
          </select>
        </>
      )}
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
