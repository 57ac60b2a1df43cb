import 'server-only';
import { inArray } from 'drizzle-orm';
import { usualLimits, usualOf } from '@/core/charts/usual';
import { eventWords } from '@/core/trust/event-kinds';
import { partsOf } from '@/core/verdict/parts';
import {
  FOLLOWED,
  type Followed,
  type FoundAndLeft,
  type OverTime,
  type Parts,
  type Told,
} from '@/contracts/over-time';
import type { Database } from '@/db/client';
import { findEventsOf } from '@/db/queries/bench';
import { findSetup } from '@/db/queries/shop';
import { findFoundAndLeft } from '@/db/queries/shop-record';
import { fit } from '@/db/schema/calibration';

/** Fits by their ids, told part by part. */
async function partsById(database: Database, ids: readonly string[]): Promise<ReadonlyMap<string, Parts>> {
  if (ids.length === 0) return new Map();
  const rows = await database
    .select({ id: fit.id, parameters: fit.parameters, covariance: fit.covariance })
    .from(fit)
    .where(inArray(fit.id, [...ids]));
  return new Map(
    rows.flatMap((r) => {
      const parts = partsOf(r.parameters, r.covariance);
      return parts ? [[r.id, parts] as const] : [];
    }),
  );
}

/** What reading the marks left to chance, where it was learned from loads and not assumed. */
const noiseOf = (row: { readonly markSdMm: number | null; readonly isMarkSdAssumed: boolean | null }): Told | null =>
  row.markSdMm === null || row.isMarkSdAssumed !== false ? null : { value: row.markSdMm, standardUncertainty: 0 };

function limitsOf(points: readonly FoundAndLeft[]): OverTime['limits'] {
  const of = (part: Followed) => {
    const usual = usualOf(points.flatMap((p) => p.left[part]?.value ?? []));
    return usual && usual.count > 2 ? usualLimits(usual) : null;
  };
  return Object.fromEntries(FOLLOWED.map((q) => [q, of(q)])) as OverTime['limits'];
}

/** How a setup was found and left at each of its calibrations, and what happened between. @param materialId of one material alone. */
export async function readOverTime(
  database: Database,
  setupId: string,
  materialId: string | undefined,
): Promise<OverTime | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const [rows, events] = await Promise.all([
    findFoundAndLeft(database, setupId, materialId),
    findEventsOf(database, row),
  ]);
  const ids = rows.flatMap((r) => [r.leftFitId, ...(r.foundFitId ? [r.foundFitId] : [])]);
  const parts = await partsById(database, ids);
  const points = rows.flatMap((r): FoundAndLeft[] => {
    const left = parts.get(r.leftFitId);
    if (!left) return [];
    const found = r.foundFitId ? (parts.get(r.foundFitId) ?? null) : null;
    return [
      { id: r.id, atMs: r.at.getTime(), materialName: r.materialName, found, left: { ...left, markSdMm: noiseOf(r) } },
    ];
  });
  return {
    setupName: row.setup.name,
    points,
    limits: limitsOf(points),
    events: events.map(({ event }) => ({ atMs: event.at.getTime(), words: eventWords(event.kind) })),
  };
}
