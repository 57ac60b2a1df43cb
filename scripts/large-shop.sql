-- A shop of ten years: :setups setups, :per calibrations each, a hundred readings a calibration, two jobs for each of them. All of it made up, and the same
-- every time. scripts/large-shop.ts fills in the numbers and a check sheet, and runs it.
begin;
-- Made-up checks come with their end.
set local red_plumb.fills = 'on';
create function pg_temp.key(words text) returns uuid language sql immutable as $$ select overlay(overlay(md5('large ' || words) placing '4' from 13) placing '8' from 17)::uuid $$;
-- A number of about one SD from its words: the sum of twelve even ones less six.
create function pg_temp.noise(words text) returns double precision language sql immutable as $$
  select sum(('x' || substr(md5(words || i), 1, 8))::bit(32)::bigint & 65535) / 65536.0 - 6 from generate_series(1, 12) i
$$;
insert into shop (id, name, is_demo, default_tolerance_mm, made_at) values (pg_temp.key('shop'), 'Ten years by the river', false, .3, now() - interval '10 years');
insert into person (id, shop_id, name, unit_system) values (pg_temp.key('person'), pg_temp.key('shop'), 'Pell', 'mm');
insert into material (id, shop_id, name, finish) select pg_temp.key('material ' || m), pg_temp.key('shop'), 'Film ' || m, 'matt' from generate_series(1, 3) m;
insert into printer (id, shop_id, name, dot_pitch_mm) values (pg_temp.key('printer'), pg_temp.key('shop'), 'Mill printer', .0212);
insert into print_mode (id, printer_id, name, page, page_width_mm, page_length_mm) values (pg_temp.key('mode'), pg_temp.key('printer'), 'best', 'A4', 210, 297);
insert into cutter (id, shop_id, name, file_format, file_across, file_along, feeds)
  select pg_temp.key('cutter ' || s), pg_temp.key('shop'), 'Cutter ' || s, 'hpgl', '+x', '+y', 'away' from generate_series(1, :setups) s;
insert into setup (id, shop_id, family, name, printer_id, print_mode_id, cutter_id, tool, carrier, route, tolerance_mm)
  select pg_temp.key('setup ' || s), pg_temp.key('shop'), 'F1', 'Setup ' || lpad(s::text, 2, '0'), pg_temp.key('printer'), pg_temp.key('mode'), pg_temp.key('cutter ' || s), 'knife', 'mat', 'D', .3
  from generate_series(1, :setups) s;
insert into sheet_definition (id, code, content, content_sha256, generator_version)
  values (pg_temp.key('sheet'), 'LARGE-1', :sheet, sha256(convert_to(:sheet, 'UTF8')), 1);

create temp table work on commit drop as
  select s, c, pg_temp.key('calibration ' || s || ' ' || c) as id, pg_temp.key('setup ' || s) as setup_id,
    pg_temp.key('material ' || (1 + c % 3)) as material_id,
    now() - interval '10 years' + (interval '10 years' * (c - .5 + s / 100.0) / (:per + 1)) as at
  from generate_series(1, :setups) s, generate_series(1, :per) c;
insert into calibration (id, setup_id, material_id, sheet_definition_id, route, kind, step, state, tolerance_mm, started_at, started_by, ended_at)
  select id, setup_id, material_id, pg_temp.key('sheet'), 'D', 'full', 'save', 'saved', .3, at - interval '1 hour', pg_temp.key('person'), at from work;
insert into calibration_sheet (id, calibration_id, sheet_definition_id, sheet_no, code, word_shift)
  select pg_temp.key('page ' || s || ' ' || c || ' ' || n), id, pg_temp.key('sheet'), n, upper(left(md5('page ' || s || ' ' || c || ' ' || n), 6)), (c * 3 + n) % 84 from work, generate_series(1, 3) n;
