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
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { CUT_LINES } from '@/core/shop/cut-lines';
import { ROUTES } from '@/core/shop/words';
import { STEP_NAMES } from '@/contracts/steps';
import { LOAD_MODELS } from '@/core/fit/load-noise';
import { READING_METHODS, READING_STATES } from '@/core/reading/methods';
import { bytea, id, instant, measured, version } from './columns';
import { setup } from './machines';
import { material, person } from './shop';
import { sheetDefinition } from './sheet';

export const calibration = pgTable(
  'calibration',
  {
    id: id(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    sheetDefinitionId: uuid()
      .notNull()
      .references(() => sheetDefinition.id),
    route: text({ enum: ROUTES }).notNull(),
    kind: text({ enum: ['quick', 'full', 'which_way', 'mark_use', 'two_faces'] }).notNull(),
    /** Of a test that moves the marks alone: how far in the program sets them, across and along; absent: not such a test, or our own marks. */
    marksInAcrossMm: doublePrecision(),
    marksInAlongMm: doublePrecision(),
    /** How the cut lines of its sheets are made visible. */
    cutLine: text({ enum: CUT_LINES }).notNull().default('weeded'),
    step: text({ enum: STEP_NAMES }).notNull(),
    state: text({ enum: ['open', 'saved', 'abandoned'] }).notNull(),
    toleranceMm: measured(),
    startedAt: instant(),
    startedBy: uuid()
      .notNull()
      .references(() => person.id),
    endedAt: timestamp({ withTimezone: true }),
    version: version(),
  },
  (t) => [
    index('calibration_setup').on(t.setupId, t.startedAt),
    index('calibration_state').on(t.state, t.startedAt),
    check('calibration_tolerance', sql`${t.toleranceMm} > 0`),
    check('calibration_marks_in', sql`(${t.marksInAcrossMm} is null) = (${t.marksInAlongMm} is null)`),
    check('calibration_state', sql`(${t.state} = 'open') = (${t.endedAt} is null)`),
  ],
);

export const calibrationSheet = pgTable(
  'calibration_sheet',
  {
    id: id(),
    calibrationId: uuid()
      .notNull()
      .references(() => calibration.id),
    sheetDefinitionId: uuid()
      .notNull()
      .references(() => sheetDefinition.id),
    sheetNo: integer().notNull(),
    /** Printed on it and in the names of its files. Sheets made before every sheet had a code of its own share their definition's. */
    code: text().notNull(),
    /** By how many words of the code book its discs are moved on; absent: its check's number, for sheets made before. */
    wordShift: integer(),
  },
  (t) => [unique('calibration_sheet_no').on(t.calibrationId, t.sheetNo)],
);

export const printCheck = pgTable(
  'print_check',
  {
    id: id(),
    calibrationSheetId: uuid()
      .notNull()
      .references(() => calibrationSheet.id),
    seq: integer().notNull(),
    lineNominalMm: measured(),
    lineMm: measured(),
    verdict: text({ enum: ['right', 'scaled'] }).notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [unique('print_check_seq').on(t.calibrationSheetId, t.seq), check('print_check_line', sql`${t.lineMm} > 0`)],
);

export const cutSet = pgTable(
  'cut_set',
  {
    id: id(),
    calibrationSheetId: uuid()
      .notNull()
      .references(() => calibrationSheet.id),
    setNo: integer().notNull(),
    attemptNo: integer().notNull(),
    loadNo: integer().notNull(),
    turnDeg: integer().notNull(),
    face: text({ enum: ['ink-up', 'ink-down'] }).notNull(),
    purpose: text({ enum: ['before', 'confirm', 'settings_check', 'which_way'] }).notNull(),
    /** The correction in force when it was cut; absent before the first. Foreign key in migration 0001. */
    correctionId: uuid(),
    fileShiftXMm: measured(),
    fileShiftYMm: measured(),
    /** Affine correction of the cut lines in the file, six numbers; absent when the file was as drawn. */
    fileCorrection: doublePrecision().array(),
    /** Figures left out because a spent set ran through them, as "spot axis". */
    leftOut: text().array().notNull(),
    settingsSnapshot: jsonb().notNull(),
    outcome: text({ enum: ['done', 'marks_not_read', 'wrong_place', 'stopped'] }).notNull(),
    cutAt: instant(),
    cutBy: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    unique('cut_set_attempt').on(t.calibrationSheetId, t.setNo, t.attemptNo),
    uniqueIndex('cut_set_done')
      .on(t.calibrationSheetId, t.setNo)
      .where(sql`${t.outcome} = 'done'`),
    check('cut_set_turn', sql`${t.turnDeg} in (0, 90, 180, 270)`),
    check('cut_set_set', sql`${t.setNo} in (1, 2)`),
    check('cut_set_correction', sql`${t.fileCorrection} is null or cardinality(${t.fileCorrection}) = 6`),
  ],
);

/** Append-only by slot: a reading is never changed, only superseded. The id comes from the client. */
export const reading = pgTable(
  'reading',
  {
    id: id(),
    cutSetId: uuid()
      .notNull()
      .references(() => cutSet.id),
    spotNo: integer().notNull(),
    axis: text({ enum: ['across', 'along'] }).notNull(),
    method: text({ enum: READING_METHODS }).notNull(),
    repeatNo: integer().notNull().default(1),
    seq: integer().notNull(),
    supersedesId: uuid(),
    state: text({ enum: READING_STATES }).notNull(),
    /** What was matched in the picture, before dither and file shift are taken out. */
    readingMm: doublePrecision(),
    displacementMm: doublePrecision(),
    standardUncertaintyMm: doublePrecision(),
    raw: jsonb().notNull(),
    readAt: instant(),
    readBy: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    unique('reading_slot').on(t.cutSetId, t.spotNo, t.axis, t.method, t.repeatNo, t.seq),
    unique('reading_supersedes').on(t.supersedesId),
    unique('reading_slot_id').on(t.id, t.cutSetId, t.spotNo, t.axis, t.method, t.repeatNo),
    foreignKey({
      name: 'reading_supersedes_own_slot',
      columns: [t.supersedesId, t.cutSetId, t.spotNo, t.axis, t.method, t.repeatNo],
      foreignColumns: [t.id, t.cutSetId, t.spotNo, t.axis, t.method, t.repeatNo],
    }),
    index('reading_cut_set').on(t.cutSetId),
    check(
      'reading_has_value',
      sql`(${t.state} = 'read') = (${t.displacementMm} is not null and ${t.standardUncertaintyMm} is not null and ${t.readingMm} is not null)`,
    ),
    check('reading_uncertainty', sql`${t.standardUncertaintyMm} > 0`),
  ],
);

/** One measuring of a cut sheet's discs from one or more scans, with a small picture of the first. */
export const scan = pgTable(
  'scan',
  {
    id: id(),
    cutSetId: uuid()
      .notNull()
      .references(() => cutSet.id),
    detectorVersion: integer().notNull(),
    /** What each scan was: file name, resolution, turn, side, how many discs were good. */
    scans: jsonb().notNull(),
    /** The print's absolute size, where a length on it was measured. */
    printSize: jsonb(),
    /** JPEG, at most 1600 pixels wide or high. */
    picture: bytea(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('scan_cut_set').on(t.cutSetId),
    check('scan_picture', sql`${t.picture} is null or octet_length(${t.picture}) <= 700000`),
  ],
);

/** A picture as it came from the scanner or camera, where the operator had it kept. */
export const scanOriginal = pgTable(
  'scan_original',
  {
    scanId: uuid()
      .notNull()
      .references(() => scan.id),
    /** Its place among the scan's pictures, from 0. */
    no: integer().notNull(),
    fileName: text().notNull(),
    format: text({ enum: ['png', 'jpeg', 'tiff'] }).notNull(),
    content: bytea().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.scanId, t.no] }),
    check('scan_original_format', sql`${t.format} in ('png', 'jpeg', 'tiff')`),
    check('scan_original_content', sql`octet_length(${t.content}) between 1 and 67108864`),
  ],
);

