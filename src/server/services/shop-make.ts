import 'server-only';
import { randomUUID } from 'node:crypto';
import { and, eq, not } from 'drizzle-orm';
import type { NewShopInput } from '@/contracts/shop';
import type { Database } from '@/db/client';
import { findShops } from '@/db/queries/shop';
import { person, shop } from '@/db/schema/shop';
import { now } from '../clock';

/** Makes an empty shop with its first person. The id comes from the browser: a retry finds the one that is there. */
export async function startOwnShop(database: Database, input: NewShopInput): Promise<string> {
  if ((await findShops(database)).some((s) => s.id === input.id)) return input.id;
  await database.transaction(async (session) => {
    await session
      .insert(shop)
      .values({ id: input.id, name: input.name, isDemo: false, defaultToleranceMm: 0.3, madeAt: now() });
    await session.insert(person).values({
      id: randomUUID(),
      shopId: input.id,
      name: input.personName,
      unitSystem: input.unitSystem,
      timeZone: input.timeZone,
    });
  });
  return input.id;
}

/** Changes what a shop says of itself. The demo keeps its name and takes a currency. */
export async function saveShop(
  database: Database,
  { id, name, currency }: { readonly id: string; readonly name: string; readonly currency: string | null },
): Promise<void> {
  await database.transaction(async (session) => {
    await session.update(shop).set({ currency }).where(eq(shop.id, id));
    await session
      .update(shop)
      .set({ name })
      .where(and(eq(shop.id, id), not(shop.isDemo)));
  });
}
