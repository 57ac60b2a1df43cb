import { sql } from 'drizzle-orm';
import { check, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { SCHOOLS } from '@/core/charts/control-chart';
import { BORDER_SIDES } from '@/core/reading/borders';
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

/** Append-only: the four borders of one finished piece, and the shift of the cut against its print that they tell. */
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
    side: text({ enum: BORDER_SIDES }).notNull(),
    leftMm: measured(),
    rightMm: measured(),
    topMm: measured(),
    bottomMm: measured(),
    borderSdMm: measured(),
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
    check('daily_check_uncertainty', sql`${t.standardUncertaintyMm} > 0`),
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
