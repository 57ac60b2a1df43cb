import { sql } from 'drizzle-orm';
import { check, doublePrecision, index, integer, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { SCHOOLS } from '@/core/charts/control-chart';
import { BORDER_SIDES } from '@/core/reading/borders';
import { DAILY_METHODS } from '@/core/trust/daily-method';
import { POLICY_KINDS } from '@/core/trust/policy';
import { id, instant, measured, version } from './columns';
import { setup } from './machines';
import { material, person } from './shop';

/** When a setup is checked again, and which chart its daily checks are held against; of one material, or of all others. */
export const policy = pgTable(
  'policy',
  {
    id: id(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid().references(() => material.id),
    kind: text({ enum: POLICY_KINDS }).notNull(),
    everyDays: integer().notNull(),
    everyJobs: integer().notNull(),
    costlyFrom: measured(),
    spoilCost: measured(),
    checkCost: measured(),
    jobsAhead: integer().notNull(),
    school: text({ enum: SCHOOLS }).notNull(),
    version: version(),
  },
  (t) => [
    unique('policy_of').on(t.setupId, t.materialId).nullsNotDistinct(),
    check('policy_figures', sql`${t.everyDays} > 0 and ${t.everyJobs} > 0 and ${t.jobsAhead} > 0`),
    check('policy_costs', sql`${t.costlyFrom} >= 0 and ${t.spoilCost} >= 0 and ${t.checkCost} >= 0`),
  ],
);

/**
 * Append-only: the shift of the cut against the print as one finished piece shows it: by its four borders, measured by hand or
 * on a photograph, or by the two small discs beside the work, which stand in a table of their own.
 */
export const dailyCheck = pgTable(
  'daily_check',
  {
    id: id(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    method: text({ enum: DAILY_METHODS }).notNull().default('hand'),
    side: text({ enum: BORDER_SIDES }),
    leftMm: doublePrecision(),
    rightMm: doublePrecision(),
    topMm: doublePrecision(),
    bottomMm: doublePrecision(),
    borderSdMm: doublePrecision(),
    acrossMm: measured(),
    alongMm: measured(),
    standardUncertaintyMm: measured(),
    note: text().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('daily_check_setup').on(t.setupId, t.at),
    index('daily_check_at').on(t.at),
    check('daily_check_borders', sql`least(${t.leftMm}, ${t.rightMm}, ${t.topMm}, ${t.bottomMm}) >= 0`),
    check(
      'daily_check_method',
      sql`num_nonnulls(${t.side}, ${t.leftMm}, ${t.rightMm}, ${t.topMm}, ${t.bottomMm}, ${t.borderSdMm}) = case ${t.method} when 'discs' then 0 else 6 end`,
    ),
    check('daily_check_uncertainty', sql`${t.standardUncertaintyMm} > 0`),
  ],
);

/** Append-only: one of the small discs that a daily check measured. */
export const dailyDisc = pgTable(
  'daily_disc',
  {
    dailyCheckId: uuid()
      .notNull()
      .references(() => dailyCheck.id),
    discNo: integer().notNull(),
    acrossMm: measured(),
    alongMm: measured(),
    standardUncertaintyMm: measured(),
  },
  (t) => [
    primaryKey({ columns: [t.dailyCheckId, t.discNo] }),
    check('daily_disc_figures', sql`${t.discNo} in (1, 2) and ${t.standardUncertaintyMm} > 0`),
  ],
);

/** Append-only: a daily check that was mistyped counts no more; it stays in the record. */
export const dailyCheckTakenBack = pgTable('daily_check_taken_back', {
  dailyCheckId: uuid()
    .primaryKey()
    .references(() => dailyCheck.id),
  at: instant(),
  by: uuid()
    .notNull()
    .references(() => person.id),
});