export const fit = pgTable(
  'fit',
  {
    id: id(),
    calibrationId: uuid()
      .notNull()
      .references(() => calibration.id),
    model: text({ enum: ['affine', 'similarity', 'shift'] }).notNull(),
    parameters: doublePrecision().array().notNull(),
    covariance: doublePrecision().array().notNull(),
    degreesOfFreedom: integer().notNull(),
    reducedChiSquare: doublePrecision(),
    worstMm: measured(),
    worstBoundMm: measured(),
    coreVersion: integer().notNull(),
    at: instant(),
  },
  (t) => [
    index('fit_calibration').on(t.calibrationId),
    check(
      'fit_covariance',
      sql`cardinality(${t.covariance}) = cardinality(${t.parameters}) * cardinality(${t.parameters})`,
    ),
    check('fit_degrees', sql`${t.degreesOfFreedom} >= 0`),
  ],
);

export const fitReading = pgTable(
  'fit_reading',
  {
    fitId: uuid()
      .notNull()
      .references(() => fit.id),
    readingId: uuid()
      .notNull()
      .references(() => reading.id),
    used: boolean().notNull(),
    residualMm: measured(),
  },
  (t) => [primaryKey({ columns: [t.fitId, t.readingId] })],
);

/** Each load of a fit by itself: what later checks of the setup pool to know how its marks are read. */
export const loadMap = pgTable(
  'load_map',
  {
    fitId: uuid()
      .notNull()
      .references(() => fit.id),
    loadNo: integer().notNull(),
    /** Correction in force when these loads were cut; absent before the first. Loads of one state are compared. */
    correctionId: uuid(),
    parameters: doublePrecision().array().notNull(),
    /** Of reading alone. */
    covariance: doublePrecision().array().notNull(),
    /** Marks as the machine was told of them, x and y in turn, sheet frame, and what it makes of them. */
    marks: doublePrecision().array().notNull(),
    loadModel: text({ enum: LOAD_MODELS }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.fitId, t.loadNo] }),
    check('load_map_parameters', sql`cardinality(${t.parameters}) = 6`),
    check('load_map_covariance', sql`cardinality(${t.covariance}) = 36`),
  ],
);
