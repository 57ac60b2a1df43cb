import 'server-only';
import { cornersOf, type Point } from '@/core/geometry/affine';
import { ASSUMED_MARK_SD_MM, loadCovariance } from '@/core/fit/load-noise';
import { layOutBlock } from '@/core/target/block';
import type { DatedEvent, DatedShift } from '@/core/trust/looks';
import { SETTING_CHANGED } from '@/core/trust/event-kinds';
import type { Database } from '@/db/client';
import { findLatestFailures } from '@/db/queries/bench';
import type { SetupRow } from '@/db/queries/shop';
import {
  findConfirmedShifts,
  findCorrectionTimes,
  findCutTimes,
  findDailyChecks,
  findEventTimes,
  findLatestConfirmed,
  findNames,
  findPolicies,
  findWorthyJobs,
  type BySetup,
  type CheckRow,
  type ConfirmedRow,
  type ConfirmedShift,
  type SetupEvent,
  type SetupMoment,
  type SetupStretch,
} from '@/db/queries/trust';
import { marksFor, markSpaceFor } from './setup-marks';

/** So many of each setup are looked at, the newest: what is older says little of today. */
const MOST_SHIFTS = 30;
const MOST_MOMENTS = 60;
/** Daily checks: a chart that runs on for longer is read whole. */
export const MOST_CHECKS = 60;
const WHOLE_CHART = 5000;

/** Work area's corners, and what one load of this setup's check sheet adds. */
function loadsOf(row: SetupRow, markSdMm: number) {
  const { page: name, pageWidthMm: widthMm, pageLengthMm: lengthMm } = row.printMode;
  const block = layOutBlock({ name, widthMm, lengthMm }, markSpaceFor(row));
  const size = block.ok ? block.value : { widthMm, lengthMm };
  const marks = block.ok ? marksFor(row, block.value) : { places: [] as readonly Point[], model: 'shift' as const };
  return {
    corners: cornersOf(row.setup.workWidthMm ?? size.widthMm, row.setup.workLengthMm ?? size.lengthMm),
    covariance: loadCovariance(marks.places, markSdMm, marks.model),
  };
}

const ever = (setupId: string): SetupStretch => ({ setupId, fromMs: 0, beforeMs: Infinity });

/** What one look at the database finds of many setups. */
async function foundOf(database: Database, ids: readonly string[]) {
  const [confirmed, names, shifts, corrections, checks, events, policies, failures, worthy] = await Promise.all([
    findLatestConfirmed(database, ids),
    findNames(database, ids),
    findConfirmedShifts(database, ids, MOST_SHIFTS),
    findCorrectionTimes(database, ids, MOST_MOMENTS),
    findDailyChecks(database, ids.map(ever), MOST_CHECKS),
    findEventTimes(database, ids, MOST_MOMENTS),
    findPolicies(database, ids),
    findLatestFailures(database, ids),
    findWorthyJobs(database, ids),
  ]);
  const oldestMs = Math.min(...[...confirmed.values()].flat().map((c) => c.at_ms));
  const cuts = Number.isFinite(oldestMs) ? await findCutTimes(database, ids, new Date(oldestMs)) : [];
  return { confirmed, names, shifts, corrections, checks, events, policies, failures, worthy, cuts };
}

type Found = Awaited<ReturnType<typeof foundOf>>;

/**
 * What the database says of one setup, newest first. The long lists are the same objects for as long as nothing in them
 * changed (`db/kept-rows`).
 */
export interface TrustRecord {
  readonly row: SetupRow;
  /** The latest confirmation of each material. */
  readonly confirmed: readonly ConfirmedRow[];
  /** What the material of each and who confirmed it are called. */
  readonly names: readonly { readonly materialName: string; readonly personName: string }[];
  readonly policies: Found['policies'];
  readonly worthy: Found['worthy'];
  /** Releases of cuts since the oldest of these confirmations. */
  readonly cuts: Found['cuts'];
  /** The newest confirming cut that failed. */
  readonly failure: Found['failures'][number] | undefined;
  readonly shifts: readonly ConfirmedShift[];
  readonly corrections: readonly SetupMoment[];
  readonly events: readonly SetupEvent[];
  readonly checks: readonly CheckRow[];
  /** What of a chart lies before those: all of it is looked at. */
  readonly olderChecks: readonly CheckRow[];
}

export type Confirmed = ConfirmedRow & TrustRecord['names'][number];

/** Everything that the trust in one setup is worked out from; moments ascend, checks descend. */
export interface TrustFacts extends Omit<TrustRecord, 'olderChecks' | 'confirmed' | 'names'> {
  readonly confirmed: readonly Confirmed[];
  /** Moments at which the machine got other values, by corrections or by values that someone told. */
  readonly setAnewMs: readonly number[];
  /** What happened. */
  readonly dated: readonly DatedEvent[];
  readonly load: ReturnType<typeof loadsOf>;
  readonly isMarkSdAssumed: boolean;
}

/** What the charts of a setup's daily checks are drawn from. */
export type ChartFacts = Pick<TrustFacts, 'row' | 'checks' | 'setAnewMs'>;

type ChartRecord = Pick<TrustRecord, 'row' | 'checks' | 'corrections' | 'events'>;

