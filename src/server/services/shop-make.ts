import 'server-only';
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { UnitSystem } from '@/core/units/length';
import type { Database } from '@/db/client';
import { findShops } from '@/db/queries/shop';
import { person, shop } from '@/db/schema/shop';
import { now } from '../clock';

export interface OwnShop {
  readonly id: string;
  readonly unitSystem: UnitSystem;
  readonly timeZone: string;
}

/** An empty shop of one's own beside the demo, with one person: names can be changed at any time. */
export async function startOwnShop(database: Database, input: OwnShop): Promise<string> {
  const shops = await findShops(database);
  if (shops.some((s) => s.id === input.id)) return input.id;
  const own = shops.filter((s) => !s.isDemo).length;
  await database.transaction(async (session) => {
    await session.insert(shop).values({
      id: input.id,
      name: own === 0 ? 'My shop' : `My shop ${own + 1}`,
      isDemo: false,
      defaultToleranceMm: 0.3,
      madeAt: now(),
    });
    await session.insert(person).values({
      id: randomUUID(),
      shopId: input.id,
      name: 'Me',
      unitSystem: input.unitSystem,
      timeZone: input.timeZone,
    });
  });
  return input.id;
}

export async function renameShop(database: Database, shopId: string, name: string): Promise<void> {
  await database.update(shop).set({ name }).where(eq(shop.id, shopId));
}
