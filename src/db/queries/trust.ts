import 'server-only';
import { and, asc, desc, eq, gt, inArray, sql, type SQL } from 'drizzle-orm';
import type { Session } from '../client';
import { unchangedRows } from '../unchanged-rows';
import { confirmation, historyEntry } from '../schema/correction';
import { fit } from '../schema/calibration';
import { cutRelease, job, lockedLayout } from '../schema/job';
import { material, person } from '../schema/shop';
import { policy } from '../schema/trust';
import type { DailyMethod } from '@/core/trust/daily-method';

/** The latest confirmation of each setup and material, with what was measured; newest first. */
export async function findLatestConfirmed(session: Session, setupIds: readonly string[]) {
  const latest = session
    .selectDistinctOn([historyEntry.setupId, historyEntry.materialId], { id: historyEntry.id })
    .from(historyEntry)
    .where(and(inArray(historyEntry.setupId, [...setupIds]), eq(historyEntry.kind, 'saved')))
    .orderBy(historyEntry.setupId, historyEntry.materialId, desc(historyEntry.seq));
  const rows = await session
    .select({
      ...{ setupId: historyEntry.setupId, materialId: historyEntry.materialId, materialName: material.name },
      ...{ personName: person.name, at: confirmation.at, confirmation },
      // Long rows of numbers are read several times as fast as JSON than as arrays.
      parameters: sql<readonly number[]>`to_json(${fit.parameters})`,
      covariance: sql<readonly number[]>`to_json(${fit.covariance})`,
    })
    .from(historyEntry)
    .innerJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .innerJoin(fit, eq(confirmation.fitId, fit.id))
    .innerJoin(material, eq(historyEntry.materialId, material.id))
    .innerJoin(person, eq(historyEntry.by, person.id))
    .where(inArray(historyEntry.id, latest));
  return rows.sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** Many identities as one parameter: as a list of as many they would have to be written into the question one by one. */
const idList = (ids: readonly string[]): SQL => sql`${sql.param([...ids])}::uuid[]`;
const floats = (numbers: readonly number[]): SQL => sql`${sql.param([...numbers])}::float8[]`;
const milliseconds = (column: string): SQL => sql.raw(`extract(epoch from ${column})::float8 * 1000`);

/** Setups with all that they stand on, as `s`. */
const setupsOf = (ids: readonly string[]): SQL => sql`(select * from setup where id = any(${idList(ids)})) s`;

/** Rows of many setups, by the setup. */
export type BySetup<T> = ReadonlyMap<string, readonly T[]>;

interface Question {
  /** What is asked, in a word. */
  readonly name: string;
  /** Of which setups: they are `s` in what follows. */
  readonly setups: SQL;
  readonly of: SQL;
}

/**
 * The same question for each of many setups. The rows come as one text of JSON for each setup: thousands of small rows cost
 * more on their way than to be found; the same rows as last time are the same object. Moments are told in ms since 1970.
 */
async function perSetup<T>(session: Session, { name, setups, of }: Question): Promise<BySetup<T>> {
  const { rows } = await session.execute<{ id: string; found: string }>(sql`
    select s.id, answer.found::text from ${setups}
    cross join lateral (select json_agg(one) as found from (${of}) one) answer where answer.found is not null`);
  return new Map(rows.map(({ id, found }) => [id, unchangedRows(name, id, found) as readonly T[]]));
}

export interface ConfirmedShift {
  readonly material_id: string;
  readonly at_ms: number;
  readonly across: number;
  readonly along: number;
  readonly variance: number;
}

/** Shifts that confirmations measured, the newest so many of each setup, newest first. */
export const findConfirmedShifts = (session: Session, setupIds: readonly string[], most: number) =>
  perSetup<ConfirmedShift>(session, {
    name: 'shifts',
    setups: setupsOf(setupIds),
    of: sql`select h.material_id, ${milliseconds('c.at')} as at_ms, f.parameters[1] as across, f.parameters[2] as along,
        f.covariance[1] as variance
      from (select material_id, confirmation_id from history_entry where setup_id = s.id and confirmation_id is not null
        order by seq desc limit ${most}) h
      join confirmation c on c.id = h.confirmation_id join fit f on f.id = c.fit_id order by c.at desc`,
  });

export interface SetupMoment {
  readonly at_ms: number;
}

/** When setups were set anew, by corrections that were more than a look: the newest so many of each, newest first. */
export const findCorrectionTimes = (session: Session, setupIds: readonly string[], most: number) =>
  perSetup<SetupMoment>(session, {
    name: 'corrections',
    setups: setupsOf(setupIds),
    of: sql`select ${milliseconds('at')} as at_ms from correction
      where setup_id = s.id and objective <> 'none' order by at desc limit ${most}`,
  });

export interface SetupEvent extends SetupMoment {
  readonly id: string;
  readonly kind: string;
  readonly note: string;
  readonly by: string;
}

/** What a setup stands on, and the setup itself: an event touches one of them. */
const TOUCHED = ['setup_id', 'printer_id', 'cutter_id', 'program_id'] as const;

/**
 * What touched setups through anything they stand on, undone events left out: the newest so many of each, newest first. The
 * newest of each thing are looked for by themselves: nobody has to look at all that ever happened to a machine.
 */
export function findEventTimes(session: Session, setupIds: readonly string[], most: number) {
  const ofOne = TOUCHED.map((target) => {
    const own = sql.raw(`own.${target} = s.${target === 'setup_id' ? 'id' : target}`);
    return sql`(select own.id, own.at, own.kind, own.note, own.by from event own where ${own} and own.kind <> 'undo'
      and not exists (select 1 from event undo where undo.undoes_id = own.id) order by own.at desc limit ${most})`;
  });
  return perSetup<SetupEvent>(session, {
    name: 'events',
    setups: setupsOf(setupIds),
    of: sql`select ${milliseconds('e.at')} as at_ms, e.id, e.kind, e.note, p.name as by
      from (${sql.join(ofOne, sql` union all `)} order by at desc limit ${most}) e join person p on p.id = e.by order by e.at desc`,
  });
}

export interface CheckRow extends SetupMoment {
  readonly id: string;
  readonly material_id: string;
  readonly across: number;
  readonly along: number;
  readonly uncertainty: number;
  readonly method: DailyMethod;
  readonly note: string;
  readonly by: string;
}

/** A setup, and the stretch of time that is asked for: from a moment on, and before another. */
export interface SetupStretch {
  readonly setupId: string;
  readonly fromMs: number;
  readonly beforeMs: number;
}

/** Daily checks of setups that were not taken back, the newest so many of each within its stretch, newest first. */
export const findDailyChecks = (session: Session, setups: readonly SetupStretch[], most: number) =>
  perSetup<CheckRow>(session, {
    name: `${most} checks`,
    setups: sql`unnest(${idList(setups.map((s) => s.setupId))}, ${floats(setups.map((s) => s.fromMs))},
      ${floats(setups.map((s) => s.beforeMs))}) as s(id, from_ms, before_ms)`,
    of: sql`select d.id, d.material_id, ${milliseconds('d.at')} as at_ms, d.across_mm as across, d.along_mm as along,
        d.standard_uncertainty_mm as uncertainty, d.method, d.note, p.name as by
      from (select * from daily_check own where own.setup_id = s.id
        and own.at >= to_timestamp(s.from_ms / 1000) and own.at < to_timestamp(s.before_ms / 1000)
        and not exists (select 1 from daily_check_taken_back t where t.daily_check_id = own.id)
        order by own.at desc limit ${most}) d
      join person p on p.id = d.by order by d.at desc`,
  });

/** Own policies of setups: one for each material that has its own, and one for all others. */
export const findPolicies = (session: Session, setupIds: readonly string[]) =>
  session
    .select()
    .from(policy)
    .where(inArray(policy.setupId, [...setupIds]));

/** When cuts were released on setups since a moment. */
export const findCutTimes = (session: Session, setupIds: readonly string[], since: Date) =>
  session
    .select({ setupId: job.setupId, at: cutRelease.at })
    .from(cutRelease)
    .innerJoin(lockedLayout, eq(cutRelease.lockedLayoutId, lockedLayout.id))
    .innerJoin(job, eq(lockedLayout.jobId, job.id))
    .where(and(inArray(job.setupId, [...setupIds]), gt(cutRelease.at, since)));

/** Jobs of setups that are still to be cut and whose worth was told. */
export const findWorthyJobs = (session: Session, setupIds: readonly string[]) =>
  session
    .select({
      ...{ setupId: job.setupId, materialId: job.materialId, name: job.name },
      worth: sql<number>`(${job.draft} ->> 'worth')::double precision`,
    })
    .from(job)
    .where(
      and(
        inArray(job.setupId, [...setupIds]),
        inArray(job.state, ['draft', 'locked', 'waiting']),
        sql`${job.draft} ->> 'worth' is not null`,
      ),
    )
    .orderBy(asc(job.number));
