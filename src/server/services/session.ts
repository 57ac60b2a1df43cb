import 'server-only';
import { cookies } from 'next/headers';
import type { UnitSystem } from '@/core/units/length';
import { database } from '@/db/client';
import { findPersons } from '@/db/queries/shop';

export interface CurrentPerson {
  readonly id: string;
  readonly name: string;
  readonly unitSystem: UnitSystem;
}

export interface Session {
  readonly person: CurrentPerson;
  readonly persons: readonly CurrentPerson[];
  readonly theme: 'light' | 'dark';
}

/** Who works at this browser, by cookie; the first of the shop's people until one is chosen. */
export async function currentSession(): Promise<Session> {
  const [jar, rows] = await Promise.all([cookies(), findPersons(database())]);
  const persons = rows.map((p) => ({ id: p.id, name: p.name, unitSystem: p.unitSystem }));
  const person = persons.find((p) => p.id === jar.get('person')?.value) ?? persons[0];
  if (!person) throw new Error('The shop has no people. Start with "npm run demo".');
  return { person, persons, theme: jar.get('theme')?.value === 'dark' ? 'dark' : 'light' };
}
