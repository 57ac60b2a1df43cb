import 'server-only';
import { asc, eq } from 'drizzle-orm';
import type { Database } from '@/db/client';
import { findHistoryEntry } from '@/db/queries/bench';
import { fit, fitReading, reading } from '@/db/schema/calibration';
import { correctionSetting } from '@/db/schema/correction';
import { machineSetting } from '@/db/schema/settings';
import { settingValueWords } from './words';

export interface HistoryLine {
  readonly id: string;
  readonly seq: number;
  readonly at: Date;
  readonly by: string;
  readonly setupName: string;
  readonly materialName: string;
  readonly kind: 'saved' | 'put_back';
  readonly worstMm: number | null;
  readonly upperMm: number | null;
  readonly nextJobMm: number | null;
  readonly toleranceMm: number | null;
  readonly correctionId: string | null;
  readonly calibrationId: string | null;
  readonly objective: string | null;
}

type HistoryRow = NonNullable<Awaited<ReturnType<typeof findHistoryEntry>>>;

function judged(row: HistoryRow): Pick<HistoryLine, 'worstMm' | 'upperMm' | 'nextJobMm' | 'toleranceMm'> {
  if (!row.confirmation) return { worstMm: null, upperMm: null, nextJobMm: null, toleranceMm: null };
  const { worstMm, upperMm, nextJobMm, toleranceMm } = row.confirmation;
  return { worstMm, upperMm, nextJobMm, toleranceMm };
}

const lineOf = (r: HistoryRow): HistoryLine => ({
  id: r.entry.id,
  seq: r.entry.seq,
  at: r.entry.at,
  by: r.personName,
  setupName: r.setupName,
  materialName: r.materialName,
  kind: r.entry.kind,
  ...judged(r),
  correctionId: r.correction?.id ?? null,
  calibrationId: r.correction?.calibrationId ?? null,
  objective: r.correction?.objective ?? null,
});

export interface HistoryDetail {
  readonly line: HistoryLine;
  readonly changes: readonly {
    readonly name: string;
    readonly before: string;
    readonly after: string;
    readonly words: string;
  }[];
  readonly beforeWorstMm: number | null;
  readonly readings: readonly {
    readonly spotNo: number;
    readonly axis: string;
    readonly displacementMm: number;
    readonly residualMm: number;
    readonly used: boolean;
  }[];
}

function confirmingReadings(database: Database, fitId: string | undefined) {
  if (fitId === undefined) return Promise.resolve([]);
  return database
    .select({ reading, used: fitReading.used, residualMm: fitReading.residualMm })
    .from(fitReading)
    .innerJoin(reading, eq(fitReading.readingId, reading.id))
    .where(eq(fitReading.fitId, fitId))
    .orderBy(asc(reading.spotNo), asc(reading.axis));
}

async function worstBefore(database: Database, fitId: string | null | undefined): Promise<number | null> {
  if (!fitId) return null;
  const [row] = await database.select({ worstMm: fit.worstMm }).from(fit).where(eq(fit.id, fitId));
  return row?.worstMm ?? null;
}

/** One entry in full: what was changed, from what error, and the confirming readings. */
export async function readHistoryEntry(database: Database, id: string): Promise<HistoryDetail | null> {
  const entry = await findHistoryEntry(database, id);
  if (!entry) return null;
  const line = lineOf(entry);
  const changes = await database
    .select({ row: correctionSetting, setting: machineSetting })
    .from(correctionSetting)
    .innerJoin(machineSetting, eq(correctionSetting.machineSettingId, machineSetting.id))
    .where(eq(correctionSetting.correctionId, line.correctionId ?? id))
    .orderBy(asc(machineSetting.position));
  const readings = await confirmingReadings(database, entry.confirmation?.fitId);
  return {
    line,
    changes: changes.map((c) => ({
      name: c.setting.displayName,
      before: settingValueWords(c.setting, c.row.beforeValue),
      after: settingValueWords(c.setting, c.row.afterValue),
      words: c.row.words,
    })),
    beforeWorstMm: await worstBefore(database, entry.correction?.fitId),
    readings: readings.map((r) => ({
      spotNo: r.reading.spotNo,
      axis: r.reading.axis,
      displacementMm: r.reading.displacementMm ?? 0,
      residualMm: r.residualMm,
      used: r.used,
    })),
  };
}
