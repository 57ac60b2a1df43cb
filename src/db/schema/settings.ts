import { sql } from 'drizzle-orm';
import { check, doublePrecision, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { ACTS_ON, SCALES_OFFSET, SETTING_KINDS, SETTING_UNITS } from '@/core/setting/machine-setting';
import { id, instant, measured, version } from './columns';
import { MARK_USES } from '@/core/shop/words';
import { calibration } from './calibration';
import { cutter, program } from './machines';
import { person } from './shop';

/** One control of a cutter or of a program, as it really is. */
export const machineSetting = pgTable(
  'machine_setting',
  {
    id: id(),
    cutterId: uuid().references(() => cutter.id),
    programId: uuid().references(() => program.id),
    position: integer().notNull(),
    displayName: text().notNull(),
    /** typed: keyed in. wizard: a line is chosen and the value stays hidden. after_test_print: only right after the machine's own test. */
    kind: text({ enum: SETTING_KINDS }).notNull().default('typed'),
    actsOn: text({ enum: ACTS_ON }).notNull(),
    unit: text({ enum: SETTING_UNITS }).notNull(),
    /** Only when the unit is a machine's own step, or a nominal length of a nominal/measured pair. */
    unitSize: doublePrecision(),
    step: measured(),
    minValue: measured(),
    maxValue: measured(),
    /** Absent until learned. */
    sense: integer(),
    gain: measured(),
    entry: text({ enum: ['new_value', 'change'] }).notNull(),
    combine: text({ enum: ['replaces', 'adds'] }).notNull(),
    pivot: text({ enum: ['centre', 'first_mark'] }).notNull(),
    scalesOffset: text({ enum: SCALES_OFFSET }).notNull().default('unknown'),
    /** "Press this", and what not to press; empty when nothing need be said. */
    pressThis: text().notNull().default(''),
    notThat: text().notNull().default(''),
    version: version(),
  },
  (t) => [
    unique('machine_setting_name').on(t.cutterId, t.displayName),
    check('machine_setting_owner', sql`num_nonnulls(${t.cutterId}, ${t.programId}) = 1`),
    check('machine_setting_step', sql`${t.step} > 0`),
    check('machine_setting_range', sql`${t.minValue} < ${t.maxValue}`),
    check('machine_setting_sense', sql`${t.sense} in (-1, 1)`),
    check('machine_setting_unit', sql`(${t.unit} in ('step', 'nominal_measured')) = (${t.unitSize} is not null)`),
  ],
);

/** Append-only: direction and strength of a setting, learned from two cuts in one load. */
export const whichWayTest = pgTable(
  'which_way_test',
  {
    id: id(),
    machineSettingId: uuid()
      .notNull()
      .references(() => machineSetting.id),
    change: measured(),
    measuredAcrossMm: measured(),
    measuredAlongMm: measured(),
    standardUncertaintyMm: measured(),
    /** Absent when the move was too small to tell. */
    sense: integer(),
    gain: doublePrecision(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    check('which_way_change', sql`${t.change} <> 0`),
    check('which_way_sense', sql`${t.sense} in (-1, 1)`),
    check('which_way_uncertainty', sql`${t.standardUncertaintyMm} > 0`),
  ],
);

/** What a cutter was found to use its marks for, by a sheet whose marks alone were moved. Append-only. */
export const markUseTest = pgTable('mark_use_test', {
  id: id(),
  cutterId: uuid()
    .notNull()
    .references(() => cutter.id),
  calibrationId: uuid()
    .notNull()
    .references(() => calibration.id),
  markUse: text({ enum: MARK_USES }).notNull(),
  at: instant(),
  by: uuid()
    .notNull()
    .references(() => person.id),
});

/** Append-only: the present value is the one of the highest seq. */
export const settingValue = pgTable(
  'setting_value',
  {
    id: id(),
    machineSettingId: uuid()
      .notNull()
      .references(() => machineSetting.id),
    seq: integer().notNull(),
    value: measured(),
    source: text({ enum: ['typed', 'correction', 'put_back'] }).notNull(),
    correctionId: uuid(),
    setAt: instant(),
    setBy: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [unique('setting_value_seq').on(t.machineSettingId, t.seq)],
);
