import 'server-only';
import { sql, type SQL } from 'drizzle-orm';
import type { Session } from '../client';

/** Things that belong to one shop, by their ids; an absent or null one is passed over. */
export interface Belongings {
  readonly setupId?: string | null;
  readonly calibrationId?: string | null;
  readonly cutSetId?: string | null;
  readonly jobId?: string | null;
  readonly rollId?: string | null;
  readonly settingId?: string | null;
  readonly historyEntryId?: string | null;
  readonly dailyCheckId?: string | null;
  readonly eventId?: string | null;
  readonly materialId?: string | null;
  readonly markSchemeId?: string | null;
  readonly personId?: string | null;
}

/** How the shop of each kind of thing is found from its id. */
const SHOP_OF: Readonly<Record<keyof Belongings, (id: string) => SQL>> = {
  setupId: (id) => sql`select shop_id from setup where id = ${id}`,
  calibrationId: (id) => sql`select s.shop_id from calibration c join setup s on s.id = c.setup_id where c.id = ${id}`,
  cutSetId: (id) => sql`select s.shop_id from cut_set k join calibration_sheet h on h.id = k.calibration_sheet_id
    join calibration c on c.id = h.calibration_id join setup s on s.id = c.setup_id where k.id = ${id}`,
  jobId: (id) => sql`select shop_id from job where id = ${id}`,
  rollId: (id) => sql`select s.shop_id from roll_run r join setup s on s.id = r.setup_id where r.id = ${id}`,
  settingId: (
    id,
  ) => sql`select coalesce(k.shop_id, p.shop_id) from machine_setting m left join cutter k on k.id = m.cutter_id
    left join program p on p.id = m.program_id where m.id = ${id}`,
  historyEntryId: (id) =>
    sql`select s.shop_id from history_entry e join setup s on s.id = e.setup_id where e.id = ${id}`,
  dailyCheckId: (id) => sql`select s.shop_id from daily_check d join setup s on s.id = d.setup_id where d.id = ${id}`,
  eventId: (
    id,
  ) => sql`select coalesce(s.shop_id, i.shop_id, k.shop_id, p.shop_id) from event e left join setup s on s.id = e.setup_id
    left join printer i on i.id = e.printer_id left join cutter k on k.id = e.cutter_id
    left join program p on p.id = e.program_id where e.id = ${id}`,
  materialId: (id) => sql`select shop_id from material where id = ${id}`,
  markSchemeId: (id) => sql`select shop_id from mark_scheme where id = ${id}`,
  personId: (id) => sql`select shop_id from person where id = ${id}`,
};

/** The shop of each thing that is there, asked in one question; what is not there is left out. */
export async function findShopsOf(
  session: Session,
  things: Belongings,
): Promise<ReadonlyMap<keyof Belongings, string>> {
  const named = (Object.keys(SHOP_OF) as (keyof Belongings)[]).flatMap((kind) => {
    const id = things[kind];
    return id === undefined || id === null
      ? []
      : [sql`select ${kind}::text as kind, (${SHOP_OF[kind](id)}) as shop_id`];
  });
  if (named.length === 0) return new Map();
  const { rows } = await session.execute<{ kind: keyof Belongings; shop_id: string | null }>(
    sql.join(named, sql` union all `),
  );
  return new Map(rows.flatMap((r) => (r.shop_id === null ? [] : [[r.kind, r.shop_id]])));
}
