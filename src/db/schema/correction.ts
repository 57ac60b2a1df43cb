import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  doublePrecision,
  index,
  pgTable,
  primaryKey,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { calibration, fit } from './calibration';
import { id, instant, measured } from './columns';
import { cutter, printer, program, setup } from './machines';
import { machineSetting } from './settings';
import { material, person } from './shop';

export const correction = pgTable(
  'correction',
  {
    id: id(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    calibrationId: uuid().references(() => calibration.id),
    fitId: uuid().references(() => fit.id),
    putBackOfId: uuid(),
    /** rough: only brings the figures into reach. fine: settings keyed in. file: cut lines moved. none: left as it is. */
    objective: text({ enum: ['rough', 'fine', 'file', 'none'] }).notNull(),
    /** Affine map for the cut lines when they are moved in the file, six numbers. */
    fileCorrection: doublePrecision().array(),
    predictedLeftoverMm: measured(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('correction_setup').on(t.setupId, t.at),
    check('correction_origin', sql`num_nonnulls(${t.fitId}, ${t.putBackOfId}) = 1`),
  ],
);

export const correctionSetting = pgTable(
  'correction_setting',
  {
    correctionId: uuid()
      .notNull()
      .references(() => correction.id),
    machineSettingId: uuid()
      .notNull()
      .references(() => machineSetting.id),
    beforeValue: measured(),
    afterValue: measured(),
    toType: measured(),
    words: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.correctionId, t.machineSettingId] })],
);

/** "I have set them": what was typed back. */
export const correctionTyped = pgTable(
  'correction_typed',
  {
    correctionId: uuid()
      .notNull()
      .references(() => correction.id),
    machineSettingId: uuid()
      .notNull()
      .references(() => machineSetting.id),
    typedValue: measured(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [primaryKey({ columns: [t.correctionId, t.machineSettingId] })],
);

export const confirmation = pgTable(
  'confirmation',
  {
    id: id(),
    correctionId: uuid()
      .notNull()
      .references(() => correction.id),
    fitId: uuid()
      .notNull()
      .unique()
      .references(() => fit.id),
    lowerMm: measured(),
    upperMm: measured(),
    worstMm: measured(),
    nextJobMm: measured(),
    toleranceMm: measured(),
    confidence: measured(),
    /** Noise of reading the marks that it was judged with, and whether it was only assumed; absent in older records. */
    markSdMm: doublePrecision(),
    isMarkSdAssumed: boolean(),
    /** Share of next jobs beyond the tolerance as it was then; absent in older records. */
    nextOutShare: doublePrecision(),
    verdict: text({ enum: ['pass', 'fail', 'cannot_tell'] }).notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    uniqueIndex('confirmation_pass')
      .on(t.correctionId)
      .where(sql`${t.verdict} = 'pass'`),
    index('confirmation_verdict').on(t.verdict, t.at),
    check('confirmation_is_pass', sql`(${t.verdict} = 'pass') = (${t.upperMm} <= ${t.toleranceMm})`),
    check('confirmation_is_fail', sql`(${t.verdict} = 'fail') = (${t.lowerMm} > ${t.toleranceMm})`),
  ],
);

export const event = pgTable(
  'event',
  {
    id: id(),
    setupId: uuid().references(() => setup.id),
    printerId: uuid().references(() => printer.id),
    cutterId: uuid().references(() => cutter.id),
    programId: uuid().references(() => program.id),
    kind: text().notNull(),
    note: text().notNull(),
    /** An event is taken back by another one that names it. */
    undoesId: uuid().unique(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('event_setup').on(t.setupId, t.at),
    index('event_cutter').on(t.cutterId, t.at),
    index('event_printer').on(t.printerId, t.at),
    index('event_program').on(t.programId, t.at),
    index('event_at').on(t.at),
    check('event_target', sql`num_nonnulls(${t.setupId}, ${t.printerId}, ${t.cutterId}, ${t.programId}) = 1`),
  ],
);

/** Each try at getting marks read, so that what works on this setup can be told. */
export const markAttempt = pgTable('mark_attempt', {
  id: id(),
  calibrationId: uuid()
    .notNull()
    .references(() => calibration.id),
  tried: text().notNull(),
  outcome: text({ enum: ['read', 'not_read'] }).notNull(),
  at: instant(),
  by: uuid()
    .notNull()
    .references(() => person.id),
});

export const historyEntry = pgTable(
  'history_entry',
  {
    id: id(),
    seq: bigint({ mode: 'number' }).generatedAlwaysAsIdentity().unique(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    kind: text({ enum: ['saved', 'put_back'] }).notNull(),
    confirmationId: uuid().references(() => confirmation.id),
    correctionId: uuid().references(() => correction.id),
    note: text().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('history_entry_setup').on(t.setupId, t.seq),
    index('history_entry_material').on(t.setupId, t.materialId, t.seq),
    // What a look at many setups asks for: the newest saved ones, without reading the entries themselves.
    index('history_entry_saved')
      .on(t.setupId, t.seq, t.materialId, t.confirmationId)
      .where(sql`confirmation_id is not null`),
    index('history_entry_at').on(t.at),
    unique('history_entry_confirmation').on(t.confirmationId),
    check('history_entry_subject', sql`num_nonnulls(${t.confirmationId}, ${t.correctionId}) = 1`),
    check('history_entry_kind', sql`(${t.kind} = 'saved') = (${t.confirmationId} is not null)`),
  ],
);

/** Append-only: what someone wrote beside an entry later on. */
export const historyNote = pgTable(
  'history_note',
  {
    id: id(),
    historyEntryId: uuid()
      .notNull()
      .references(() => historyEntry.id),
    note: text().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('history_note_entry').on(t.historyEntryId, t.at),
    check('history_note_words', sql`length(${t.note}) > 0`),
  ],
);
