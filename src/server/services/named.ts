import 'server-only';
import type { Database } from '@/db/client';
import { findMaterials as materialsOf, findSetups as setupsOf } from '@/db/queries/shop';

interface Named {
  readonly id: string;
  readonly name: string;
}

/** A shop's setups by name. */
export const findSetups = async (database: Database, shopId: string): Promise<readonly Named[]> =>
  (await setupsOf(database, shopId)).map(({ setup }) => ({ id: setup.id, name: setup.name }));

/** A shop's materials by name. */
export const findMaterials = async (database: Database, shopId: string): Promise<readonly Named[]> =>
  (await materialsOf(database, shopId)).map(({ id, name }) => ({ id, name }));
