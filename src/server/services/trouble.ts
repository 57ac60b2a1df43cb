import 'server-only';
import type { SymptomFacts } from '@/core/trouble/symptoms';
import type { Database } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { analyse } from './analysis';
import { findReference } from './mark-use';
import { currentSets } from './record';

export interface TroubleView {
  readonly name: string;
  readonly facts: SymptomFacts;
  /** The sheet that the facts stand on, and when it was cut; absent: nothing was measured with today's settings. */
  readonly sheet: { readonly code: string; readonly at: Date; readonly calibrationId: string } | null;
}

/** What is known of a setup when something looks wrong: its latest sheet with today's settings, if it still stands. */
export async function readTrouble(database: Database, setupId: string): Promise<TroubleView | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const reference = await findReference(database, setupId);
  const isCurrent = reference && currentSets(reference.record).some((s) => s.id === reference.set.id);
  const analysed = isCurrent ? analyse(reference.record) : null;
  const known = analysed?.ok ? analysed.value : null;
  return {
    name: row.setup.name,
    facts: {
      parts: known?.parts ?? null,
      fault: known?.fault ?? null,
      toleranceMm: row.setup.toleranceMm,
      isMarkUseKnown: row.cutter.markUse !== 'unknown',
    },
    sheet:
      known && reference
        ? { code: reference.record.code, at: reference.set.cutAt, calibrationId: reference.record.calibration.id }
        : null,
  };
}
