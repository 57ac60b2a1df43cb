import 'server-only';
import { and, asc, desc, eq, gt, inArray, sql, type SQL } from 'drizzle-orm';
import type { Session } from '../client';
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
      ...{ parameters: fit.parameters, covariance: fit.covariance },
    })
    .from(historyEntry)
    .innerJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .innerJoin(fit, eq(confirmation.fitId, fit.id))
    .innerJoin(material, eq(historyEntry.materialId, material.id))
    .innerJoin(person, eq(historyEntry.by, person.id))
    .where(inArray(historyEntry.id, latest));
  return rows.sort((a, b) => b.at.getTime() - a.at.getTime());
}

const idList = (ids: readonly string[]): SQL =>
  sql`array[${sql.join(
    ids.map((id) => sql`${id}::uuid`),
    sql`, `,
  )}]`;
const milliseconds = (column: string): SQL => sql.raw(`extract(epoch from ${column})::float8 * 1000`);

export interface ConfirmedShift extends Record<string, unknown> {
  readonly setup_id: string;
  readonly material_id: string;
  readonly at_ms: number;
  readonly across: number;
  readonly along: number;
  readonly variance: number;
}

/** Shifts that confirmations measured, the newest so many of each setup, oldest first. */
export async function findConfirmedShifts(session: Session, setupIds: readonly string[], most: number) {
  const { rows } = await session.execute<ConfirmedShift>(sql`
    select s.id as setup_id, h.material_id, ${milliseconds('c.at')} as at_ms,
      f.parameters[1] as across, f.parameters[2] as along, f.covariance[1] as variance
    from unnest(${idList(setupIds)}) as s(id)
    cross join lateral (select material_id, confirmation_id from history_entry
      where setup_id = s.id and confirmation_id is not null order by seq desc limit ${most}) h
    join confirmation c on c.id = h.confirmation_id join fit f on f.id = c.fit_id order by c.at`);
  return rows;
}

export interface SetupMoment extends Record<string, unknown> {
  readonly setup_id: string;
  readonly at_ms: number;
}

/** When setups were set anew, by corrections that were more than a look: the newest so many of each, oldest first. */
export async function findCorrectionTimes(session: Session, setupIds: readonly string[], most: number) {
  const { rows } = await session.execute<SetupMoment>(sql`
    select s.id as setup_id, ${milliseconds('c.at')} as at_ms from unnest(${idList(setupIds)}) as s(id)
    cross join lateral (select at from correction where setup_id = s.id and objective <> 'none' order by at desc limit ${most}) c
    order by c.at`);
  return rows;
}

export interface SetupEvent extends SetupMoment {
  readonly id: string;
  readonly kind: string;
  readonly note: string;
  readonly by: string;
}

/** What touched setups through anything they stand on, undone events left out: the newest so many of each, oldest first. */
export async function findEventTimes(session: Session, setupIds: readonly string[], most: number) {
  const { rows } = await session.execute<SetupEvent>(sql`
    select s.id as setup_id, ${milliseconds('e.at')} as at_ms, e.id, e.kind, e.note, p.name as by from setup s
    cross join lateral (select own.id, at, kind, note, by from event own where (own.setup_id = s.id or own.cutter_id = s.cutter_id
        or own.printer_id = s.printer_id or own.program_id = s.program_id) and own.kind <> 'undo'
        and not exists (select 1 from event undo where undo.undoes_id = own.id) order by own.at desc limit ${most}) e
    join person p on p.id = e.by
    where s.id = any(${idList(setupIds)}) order by e.at`);
  return rows;
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

/** Daily checks of setups that were not taken back, the newest so many of each since a moment, newest first. */
export async function findDailyChecks(
  session: Session,
  setupIds: readonly string[],
  most: number,
  since: Date = new Date(0),
) {
  const { rows } = await session.execute<CheckRow>(sql`
    select s.id as setup_id, d.id, d.material_id, ${milliseconds('d.at')} as at_ms, d.across_mm as across, d.along_mm as along,
      d.standard_uncertainty_mm as uncertainty, d.method, d.note, p.name as by
    from unnest(${idList(setupIds)}) as s(id)
    cross join lateral (select * from daily_check own where own.setup_id = s.id and own.at >= ${since.toISOString()}::timestamptz
        and not exists (select 1 from daily_check_taken_back t where t.daily_check_id = own.id) order by own.at desc limit ${most}) d
    join person p on p.id = d.by order by d.at desc`);
  return rows;
}

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
