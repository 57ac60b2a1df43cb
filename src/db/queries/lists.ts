import 'server-only';
import { sql, type SQL } from 'drizzle-orm';
import type { ListName } from '@/contracts/lists';
import type { Session } from '../client';

/** The newest so many lines of a list; the archive of the shop holds all. */
export const MOST_LISTED = 200_000;

const UTC = (column: string): SQL => sql.raw(`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`);

/** One question for each list: its columns are named as they stand in the file's head, with their units. */
const QUESTIONS: Readonly<Record<ListName, (shopId: string) => SQL>> = {
  setups: (shop) => sql`
    select s.name, p.name as printer, pm.name as "print mode", pr.name as program, c.name as cutter, s.tool, s.carrier,
      s.route, s.family, s.tolerance_mm as "allowed mm", s.note, s.id
    from setup s join printer p on p.id = s.printer_id join print_mode pm on pm.id = s.print_mode_id
      join cutter c on c.id = s.cutter_id left join program pr on pr.id = s.program_id
    where s.shop_id = ${shop} order by s.name`,
  settings: (shop) => sql`
    select coalesce(c.name, p.name) as owner, m.display_name as setting, m.acts_on as "acts on", v.value, m.unit,
      m.unit_size as "size of its unit", m.step, m.min_value as least, m.max_value as most, m.sense, m.gain,
      ${UTC('v.set_at')} as "set at", m.id
    from machine_setting m left join cutter c on c.id = m.cutter_id left join program p on p.id = m.program_id
      left join lateral (select value, set_at from setting_value where machine_setting_id = m.id order by seq desc limit 1) v on true
    where coalesce(c.shop_id, p.shop_id) = ${shop} order by 1, m.position`,
  materials: (shop) => sql`
    select name, finish, form, width_mm as "width mm", printable_width_mm as "printable width mm",
      thickness_mm as "thickness mm", colour, transparency, carrier, drying_hours as "drying h", cost, id
    from material where shop_id = ${shop} order by name`,
  people: (shop) => sql`
    select name, unit_system as "units", time_zone as "time zone", ${UTC('archived_at')} as "left at", id
    from person where shop_id = ${shop} order by name`,
  calibrations: (shop) => sql`
    select ${UTC('k.started_at')} as "started at", ${UTC('k.ended_at')} as "ended at", s.name as "printer + cutter",
      m.name as material, k.kind, k.route, k.state, k.tolerance_mm as "allowed mm", p.name as by, k.id
    from calibration k join setup s on s.id = k.setup_id join material m on m.id = k.material_id
      join person p on p.id = k.started_by
    where s.shop_id = ${shop} order by k.started_at desc limit ${MOST_LISTED}`,
  readings: (shop) => sql`
    select ${UTC('r.read_at')} as "read at", s.name as "printer + cutter", cs.set_no as "cut", cs.load_no as "load",
      cs.purpose, r.spot_no as spot, r.axis, r.method, r.repeat_no as look, r.state, r.reading_mm as "reading mm",
      r.displacement_mm as "displacement mm", r.standard_uncertainty_mm as "standard uncertainty mm", p.name as by,
      sh.calibration_id as calibration, r.id
    from reading r join cut_set cs on cs.id = r.cut_set_id join calibration_sheet sh on sh.id = cs.calibration_sheet_id
      join calibration k on k.id = sh.calibration_id join setup s on s.id = k.setup_id join person p on p.id = r.read_by
    where s.shop_id = ${shop} and not exists (select 1 from reading later where later.supersedes_id = r.id)
    order by r.read_at desc limit ${MOST_LISTED}`,
  events: (shop) => sql`
    select ${UTC('e.at')} as at, coalesce(s.name, pr.name, c.name, pg.name) as "what it happened to", e.kind, e.note,
      p.name as by, e.undoes_id as "takes back", e.id
    from event e left join setup s on s.id = e.setup_id left join printer pr on pr.id = e.printer_id
      left join cutter c on c.id = e.cutter_id left join program pg on pg.id = e.program_id join person p on p.id = e.by
    where coalesce(s.shop_id, pr.shop_id, c.shop_id, pg.shop_id) = ${shop} order by e.at desc limit ${MOST_LISTED}`,
  'daily-checks': (shop) => sql`
    select ${UTC('d.at')} as at, s.name as "printer + cutter", m.name as material, d.method, d.side, d.left_mm as "left mm",
      d.right_mm as "right mm", d.top_mm as "top mm", d.bottom_mm as "bottom mm", d.across_mm as "across mm",
      d.along_mm as "along mm", d.standard_uncertainty_mm as "standard uncertainty mm", d.note, p.name as by,
      ${UTC('b.at')} as "taken back at", d.id
    from daily_check d join setup s on s.id = d.setup_id join material m on m.id = d.material_id join person p on p.id = d.by
      left join daily_check_taken_back b on b.daily_check_id = d.id
    where s.shop_id = ${shop} order by d.at desc limit ${MOST_LISTED}`,
  'test-cuts': (shop) => sql`
    select ${UTC('t.at')} as at, c.name as cutter, m.name as material, t.stack, t.force, t.force_unit as "force in",
      t.depth, t.speed, t.passes, t.outcome, t.note, p.name as by, t.id
    from test_cut t join cutter c on c.id = t.cutter_id join material m on m.id = t.material_id join person p on p.id = t.by
    where c.shop_id = ${shop} order by t.at desc limit ${MOST_LISTED}`,
  'mark-readings': (shop) => sql`
    select ${UTC('r.at')} as at, s.name as "printer + cutter", m.name as material, r.finish, r.carrier, r.light,
      r.inset_mm as "inset mm", r.was_read as "was read", p.name as by, r.id
    from mark_reading r join setup s on s.id = r.setup_id join material m on m.id = r.material_id join person p on p.id = r.by
    where s.shop_id = ${shop} order by r.at desc limit ${MOST_LISTED}`,
  'roll-readings': (shop) => sql`
    select ${UTC('r.read_at')} as "read at", s.name as "printer + cutter", m.name as material, q.kind, r.station_no as station,
      (r.station_no - 1) * q.spacing_mm as "along the roll mm", r.side, r.axis, r.method, r.state,
      r.displacement_mm as "displacement mm", p.name as by, q.id as roll, r.id
    from station_reading r join roll_run q on q.id = r.roll_run_id join setup s on s.id = q.setup_id
      join material m on m.id = q.material_id join person p on p.id = r.read_by
    where s.shop_id = ${shop} and not exists (select 1 from station_reading later where later.supersedes_id = r.id)
    order by r.read_at desc limit ${MOST_LISTED}`,
  jobs: (shop) => sql`
    select j.number, j.name, s.name as "printer + cutter", m.name as material, j.state,
      ${UTC('j.started_at')} as "started at", ${UTC('jp.printed_at')} as "printed at", ${UTC('jp.dry_at')} as "dry at",
      jp.sheets, (j.draft ->> 'worth')::double precision as worth, j.archived_reason as "put away because", j.id
    from job j join setup s on s.id = j.setup_id join material m on m.id = j.material_id
      left join locked_layout l on l.job_id = j.id left join job_print jp on jp.locked_layout_id = l.id
    where j.shop_id = ${shop} order by j.number desc limit ${MOST_LISTED}`,
  results: (shop) => sql`
    select ${UTC('r.at')} as at, j.number as job, j.name, s.name as "printer + cutter", m.name as material, r.good, r.spoiled,
      r.spoiled_cost as "cost of the spoiled", r.note, p.name as by, r.seq as "told the nth time", r.id
    from job_result r join job j on j.id = r.job_id join setup s on s.id = j.setup_id join material m on m.id = j.material_id
      join person p on p.id = r.by
    where j.shop_id = ${shop} order by r.at desc limit ${MOST_LISTED}`,
};

export type ListCell = string | number | boolean | null;

/** A list of one shop as it is given out: rows by the names in its head. */
export async function findList(session: Session, what: ListName, shopId: string) {
  const { rows, fields } = await session.execute<Record<string, ListCell>>(QUESTIONS[what](shopId));
  return { head: fields.map((f) => f.name), rows };
}
