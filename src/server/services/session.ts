import 'server-only';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import type { UnitSystem } from '@/core/units/length';
import { database } from '@/db/client';
import { findPersons, findShops } from '@/db/queries/shop';
import { diskWarning } from './disk';
import { isLetIn, SIGN_IN_PATH } from './door-guard';
import { WELCOME_PATH } from './first-page';

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
  readonly currency: string | null;
}

/** Where somebody goes who has to say in which shop they are. */
export const CHOOSE_SHOP_PATH = '/choose-shop';

export interface Session {
  readonly shop: CurrentShop;
  readonly shops: readonly CurrentShop[];
  readonly person: CurrentPerson;
  readonly persons: readonly CurrentPerson[];
  readonly theme: 'light' | 'dark';
  /** What everyone should know just now: a disk that fills up. */
  readonly notice: string | null;
}

/** Every shop, the demo last; only for those who are let in. */
export async function everyShop(): Promise<readonly CurrentShop[]> {
  if (!(await isLetIn())) redirect(SIGN_IN_PATH);
  const shops = await findShops(database());
  return shops.map(({ id, name, isDemo, currency }) => ({ id, name, isDemo, currency }));
}

/**
 * Which shop this browser is in and who works at it, by cookie; its first person until one is chosen. A browser that has not said
 * which is asked, unless there is only one; where there is none, the first page asks for it.
 */
export async function currentSession(): Promise<Session> {
  const [jar, shops] = await Promise.all([cookies(), everyShop()]);
  if (shops.length === 0) redirect(WELCOME_PATH);
  const shop = shops.find((s) => s.id === jar.get('shop')?.value) ?? (shops.length === 1 ? shops[0] : undefined);
  if (!shop) redirect(CHOOSE_SHOP_PATH);
  const [rows, notice] = await Promise.all([findPersons(database(), shop.id), diskWarning()]);
  const persons = rows.map(({ id, name, unitSystem, timeZone }) => ({
    id,
    name,
    unitSystem,
    timeZone,
  }));
  const person = persons.find((p) => p.id === jar.get('person')?.value) ?? persons[0];
  if (!person) throw new Error(`The shop ${shop.name} has no people.`);
  return { shop, shops, person, persons, theme: jar.get('theme')?.value === 'dark' ? 'dark' : 'light', notice };
}