insert into cut_set (id, calibration_sheet_id, set_no, attempt_no, load_no, turn_deg, face, purpose, file_shift_x_mm, file_shift_y_mm, left_out, settings_snapshot, outcome, cut_at, cut_by)
  select pg_temp.key('set ' || s || ' ' || c || ' ' || k), pg_temp.key('page ' || s || ' ' || c || ' ' || (1 + k / 2)), 1 + k % 2, 1, 1 + k, 0, 'ink-up',
    case when k < 3 then 'measure' else 'confirm' end, 0, 0, '{}', '{}', 'done', at - interval '50 minutes' + k * interval '5 minutes', pg_temp.key('person')
  from work, generate_series(0, 4) k;
insert into reading (id, cut_set_id, spot_no, axis, method, repeat_no, seq, state, reading_mm, displacement_mm, standard_uncertainty_mm, raw, read_at, read_by)
  select overlay(overlay(md5('reading ' || s || ' ' || c || ' ' || k || ' ' || n) placing '4' from 13) placing '8' from 17)::uuid, pg_temp.key('set ' || s || ' ' || c || ' ' || k), 1 + n / 2, case n % 2 when 0 then 'across' else 'along' end,
    'wedge', 1, 1, 'read', .1, .1, .05, '{}', at - interval '45 minutes', pg_temp.key('person')
  from work, generate_series(0, 4) k, generate_series(0, 19) n;
-- Found somewhat out, left nearly right.
insert into fit (id, calibration_id, model, parameters, covariance, degrees_of_freedom, worst_mm, worst_bound_mm, core_version, at)
  select pg_temp.key(state || ' ' || s || ' ' || c), id, 'affine',
    array[size * pg_temp.noise('x' || s || state || c), size * pg_temp.noise('y' || s || state || c), size * .004 * pg_temp.noise('a' || s || state || c),
      size * .003 * pg_temp.noise('b' || s || state || c), size * .003 * pg_temp.noise('c' || s || state || c), size * .004 * pg_temp.noise('d' || s || state || c)],
    (select array_agg(case when i = j then case when i < 2 then 1e-4 else 1e-8 end else 0 end order by i, j) from generate_series(0, 5) i, generate_series(0, 5) j),
    12, .1, .2, 1, at
  from work, (values ('found', .15), ('left', .03)) as state(state, size);
insert into load_map (fit_id, load_no, parameters, covariance, marks, load_model)
  select pg_temp.key('left ' || s || ' ' || c), n, array[.03 * pg_temp.noise('l' || s || c || n), .03 * pg_temp.noise('m' || s || c || n), 0, 0, 0, 0],
    (select array_agg(case when i = j then case when i < 2 then 1e-4 else 1e-8 end else 0 end order by i, j) from generate_series(0, 5) i, generate_series(0, 5) j),
    array[-86, -129.5, 86, -129.5, 86, 129.5, -86, 129.5], 'affine'
  from work, generate_series(1, 2) n;
insert into fit_reading (fit_id, reading_id, used, residual_mm)
  select pg_temp.key(case when k < 3 then 'found ' else 'left ' end || s || ' ' || c), overlay(overlay(md5('reading ' || s || ' ' || c || ' ' || k || ' ' || n) placing '4' from 13) placing '8' from 17)::uuid, true, .01
  from work, generate_series(0, 4) k, generate_series(0, 19) n;
insert into correction (id, setup_id, material_id, calibration_id, fit_id, objective, predicted_leftover_mm, at, by)
  select pg_temp.key('correction ' || s || ' ' || c), setup_id, material_id, id, pg_temp.key('found ' || s || ' ' || c), 'fine', .03, at - interval '30 minutes', pg_temp.key('person') from work;
