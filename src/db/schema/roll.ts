import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { READING_SCALES } from '@/core/target/reading-scale';
import { STRIP_FORMS, STRIP_SIDES } from '@/core/target/roll-strip';
import { AXES } from '@/core/target/wedge';
import { READING_STATES } from '@/core/reading/methods';
import { id, instant, measured } from './columns';
import { setup } from './machines';
import { material, person } from './shop';

/** How a roll was looked at: a strip of test figures, or the pieces of a run while it goes on. */
export const ROLL_KINDS = ['strip', 'run'] as const;
export const STATION_METHODS = ['eye', 'list', 'scan', 'stand_in'] as const;

/** One stretch of a roll whose stations are read: a test strip, or a run of pieces of one pitch. */
export const rollRun = pgTable(
  'roll_run',
  {
    id: id(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    kind: text({ enum: ROLL_KINDS }).notNull(),
    form: text({ enum: STRIP_FORMS }).notNull(),
    widthMm: measured(),
    /** From one station, or piece, to the next. */
    spacingMm: measured(),
    stations: integer().notNull(),
    /** Of a run: every so many pieces one is looked at. */
    everyNth: integer().notNull(),
    sides: text({ enum: STRIP_SIDES }).array().notNull(),
    /** A strip that carries coded discs beside its wedges. */
    hasDiscs: boolean().notNull().default(false),
    /** Unit of the numbers printed at its wedges. */
    scale: text({ enum: READING_SCALES }).notNull().default('mm'),
    toleranceMm: measured(),
    /** What its setup's settings stood at when it was cut, by their ids. */
    settingsSnapshot: jsonb().notNull(),
    /** A length on the print by rule: what it should be, and what it is. */
    ruledNominalMm: doublePrecision(),
    ruledMm: doublePrecision(),
    /** The same length after lamination, where the print was laminated before it was cut. */
    ruledLaminatedMm: doublePrecision(),
    /** What the run's sections were last asked for, as typed. */
    sectionWork: jsonb(),
    state: text({ enum: ['open', 'ended'] }).notNull(),
    startedAt: instant(),
    startedBy: uuid()
      .notNull()
      .references(() => person.id),
    endedAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    index('roll_run_setup').on(t.setupId, t.startedAt),
    check('roll_run_sizes', sql`${t.widthMm} > 0 and ${t.spacingMm} > 0 and ${t.toleranceMm} > 0`),
    check('roll_run_stations', sql`${t.stations} between 1 and 100000 and ${t.everyNth} >= 1`),
    check('roll_run_ruled', sql`(${t.ruledNominalMm} is null) = (${t.ruledMm} is null)`),
    check('roll_run_laminated', sql`${t.ruledLaminatedMm} is null or ${t.ruledMm} is not null`),
    check('roll_run_state', sql`(${t.state} = 'open') = (${t.endedAt} is null)`),
  ],
);

/** What was seen of one figure of a station; once entered it is never changed, only superseded. */
export const stationReading = pgTable(
  'station_reading',
  {
    id: id(),
    rollRunId: uuid()
      .notNull()
      .references(() => rollRun.id),
    stationNo: integer().notNull(),
    side: text({ enum: STRIP_SIDES }).notNull(),
    axis: text({ enum: AXES as ['across', 'along'] }).notNull(),
    seq: integer().notNull(),
    supersedesId: uuid(),
    method: text({ enum: STATION_METHODS }).notNull(),
    state: text({ enum: READING_STATES }).notNull(),
    /** What was matched in the picture, before the ink's own displacement is taken out. */
    readingMm: doublePrecision(),
    displacementMm: doublePrecision(),
    readAt: instant(),
    readBy: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    unique('station_reading_slot').on(t.rollRunId, t.stationNo, t.side, t.axis, t.seq),
    unique('station_reading_supersedes').on(t.supersedesId),
    unique('station_reading_slot_id').on(t.id, t.rollRunId, t.stationNo, t.side, t.axis),
    foreignKey({
      name: 'station_reading_supersedes_own_slot',
      columns: [t.supersedesId, t.rollRunId, t.stationNo, t.side, t.axis],
      foreignColumns: [t.id, t.rollRunId, t.stationNo, t.side, t.axis],
    }),
    check('station_reading_station', sql`${t.stationNo} >= 1`),
    check(
      'station_reading_value',
      sql`(${t.state} = 'read') = (${t.readingMm} is not null and ${t.displacementMm} is not null)`,
    ),
    check('station_reading_size', sql`${t.displacementMm} between -1000 and 1000`),
  ],
);
