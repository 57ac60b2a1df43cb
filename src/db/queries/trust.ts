import 'server-only';
import { and, asc, eq, gt, inArray, sql, type SQL } from 'drizzle-orm';
import { LIMIT_CHANGED } from '@/core/trust/event-kinds';
import type { Session } from '../client';
import { keepRows, keptRows } from '../kept-rows';
import { cutRelease, job, lockedLayout } from '../schema/job';
import { policy } from '../schema/trust';
import type { DailyMethod } from '@/core/trust/daily-method';

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
  /** Which rows of a setup, each with its `id`: of tables that are only ever added to. */
  readonly newest: SQL;
  /** What is told of each of them, which is `n`; of nothing that can change. */
  readonly told: SQL;
  /** What else it stands in. */
  readonly joined?: SQL;
}

const MARK = sql`md5(string_agg(one.id::text, '' order by one.id)) as mark`;

/**
 * The same question for each of many setups. First only which rows it is; those of setups that are the same as last time are at
 * hand already, and are the same object. The others come as one text of JSON for each setup: thousands of small rows cost
 * more on their way than to be found. Newest first; moments are told in ms since 1970.
 */
async function perSetup<T extends SetupMoment>(session: Session, question: Question): Promise<BySetup<T>> {
  const { name, setups, newest, told, joined = sql`` } = question;
  const { rows: marks } = await session.execute<{ id: string; mark: string }>(sql`
    select s.id, answer.mark from ${setups}
    cross join lateral (select ${MARK} from (${newest}) one) answer where answer.mark is not null`);
  const found = new Map<string, readonly T[]>();
  for (const { id, mark } of marks) {
    const known = keptRows(`${name} ${id}`, mark);
    if (known) found.set(id, known as readonly T[]);
  }
  const asked = marks.map((m) => m.id).filter((id) => !found.has(id));
  if (asked.length === 0) return found;
  const { rows } = await session.execute<{ id: string; mark: string; rows: readonly T[] }>(sql`
    select s.id, answer.mark, answer.rows from (select * from ${setups} where s.id = any(${idList(asked)})) s
    cross join lateral (select ${MARK}, json_agg(one order by at_ms desc) as rows
      from (select n.id, ${told} from (${newest}) n ${joined}) one) answer where answer.mark is not null`);
  for (const { id, mark, rows: own } of rows) found.set(id, keepRows(`${name} ${id}`, mark, own) as readonly T[]);
  return found;
}

export interface SetupMoment {
  readonly id: string;
  readonly at_ms: number;
}

export interface ConfirmedRow extends SetupMoment {
  readonly material_id: string;
  readonly by_id: string;
  readonly worst: number;
  readonly upper: number;
  /** Worst corner of the next job, and the share that comes out wrong, as they were then; null where nobody knew. */
  readonly next_job: number;
  readonly next_out_share: number | null;
  readonly mark_sd: number | null;
  readonly is_mark_sd_assumed: boolean;
  readonly parameters: readonly number[];
  readonly covariance: readonly number[];
}

/** The latest confirmation of each setup and material, with what was measured; newest first. */
export const findLatestConfirmed = (session: Session, setupIds: readonly string[]) =>
  perSetup<ConfirmedRow>(session, {
    name: 'confirmed',
    setups: setupsOf(setupIds),
    newest: sql`select latest.* from material m cross join lateral (
        select confirmation_id as id, h.material_id, h.by as by_id from history_entry h
        where h.setup_id = s.id and h.material_id = m.id and h.confirmation_id is not null order by h.seq desc limit 1) latest
      where m.shop_id = s.shop_id`,
    told: sql`n.material_id, n.by_id, ${milliseconds('c.at')} as at_ms, c.worst_mm as worst, c.upper_mm as upper,
      c.next_job_mm as next_job, c.next_out_share, c.mark_sd_mm as mark_sd, c.is_mark_sd_assumed, f.parameters, f.covariance`,
    joined: sql`join confirmation c on c.id = n.id join fit f on f.id = c.fit_id`,
  });

/** What the materials and the people of these setups' shops are called now, by their identity. */
export async function findNames(session: Session, setupIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const shops = sql`(select shop_id from setup where id = any(${idList(setupIds)}))`;
  const { rows } = await session.execute<{ id: string; name: string }>(sql`
    select id, name from material where shop_id in ${shops} union all select id, name from person where shop_id in ${shops}`);
  return new Map(rows.map(({ id, name }) => [id, name]));
}

export interface ConfirmedShift extends SetupMoment {
  readonly material_id: string;
  readonly across: number;
  readonly along: number;
  readonly variance: number;
}

