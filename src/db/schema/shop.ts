import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  doublePrecision,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { id, instant, measured, version } from './columns';

export const person = pgTable(
  'person',
  {
    id: id(),
    name: text().notNull(),
    unitSystem: text({ enum: ['mm', 'in-decimal', 'in-fraction'] }).notNull(),
    /** Set when the person has left: old entries keep the name. */
    archivedAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    uniqueIndex('person_name')
      .on(sql`lower(${t.name})`)
      .where(sql`${t.archivedAt} is null`),
    check('person_unit_system', sql`${t.unitSystem} in ('mm', 'in-decimal', 'in-fraction')`),
  ],
);

export const shopSetting = pgTable(
  'shop_setting',
  {
    only: boolean().primaryKey().default(true),
    name: text().notNull(),
    isDemo: boolean().notNull(),
    defaultToleranceMm: measured(),
  },
  (t) => [
    check('shop_setting_only', sql`${t.only}`),
    check('shop_setting_tolerance', sql`${t.defaultToleranceMm} > 0`),
  ],
);

export const printer = pgTable('printer', { id: id(), name: text().notNull(), dotPitchMm: measured() }, (t) => [
  uniqueIndex('printer_name').on(sql`lower(${t.name})`),
  check('printer_dot', sql`${t.dotPitchMm} > 0`),
]);

export const printMode = pgTable(
  'print_mode',
  {
    id: id(),
    printerId: uuid()
      .notNull()
      .references(() => printer.id),
    name: text().notNull(),
    page: text({ enum: ['A4', 'Letter'] }).notNull(),
  },
  (t) => [unique('print_mode_name').on(t.printerId, t.name)],
);

export const cutter = pgTable(
  'cutter',
  {
    id: id(),
    name: text().notNull(),
    fileFormat: text({ enum: ['hpgl', 'svg', 'none'] }).notNull(),
    fileAcross: text({ enum: ['+x', '-x', '+y', '-y'] }).notNull(),
    fileAlong: text({ enum: ['+x', '-x', '+y', '-y'] }).notNull(),
    feeds: text({ enum: ['away', 'towards'] }).notNull(),
  },
  (t) => [
    uniqueIndex('cutter_name').on(sql`lower(${t.name})`),
    check('cutter_axes', sql`right(${t.fileAcross}, 1) <> right(${t.fileAlong}, 1)`),
    check('cutter_feeds', sql`${t.feeds} in ('away', 'towards')`),
  ],
);

export const program = pgTable(
  'program',
  {
    id: id(),
    name: text().notNull(),
    opens: text().array().notNull(),
    marksPlacedBy: text({ enum: ['program', 'cutter_panel', 'hand', 'none'] }).notNull(),
    knowsCutBy: text({ enum: ['colour', 'layer'] }).notNull(),
    importScale: text({ enum: ['96', '72', 'asks'] }).notNull(),
  },
  (t) => [uniqueIndex('program_name').on(sql`lower(${t.name})`)],
);

export const setup = pgTable(
  'setup',
  {
    id: id(),
    name: text().notNull(),
    printerId: uuid()
      .notNull()
      .references(() => printer.id),
    printModeId: uuid()
      .notNull()
      .references(() => printMode.id),
    /** Absent when the cutter takes a plain cut file. */
    programId: uuid().references(() => program.id),
    cutterId: uuid()
      .notNull()
      .references(() => cutter.id),
    tool: text().notNull(),
    carrier: text().notNull(),
    route: text({ enum: ['A', 'D'] }).notNull(),
    note: text().notNull().default(''),
    /** Area the verdict speaks of; absent: the check sheet's block. */
    workWidthMm: doublePrecision(),
    workLengthMm: doublePrecision(),
    toleranceMm: measured(),
    version: version(),
  },
  (t) => [
    uniqueIndex('setup_name').on(sql`lower(${t.name})`),
    check('setup_tolerance', sql`${t.toleranceMm} > 0`),
    check(
      'setup_area',
      sql`(${t.workWidthMm} is null) = (${t.workLengthMm} is null) and coalesce(${t.workWidthMm}, 1) > 0 and coalesce(${t.workLengthMm}, 1) > 0`,
    ),
    check('setup_route', sql`${t.route} in ('A', 'D')`),
  ],
);

/** Hidden truth of a setup that has no machine: read by the stand-ins alone. */
export const simulatedSetup = pgTable('simulated_setup', {
  setupId: uuid()
    .primaryKey()
    .references(() => setup.id),
  truth: jsonb().notNull(),
  seed: integer().notNull(),
});

export const material = pgTable(
  'material',
  { id: id(), name: text().notNull(), finish: text().notNull(), version: version() },
  (t) => [uniqueIndex('material_name').on(sql`lower(${t.name})`)],
);

export const machineSetting = pgTable(
  'machine_setting',
  {
    id: id(),
    cutterId: uuid()
      .notNull()
      .references(() => cutter.id),
    position: integer().notNull(),
    displayName: text().notNull(),
    actsOn: text({ enum: ['offset_across', 'offset_along', 'scale_across', 'scale_along'] }).notNull(),
    unit: text({ enum: ['mm', 'tenth_mm', 'inch', 'percent', 'per_mille', 'step'] }).notNull(),
    /** Only when the unit is a machine's own step. */
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
    version: version(),
  },
  (t) => [
    unique('machine_setting_name').on(t.cutterId, t.displayName),
    check('machine_setting_step', sql`${t.step} > 0`),
    check('machine_setting_range', sql`${t.minValue} < ${t.maxValue}`),
    check('machine_setting_sense', sql`${t.sense} in (-1, 1)`),
    check('machine_setting_unit', sql`(${t.unit} = 'step') = (${t.unitSize} is not null)`),
  ],
);

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
