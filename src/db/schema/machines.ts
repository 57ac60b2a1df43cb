import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  doublePrecision,
  integer,
  jsonb,
  pgTable,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { FAMILIES, KNOWS_CUT_BY, MARK_KINDS, MARK_USES, MARKS_PLACED_BY, OPENS, ROUTES } from '@/core/shop/words';
import { id, measured, version } from './columns';
import { shopId } from './shop';

export const printer = pgTable(
  'printer',
  {
    id: id(),
    shopId: shopId(),
    name: text().notNull(),
    dotPitchMm: measured(),
    /** Unprintable margins of its ordinary modes. */
    marginLeftMm: measured().default(5),
    marginRightMm: measured().default(5),
    marginTopMm: measured().default(5),
    marginBottomMm: measured().default(5),
  },
  (t) => [
    uniqueIndex('printer_name').on(t.shopId, sql`lower(${t.name})`),
    check('printer_dot', sql`${t.dotPitchMm} > 0`),
    check(
      'printer_margins',
      sql`least(${t.marginLeftMm}, ${t.marginRightMm}, ${t.marginTopMm}, ${t.marginBottomMm}) >= 0`,
    ),
  ],
);

/** A correction belongs to a mode, not to a printer: tray, quality and page move the print. */
export const printMode = pgTable(
  'print_mode',
  {
    id: id(),
    printerId: uuid()
      .notNull()
      .references(() => printer.id),
    name: text().notNull(),
    tray: text().notNull().default(''),
    quality: text().notNull().default(''),
    isBorderless: boolean().notNull().default(false),
    page: text().notNull(),
    pageWidthMm: measured(),
    pageLengthMm: measured(),
  },
  (t) => [
    unique('print_mode_name').on(t.printerId, t.name),
    check('print_mode_page', sql`${t.pageWidthMm} > 0 and ${t.pageLengthMm} > 0`),
  ],
);

/** Registration marks of a generic kind, as a program prints or a cutter reads them. */
export const markScheme = pgTable(
  'mark_scheme',
  {
    id: id(),
    shopId: shopId(),
    name: text().notNull(),
    kind: text({ enum: MARK_KINDS }).notNull(),
    sizeMm: measured(),
    insetMm: measured(),
    keepOutMm: measured(),
    /** Nearer to the edge than this, the eye takes the edge for a mark. */
    edgeMinMm: measured(),
    /** Mark that shows which end leads, in words; empty when there is none. */
    leadingMark: text().notNull(),
    readingOrder: text().notNull(),
  },
  (t) => [
    uniqueIndex('mark_scheme_name').on(t.shopId, sql`lower(${t.name})`),
    check('mark_scheme_sizes', sql`least(${t.sizeMm}, ${t.insetMm}, ${t.keepOutMm}, ${t.edgeMinMm}) >= 0`),
  ],
);

const markSchemeId = () => uuid().references(() => markScheme.id);

export const cutter = pgTable(
  'cutter',
  {
    id: id(),
    shopId: shopId(),
    name: text().notNull(),
    fileFormat: text({ enum: ['hpgl', 'svg', 'dxf', 'none'] }).notNull(),
    fileAcross: text({ enum: ['+x', '-x', '+y', '-y'] }).notNull(),
    fileAlong: text({ enum: ['+x', '-x', '+y', '-y'] }).notNull(),
    feeds: text({ enum: ['away', 'towards'] }).notNull(),
    /** Marks it is told to read; absent: not known. */
    markSchemeId: markSchemeId(),
    markUse: text({ enum: MARK_USES }).notNull().default('unknown'),
    hpglTool: integer().notNull().default(1),
    /** The outline of the material is followed with the tool up before anything is cut. */
    hpglOutlineFirst: boolean().notNull().default(true),
    spareFrontMm: measured().default(0),
    spareRearMm: measured().default(0),
    /** Its rollers at the material's edges, and how far in they are set; absent: not told. */
    rollerWidthMm: doublePrecision(),
    rollerFromEdgeMm: doublePrecision(),
    /** Where its knife cuts less where a pen in the same holder draws, machine frame; absent: not measured. */
    knifeFromPenAcrossMm: doublePrecision(),
    knifeFromPenAlongMm: doublePrecision(),
    /** Its own test: how its rows of lines are labelled and stepped, and where it cuts them; absent: not described. */
    ownTest: jsonb(),
  },
  (t) => [
    uniqueIndex('cutter_name').on(t.shopId, sql`lower(${t.name})`),
    check('cutter_axes', sql`right(${t.fileAcross}, 1) <> right(${t.fileAlong}, 1)`),
    check('cutter_feeds', sql`${t.feeds} in ('away', 'towards')`),
    check('cutter_tool', sql`${t.hpglTool} between 1 and 8`),
    check('cutter_knife', sql`(${t.knifeFromPenAcrossMm} is null) = (${t.knifeFromPenAlongMm} is null)`),
    check(
      'cutter_rollers',
      sql`(${t.rollerWidthMm} is null) = (${t.rollerFromEdgeMm} is null) and coalesce(${t.rollerWidthMm}, 1) > 0 and coalesce(${t.rollerFromEdgeMm}, 0) >= 0`,
    ),
    check('cutter_spare', sql`${t.spareFrontMm} >= 0 and ${t.spareRearMm} >= 0`),
  ],
);

export const program = pgTable(
  'program',
  {
    id: id(),
    shopId: shopId(),
    name: text().notNull(),
    opens: text({ enum: OPENS }).array().notNull(),
    marksPlacedBy: text({ enum: MARKS_PLACED_BY }).notNull(),
    knowsCutBy: text({ enum: KNOWS_CUT_BY }).notNull(),
    /** Whether it can cut a second time on the same print. */
    canCutAgain: boolean().notNull().default(true),
    importScale: text({ enum: ['96', '72', 'asks'] }).notNull(),
    /** Name of the spot ink by which its printing software knows a cut line; absent where none is used. */
    spotInkName: text(),
    /** Largest drawing it takes; absent: no limit known. */
    largestWidthMm: doublePrecision(),
    largestLengthMm: doublePrecision(),
    bleedDefaultMm: measured().default(0),
    printsUnstroked: boolean().notNull().default(true),
    holdsCutData: boolean().notNull().default(false),
    markSchemeId: markSchemeId(),
  },
  (t) => [
    uniqueIndex('program_name').on(t.shopId, sql`lower(${t.name})`),
    check('program_spot_ink', sql`(${t.knowsCutBy} = 'spot_ink') = (${t.spotInkName} is not null)`),
  ],
);

export const setup = pgTable(
  'setup',
  {
    id: id(),
    shopId: shopId(),
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
    route: text({ enum: ROUTES }).notNull(),
    family: text({ enum: FAMILIES }).notNull(),
    note: text().notNull().default(''),
    /** Area the verdict speaks of; absent: the check sheet's block. */
    workWidthMm: doublePrecision(),
    workLengthMm: doublePrecision(),
    toleranceMm: measured(),
    version: version(),
  },
  (t) => [
    uniqueIndex('setup_name').on(t.shopId, sql`lower(${t.name})`),
    check('setup_tolerance', sql`${t.toleranceMm} > 0`),
    check(
      'setup_area',
      sql`(${t.workWidthMm} is null) = (${t.workLengthMm} is null) and coalesce(${t.workWidthMm}, 1) > 0 and coalesce(${t.workLengthMm}, 1) > 0`,
    ),
    check('setup_route', sql`${t.route} in ('A', 'B', 'C', 'D', 'E')`),
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
