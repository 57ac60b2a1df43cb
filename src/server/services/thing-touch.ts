import 'server-only';
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { ThingKind } from '@/contracts/shop';
import { DESCRIBED_ANEW } from '@/core/trust/event-kinds';
import type { Session } from '@/db/client';
import { findSetups, type SetupRow } from '@/db/queries/shop';
import { event, historyEntry } from '@/db/schema/correction';
import { machineSetting } from '@/db/schema/settings';
import { now } from '../clock';
import type { Actor } from './actor';

/** What an event happens to: everything that shares it is touched. */
type Target =
  | { readonly printerId: string }
  | { readonly cutterId: string }
  | { readonly programId: string }
  | { readonly setupId: string };

const distinct = (ids: readonly string[]): readonly string[] => [...new Set(ids)];

function byMarkScheme(rows: readonly SetupRow[], id: string): readonly Target[] {
  const cutters = rows.filter((r) => r.cutterScheme?.id === id).map((r) => r.cutter.id);
  const programs = rows.flatMap((r) => (r.programScheme?.id === id && r.program ? [r.program.id] : []));
  return [
    ...distinct(cutters).map((cutterId) => ({ cutterId })),
    ...distinct(programs).map((programId) => ({ programId })),
  ];
}

async function byMaterial(session: Session, id: string): Promise<readonly Target[]> {
  return session
    .selectDistinctOn([historyEntry.setupId], { setupId: historyEntry.setupId })
    .from(historyEntry)
    .where(eq(historyEntry.materialId, id));
}

async function bySetting(session: Session, id: string): Promise<readonly Target[]> {
  const [row] = await session.select().from(machineSetting).where(eq(machineSetting.id, id));
  if (row?.cutterId) return [{ cutterId: row.cutterId }];
  return row?.programId ? [{ programId: row.programId }] : [];
}

/** What a change of a thing's description touches. */
export async function touchedBy(
  session: Session,
  shopId: string,
  kind: ThingKind,
  id: string,
): Promise<readonly Target[]> {
  switch (kind) {
    case 'person':
      return [];
    case 'printer':
      return [{ printerId: id }];
    case 'program':
      return [{ programId: id }];
    case 'cutter':
      return [{ cutterId: id }];
    case 'material':
      return byMaterial(session, id);
    case 'setting':
      return bySetting(session, id);
    case 'markScheme':
      return byMarkScheme(await findSetups(session, shopId), id);
    case 'printMode': {
      const rows = await findSetups(session, shopId);
      return rows.filter((r) => r.printMode.id === id).map((r) => ({ setupId: r.setup.id }));
    }
  }
}

/** Writes down that the description of what they share was changed: these setups are to be checked first. */
export async function logTouched(
  session: Session,
  actor: Actor,
  targets: readonly Target[],
  note: string,
): Promise<void> {
  for (const target of targets) {
    await session
      .insert(event)
      .values({ id: randomUUID(), ...target, kind: DESCRIBED_ANEW, note, at: now(), by: actor.personId });
  }
}
