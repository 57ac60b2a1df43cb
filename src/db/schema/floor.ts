import { sql } from 'drizzle-orm';
import { boolean, check, doublePrecision, index, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { LIGHTS } from '@/core/shop/light';
import { FORCE_UNITS, TEST_CUT_OUTCOMES } from '@/core/shop/test-cut';
import { calibration } from './calibration';
import { id, instant } from './columns';
import { job } from './job';
import { cutter, setup } from './machines';
import { material, person } from './shop';

/** Append-only: one small figure cut in the spare, and how it came out. */
export const testCut = pgTable(
  'test_cut',
  {
    id: id(),
    cutterId: uuid()
      .notNull()
      .references(() => cutter.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    /** What lies on or under the material as it is cut, "laminated" or "with mask"; empty: as it was printed. */
    stack: text().notNull(),
    force: doublePrecision(),
    forceUnit: text({ enum: FORCE_UNITS }).notNull(),
    /** As the machine or its holder numbers them; absent: not told. */
    depth: doublePrecision(),
    speed: doublePrecision(),
    passes: integer().notNull(),
    outcome: text({ enum: TEST_CUT_OUTCOMES }).notNull(),
    note: text().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('test_cut_cutter').on(t.cutterId, t.at),
    check('test_cut_force', sql`coalesce(${t.force}, 1) > 0 and ${t.passes} between 1 and 20`),
  ],
);

/** Append-only: one time that the eye looked for the marks of a sheet, and under what circumstances. */
export const markReading = pgTable(
  'mark_reading',
  {
    id: id(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    calibrationId: uuid().references(() => calibration.id),
    jobId: uuid().references(() => job.id),
    /** As they were called then. */
    finish: text().notNull(),
    carrier: text().notNull(),
    light: text({ enum: LIGHTS }).notNull(),
    insetMm: doublePrecision(),
    wasRead: boolean().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('mark_reading_setup').on(t.setupId, t.at),
    check('mark_reading_of', sql`num_nonnulls(${t.calibrationId}, ${t.jobId}) = 1`),
  ],
);
