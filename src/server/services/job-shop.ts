import 'server-only';
import type { Database } from '@/db/client';
import { findMaterials, findSetups } from '@/db/queries/shop';

/** What a job can be made on, and of. */
export async function readSetups(database: Database, shopId: string) {
  const [setups, materials] = await Promise.all([findSetups(database, shopId), findMaterials(database, shopId)]);
  return {
    setups: setups.map(({ setup }) => ({ id: setup.id, name: setup.name })),
    materials: materials.map(({ id, name }) => ({ id, name })),
  };
}