insert into confirmation (id, correction_id, fit_id, lower_mm, upper_mm, worst_mm, next_job_mm, tolerance_mm, confidence, mark_sd_mm, is_mark_sd_assumed, next_out_share, verdict, at, by)
  select pg_temp.key('confirmation ' || s || ' ' || c), pg_temp.key('correction ' || s || ' ' || c), pg_temp.key('left ' || s || ' ' || c), 0, .2, .1, .22, .3, .95, .04, false, .01, 'pass', at, pg_temp.key('person') from work;
insert into history_entry (id, setup_id, material_id, kind, confirmation_id, note, at, by)
  select pg_temp.key('entry ' || s || ' ' || c), setup_id, material_id, 'saved', pg_temp.key('confirmation ' || s || ' ' || c), '', at, pg_temp.key('person') from work order by at;
insert into event (id, cutter_id, kind, note, at, by)
  select pg_temp.key('event ' || s || ' ' || e), pg_temp.key('cutter ' || s), (array['new_blade', 'moved', 'power_cut', 'rollers', 'firmware'])[1 + e % 5], '',
    now() - interval '10 years' * e / :per, pg_temp.key('person')
  from generate_series(1, :setups) s, generate_series(1, :per) e;
insert into daily_check (id, setup_id, material_id, side, left_mm, right_mm, top_mm, bottom_mm, border_sd_mm, across_mm, along_mm, standard_uncertainty_mm, note, at, by)
  select pg_temp.key('daily ' || s || ' ' || d), pg_temp.key('setup ' || s), pg_temp.key('material ' || (1 + d % 3)), 'outside', 3, 3, 3, 3, .07,
    .05 * pg_temp.noise('dx' || s || ' ' || d), .05 * pg_temp.noise('dy' || s || ' ' || d), .05, '', now() - interval '10 years' * d / (10 * :per), pg_temp.key('person')
  from generate_series(1, :setups) s, generate_series(1, 10 * :per) d;
-- Cut, but for the newest of each printer + cutter, which waits, and one of a hundred, which was put away.
create temp table work_done on commit drop as
  select s, j, pg_temp.key('job ' || s || ' ' || j) as id, pg_temp.key('layout ' || s || ' ' || j) as layout_id,
    case when j = 2 * :per then 'waiting' when j % 100 = 0 then 'archived' else 'cut' end as state,
    now() - interval '10 years' + (interval '10 years' * (j - .5 + s / 100.0) / (2 * :per + 1)) as at
  from generate_series(1, :setups) s, generate_series(1, 2 * :per) j;
insert into job (id, shop_id, number, name, setup_id, material_id, state, draft, archived_reason, archived_state, started_at, started_by)
  select id, pg_temp.key('shop'), row_number() over (order by at), 'Discs ' || j, pg_temp.key('setup ' || s), pg_temp.key('material ' || (1 + j % 3)), state, :draft,
    case state when 'archived' then 'not wanted' end, case state when 'archived' then 'cut' end, at - interval '2 hours', pg_temp.key('person') from work_done;
insert into locked_layout (id, job_id, content, content_sha256, settings_snapshot, material_version, warnings, at, by)
  select layout_id, id, :layout, sha256(convert_to(:layout, 'UTF8')), '{}', 1, '{}', at - interval '1 hour', pg_temp.key('person') from work_done;
insert into job_print (id, locked_layout_id, printed_at, sheets, by)
  select pg_temp.key('print ' || s || ' ' || j), layout_id, at - interval '30 minutes', 3, pg_temp.key('person') from work_done;
insert into cut_release (id, locked_layout_id, changes, at, by)
  select pg_temp.key('release ' || s || ' ' || j), layout_id, '{}', at - interval '10 minutes', pg_temp.key('person') from work_done where state <> 'waiting';
insert into job_result (id, job_id, seq, good, spoiled, spoiled_cost, note, at, by)
  select pg_temp.key('result ' || s || ' ' || j), id, 1, 60 - j % 7, j % 7, (j % 7) * .4, '', at, pg_temp.key('person') from work_done where state <> 'waiting';
commit;
analyze;
