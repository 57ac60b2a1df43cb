import 'server-only';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import type { UnitSystem } from '@/core/units/length';
import { database } from '@/db/client';
import { findPersons, findShops } from '@/db/queries/shop';
import { isLetIn, SIGN_IN_PATH } from './door-guard';

export interface CurrentPerson {
  readonly id: string;
  readonly name: string;
  readonly unitSystem: UnitSystem;
  readonly timeZone: string;
}

export interface CurrentShop {
  readonly id: string;
  readonly name: string;
  readonly isDemo: boolean;
}

export interface Session {
  readonly shop: CurrentShop;
  readonly shops: readonly CurrentShop[];
  readonly person: CurrentPerson;
  readonly persons: readonly CurrentPerson[];
  readonly theme: 'light' | 'dark';
}

/** Which shop this browser is in and who works at it, by cookie: an own shop before the demo, its first person until one is chosen. */
export async function currentSession(): Promise<Session> {
  if (!(await isLetIn())) redirect(SIGN_IN_PATH);
  const [jar, shopRows] = await Promise.all([cookies(), findShops(database())]);
  const shops = shopRows.map(({ id, name, isDemo }) => ({ id, name, isDemo }));
  const shop = shops.find((s) => s.id === jar.get('shop')?.value) ?? shops[0];
  if (!shop) throw new Error('There is no shop yet. Start with "npm run demo".');
  const persons = (await findPersons(database(), shop.id)).map(({ id, name, unitSystem, timeZone }) => ({
    id,
    name,
    unitSystem,
    timeZone,
  }));
  const person = persons.find((p) => p.id === jar.get('person')?.value) ?? persons[0];
  if (!person) throw new Error(`The shop ${shop.name} has no people.`);
  return { shop, shops, person, persons, theme: jar.get('theme')?.value === 'dark' ? 'dark' : 'light' };
}