const setAnewOf = ({ corrections, events }: Pick<TrustRecord, 'corrections' | 'events'>): readonly number[] =>
  [...corrections, ...events.filter((e) => e.kind === SETTING_CHANGED)].map((m) => m.at_ms).sort((a, b) => a - b);

/** What of a chart lies before the oldest check at hand; nothing where all of it is at hand. */
function missingOf(record: ChartRecord): readonly SetupStretch[] {
  const oldest = record.checks.at(-1);
  if (!oldest || record.checks.length < MOST_CHECKS) return [];
  const begin = setAnewOf(record).at(-1) ?? 0;
  return oldest.at_ms <= begin ? [] : [{ setupId: record.row.setup.id, fromMs: begin, beforeMs: oldest.at_ms }];
}

/** Charts that began before the oldest check at hand are read whole: what is usual is their first fifty. */
function olderOf(database: Database, records: readonly ChartRecord[]): Promise<BySetup<CheckRow>> {
  const missing = records.flatMap(missingOf);
  return missing.length === 0 ? Promise.resolve(new Map()) : findDailyChecks(database, missing, WHOLE_CHART);
}

/** What the daily checks of one setup are shown from: less than its whole trust. */
export async function chartFacts(
  database: Database,
  row: SetupRow,
): Promise<ChartFacts & Pick<TrustFacts, 'policies'>> {
  const { id } = row.setup;
  const [corrections, checks, events, policies] = await Promise.all([
    findCorrectionTimes(database, [id], MOST_MOMENTS),
    findDailyChecks(database, [ever(id)], MOST_CHECKS),
    findEventTimes(database, [id], MOST_MOMENTS),
    findPolicies(database, [id]),
  ]);
  const listOf = <T>(found: BySetup<T>): readonly T[] => found.get(id) ?? [];
  const record = { row, corrections: listOf(corrections), events: listOf(events), checks: listOf(checks) };
  const older = await olderOf(database, [record]);
  return { row, policies, setAnewMs: setAnewOf(record), checks: [...record.checks, ...listOf(older)] };
}

const NOTHING: readonly never[] = [];

/** What the database says of many setups, in few questions. */
export async function trustRecords(database: Database, rows: readonly SetupRow[]): Promise<readonly TrustRecord[]> {
  if (rows.length === 0) return [];
  const found = await foundOf(
    database,
    rows.map((r) => r.setup.id),
  );
  const records = rows.map((row) => {
    const { id } = row.setup;
    const isOwn = (one: { readonly setupId: string }): boolean => one.setupId === id;
    const confirmed = found.confirmed.get(id) ?? NOTHING;
    const oldestMs = confirmed.at(-1)?.at_ms ?? Infinity;
    return {
      ...{ row, confirmed, failure: found.failures.find(isOwn) },
      names: confirmed.map(({ material_id, by_id }) => ({
        materialName: found.names.get(material_id) ?? '',
        personName: found.names.get(by_id) ?? '',
      })),
      ...{ policies: found.policies.filter(isOwn), worthy: found.worthy.filter(isOwn) },
      cuts: found.cuts.filter((c) => isOwn(c) && c.at.getTime() > oldestMs),
      shifts: found.shifts.get(id) ?? NOTHING,
      corrections: found.corrections.get(id) ?? NOTHING,
      events: found.events.get(id) ?? NOTHING,
      checks: found.checks.get(id) ?? NOTHING,
    };
  });
  const older = await olderOf(database, records);
  return records.map((record) => ({ ...record, olderChecks: older.get(record.row.setup.id) ?? NOTHING }));
}

/** The same, put in order, with what one load adds. */
export function factsOf({ olderChecks, names, ...record }: TrustRecord): TrustFacts {
  const [latest] = record.confirmed;
  const events = [...record.events].reverse();
  return {
    ...record,
    confirmed: record.confirmed.map((c, i) => ({ materialName: '', personName: '', ...names[i], ...c })),
    ...{ events, shifts: [...record.shifts].reverse(), corrections: [...record.corrections].reverse() },
    checks: [...record.checks, ...olderChecks],
    setAnewMs: setAnewOf(record),
    dated: events.map((e) => ({ atMs: e.at_ms, kind: e.kind })),
    load: loadsOf(record.row, latest?.mark_sd ?? ASSUMED_MARK_SD_MM),
    isMarkSdAssumed: latest?.is_mark_sd_assumed ?? true,
  };
}

/** Shifts of one material that were measured, oldest first: what confirmed it, and its daily checks. */
export function shiftsOf({ shifts, checks, load }: TrustFacts, materialId: string): readonly DatedShift[] {
  const loadVariance = load.covariance[0] ?? 0;
  const judged = shifts
    .filter((s) => s.material_id === materialId)
    .map(({ at_ms, across, along, variance }): DatedShift => ({
      atMs: at_ms,
      acrossMm: across,
      alongMm: along,
      varianceMm2: variance + loadVariance,
    }));
  const daily = checks
    .filter((c) => c.material_id === materialId)
    .map(({ at_ms, across, along, uncertainty }): DatedShift => ({
      atMs: at_ms,
      acrossMm: across,
      alongMm: along,
      varianceMm2: uncertainty ** 2 + loadVariance,
    }));
  return [...judged, ...daily].sort((a, b) => a.atMs - b.atMs);
}