/** Shifts that confirmations measured, the newest so many of each setup. */
export const findConfirmedShifts = (session: Session, setupIds: readonly string[], most: number) =>
  perSetup<ConfirmedShift>(session, {
    name: 'shifts',
    setups: setupsOf(setupIds),
    newest: sql`select confirmation_id as id, material_id from history_entry
      where setup_id = s.id and confirmation_id is not null order by seq desc limit ${most}`,
    told: sql`n.material_id, ${milliseconds('c.at')} as at_ms, f.parameters[1] as across, f.parameters[2] as along,
      f.covariance[1] as variance`,
    joined: sql`join confirmation c on c.id = n.id join fit f on f.id = c.fit_id`,
  });

/** When setups were set anew, by corrections that were more than a look: the newest so many of each. */
export const findCorrectionTimes = (session: Session, setupIds: readonly string[], most: number) =>
  perSetup<SetupMoment>(session, {
    name: 'corrections',
    setups: setupsOf(setupIds),
    newest: sql`select id, at from correction where setup_id = s.id and objective <> 'none' order by at desc limit ${most}`,
    told: sql`${milliseconds('n.at')} as at_ms`,
  });

export interface SetupEvent extends SetupMoment {
  readonly kind: string;
  readonly note: string;
}

/** What a setup stands on, and the setup itself: an event touches one of them. */
const TOUCHED = ['setup_id', 'printer_id', 'cutter_id', 'program_id'] as const;

/**
 * What touched setups through anything they stand on, undone events left out: the newest so many of each. The newest of each
 * thing are looked for by themselves: nobody has to look at all that ever happened to a machine.
 */
export function findEventTimes(session: Session, setupIds: readonly string[], most: number) {
  const ofOne = TOUCHED.map((target) => {
    const own = sql.raw(`own.${target} = s.${target === 'setup_id' ? 'id' : target}`);
    return sql`(select own.id, own.at, own.kind, own.note from event own where ${own} and own.kind not in ('undo', ${sql.raw(`'${LIMIT_CHANGED}'`)})
      and not exists (select 1 from event undo where undo.undoes_id = own.id) order by own.at desc limit ${most})`;
  });
  return perSetup<SetupEvent>(session, {
    name: 'events',
    setups: setupsOf(setupIds),
    newest: sql`${sql.join(ofOne, sql` union all `)} order by at desc limit ${most}`,
    told: sql`${milliseconds('n.at')} as at_ms, n.kind, n.note`,
  });
}

export interface CheckRow extends SetupMoment {
  readonly material_id: string;
  readonly across: number;
  readonly along: number;
  readonly uncertainty: number;
}

/** A setup, and the stretch of time that is asked for: from a moment on, and before another. */
export interface SetupStretch {
  readonly setupId: string;
  readonly fromMs: number;
  readonly beforeMs: number;
}

/** Daily checks of setups that were not taken back, the newest so many of each within its stretch. */
export const findDailyChecks = (session: Session, setups: readonly SetupStretch[], most: number) =>
  perSetup<CheckRow>(session, {
    name: `${most} checks`,
    setups: sql`unnest(${idList(setups.map((s) => s.setupId))}, ${floats(setups.map((s) => s.fromMs))},
      ${floats(setups.map((s) => s.beforeMs))}) as s(id, from_ms, before_ms)`,
    newest: sql`select * from daily_check own where own.setup_id = s.id
      and own.at >= to_timestamp(s.from_ms / 1000) and own.at < to_timestamp(s.before_ms / 1000)
      and not exists (select 1 from daily_check_taken_back t where t.daily_check_id = own.id)
      order by own.at desc limit ${most}`,
    told: sql`n.material_id, ${milliseconds('n.at')} as at_ms, n.across_mm as across, n.along_mm as along,
      n.standard_uncertainty_mm as uncertainty`,
  });

/** How daily checks were measured, and by whom. */
export async function findCheckMakers(session: Session, ids: readonly string[]) {
  const { rows } = await session.execute<{ id: string; method: DailyMethod; note: string; by: string }>(sql`
    select d.id, d.method, d.note, p.name as by from daily_check d join person p on p.id = d.by
    where d.id = any(${idList(ids)})`);
  return new Map(rows.map((r) => [r.id, r]));
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
        // As a word of the question itself, so that the index of open jobs is known to hold them.
        sql`${job.state} in ('draft', 'locked', 'waiting')`,
        sql`${job.draft} ->> 'worth' is not null`,
      ),
    )
    .orderBy(asc(job.number));
