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
  findPolicies,
  findWorthyJobs,
  type BySetup,
  type CheckRow,
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
  const [confirmed, shifts, corrections, checks, events, policies, failures, worthy] = await Promise.all([
    findLatestConfirmed(database, ids),
    findConfirmedShifts(database, ids, MOST_SHIFTS),
    findCorrectionTimes(database, ids, MOST_MOMENTS),
    findDailyChecks(database, ids.map(ever), MOST_CHECKS),
    findEventTimes(database, ids, MOST_MOMENTS),
    findPolicies(database, ids),
    findLatestFailures(database),
    findWorthyJobs(database, ids),
  ]);
  const oldest = confirmed.at(-1)?.at;
  const cuts = oldest ? await findCutTimes(database, ids, oldest) : [];
  return { confirmed, shifts, corrections, checks, events, policies, failures, worthy, cuts };
}

type Found = Awaited<ReturnType<typeof foundOf>>;

const oldestFirst = <T>(found: BySetup<T>, setupId: string): readonly T[] => [...(found.get(setupId) ?? [])].reverse();

/** Everything of one setup's record that its trust is worked out from. */
export interface TrustFacts {
  readonly row: SetupRow;
  readonly confirmed: Found['confirmed'];
  readonly shifts: readonly ConfirmedShift[];
  readonly corrections: readonly SetupMoment[];
  readonly checks: readonly CheckRow[];
  readonly events: readonly SetupEvent[];
  readonly policies: Found['policies'];
  readonly worthy: Found['worthy'];
  readonly cuts: Found['cuts'];
  /** The newest confirming cut that failed. */
  readonly failure: Found['failures'][number] | undefined;
  /** Moments at which the machine got other values, by corrections or by values that someone told; ascending. */
  readonly setAnewMs: readonly number[];
  /** What happened, ascending. */
  readonly dated: readonly DatedEvent[];
  readonly load: ReturnType<typeof loadsOf>;
  readonly isMarkSdAssumed: boolean;
}

/** The same as plain moments, worked out once. */
function momentsOf(
  corrections: readonly SetupMoment[],
  events: readonly SetupEvent[],
): Pick<TrustFacts, 'setAnewMs' | 'dated'> {
  const told = events.filter((e) => e.kind === SETTING_CHANGED);
  return {
    setAnewMs: [...corrections, ...told].map((m) => m.at_ms).sort((a, b) => a - b),
    dated: events.map((e) => ({ atMs: e.at_ms, kind: e.kind })),
  };
}

/** What the charts of a setup's daily checks are drawn from. */
export type ChartFacts = Pick<TrustFacts, 'row' | 'checks' | 'setAnewMs'>;

/** What of a chart lies before the oldest check at hand; nothing where all of it is at hand. */
function missingOf({ row, checks, setAnewMs }: ChartFacts): readonly SetupStretch[] {
  const oldest = checks.at(-1);
  const begin = setAnewMs.at(-1) ?? 0;
  if (!oldest || checks.length < MOST_CHECKS || oldest.at_ms <= begin) return [];
  return [{ setupId: row.setup.id, fromMs: begin, beforeMs: oldest.at_ms }];
}

/** Charts that began before the oldest check at hand are read whole: what is usual is their first fifty. */
async function wholeCharts<T extends ChartFacts>(database: Database, all: readonly T[]): Promise<readonly T[]> {
  const missing = all.flatMap(missingOf);
  if (missing.length === 0) return all;
  const older = await findDailyChecks(database, missing, WHOLE_CHART);
  return all.map((facts) => ({ ...facts, checks: [...facts.checks, ...(older.get(facts.row.setup.id) ?? [])] }));
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
  const { setAnewMs } = momentsOf(oldestFirst(corrections, id), oldestFirst(events, id));
  const own = { row, checks: checks.get(id) ?? [], setAnewMs, policies };
  return (await wholeCharts(database, [own]))[0] ?? own;
}

/** What the trust in each of many setups is worked out from, in few questions to the database. */
export async function trustFacts(database: Database, rows: readonly SetupRow[]): Promise<readonly TrustFacts[]> {
  if (rows.length === 0) return [];
  const found = await foundOf(
    database,
    rows.map((r) => r.setup.id),
  );
  return wholeCharts(
    database,
    rows.map((row) => {
      const { id } = row.setup;
      const confirmed = found.confirmed.filter((c) => c.setupId === id);
      const latest = confirmed[0]?.confirmation;
      const corrections = oldestFirst(found.corrections, id);
      const events = oldestFirst(found.events, id);
      return {
        ...{ row, confirmed, failure: found.failures.find((f) => f.setupId === id) },
        shifts: oldestFirst(found.shifts, id),
        ...{ corrections, events, ...momentsOf(corrections, events) },
        checks: found.checks.get(id) ?? [],
        policies: found.policies.filter((p) => p.setupId === id),
        worthy: found.worthy.filter((j) => j.setupId === id),
        cuts: found.cuts.filter((c) => c.setupId === id),
        load: loadsOf(row, latest?.markSdMm ?? ASSUMED_MARK_SD_MM),
        isMarkSdAssumed: latest?.isMarkSdAssumed ?? true,
      };
    }),
  );
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
