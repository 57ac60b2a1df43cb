import 'server-only';
import type { CheckDue } from '@/core/trust/policy';
import type { Database } from '@/db/client';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { findPolicies } from '@/db/queries/trust';
import { policyOf, readTrust, type KeptPolicy } from './trust';

export interface PolicyPageView {
  readonly setupName: string;
  readonly materials: readonly { readonly id: string; readonly name: string }[];
  /** Null: for every material that has none of its own. */
  readonly materialId: string | null;
  readonly policy: KeptPolicy;
  /** What it comes to today, of each material that was confirmed here. */
  readonly sums: readonly { readonly materialName: string; readonly due: CheckDue }[];
}

/** A setup's policy, of one material or of all, to be changed: a material without its own begins with the setup's figures. */
export async function readPolicy(
  database: Database,
  setupId: string,
  asked: string | undefined,
): Promise<PolicyPageView | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const [materials, policies, trust] = await Promise.all([
    findMaterials(database, row.setup.shopId),
    findPolicies(database, [setupId]),
    readTrust(database, row),
  ]);
  const materialId = materials.find((m) => m.id === asked)?.id ?? null;
  const policy = policyOf({ policies }, materialId);
  const isNew = materialId !== null && !policy.isOwn;
  return {
    ...{ setupName: row.setup.name, materialId },
    materials: materials.map((m) => ({ id: m.id, name: m.name })),
    policy: isNew ? { ...policy, id: null, version: 0 } : policy,
    sums: trust
      .filter((t) => materialId === null || t.materialId === materialId)
      .map((t) => ({ materialName: t.materialName, due: t.due })),
  };
}
