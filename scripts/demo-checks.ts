/** Daily checks of the demo shop: borders of finished pieces, as a steady hand would have measured them. */
import { randomUUID } from 'node:crypto';
import { BORDER_CALIPER_SD_MM } from '@/core/reading/borders';
import { seededRng, seedFrom, standardNormal } from '@/core/math/random';
import type { Database } from '@/db/client';
import { findLatestConfirmed } from '@/db/queries/trust';
import { setClock } from '@/server/clock';
import type { Actor } from '@/server/services/actor';
import { keepDailyCheck } from '@/server/services/daily-check';

const DAY_MS = 86_400_000;
const BORDER_MM = 3;
/** What one load and one hand leave to chance, each direction. */
const NOISE_MM = 0.05;

export interface DemoChecks {
  readonly setupId: string;
  /** Days ago of the first and the last check. */
  readonly fromDaysAgo: number;
  readonly toDaysAgo: number;
  /** From then on the cut walks by so much a day, along. */
  readonly walk?: { readonly fromDaysAgo: number; readonly mmPerDay: number };
}

const toCaliper = (mm: number): number => Math.max(0, Math.round(mm * 20) / 20);

/** One check a day, at the same place of the sheet. */
export async function seedChecks(db: Database, actor: Actor, demo: DemoChecks): Promise<void> {
  const [confirmed] = (await findLatestConfirmed(db, [demo.setupId])).get(demo.setupId) ?? [];
  if (!confirmed) return;
  const [across = 0, along = 0] = confirmed.parameters;
  const rng = seededRng(seedFrom('daily', demo.fromDaysAgo, demo.toDaysAgo));
  for (let daysAgo = demo.fromDaysAgo; daysAgo >= demo.toDaysAgo; daysAgo--) {
    const walked = demo.walk ? Math.max(0, demo.walk.fromDaysAgo - daysAgo) * demo.walk.mmPerDay : 0;
    const x = across + NOISE_MM * standardNormal(rng);
    const y = along + walked + NOISE_MM * standardNormal(rng);
    const borders = {
      leftMm: toCaliper(BORDER_MM - x),
      rightMm: toCaliper(BORDER_MM + x),
      bottomMm: toCaliper(BORDER_MM - y),
      topMm: toCaliper(BORDER_MM + y),
    };
    setClock(() => new Date(Date.now() - daysAgo * DAY_MS - 3_600_000));
    const done = await keepDailyCheck(db, actor, {
      ...{ id: randomUUID(), setupId: demo.setupId, materialId: confirmed.material_id, side: 'outside', note: '' },
      ...{ borders, borderSdMm: BORDER_CALIPER_SD_MM },
    });
    if (!done.ok) throw new Error(done.error.message);
  }
  setClock(undefined);
}
