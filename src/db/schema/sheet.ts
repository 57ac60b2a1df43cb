import { sql } from 'drizzle-orm';
import { check, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { bytea, id, measured } from './columns';

/** Append-only. The hash is over the canonical JSON of the content, never over a file's bytes. */
export const sheetDefinition = pgTable(
  'sheet_definition',
  {
    id: id(),
    code: text().notNull().unique(),
    content: jsonb().notNull(),
    contentSha256: bytea().notNull().unique(),
    generatorVersion: integer().notNull(),
  },
  (t) => [check('sheet_definition_hash', sql`octet_length(${t.contentSha256}) = 32`)],
);

export const sheetSpot = pgTable(
  'sheet_spot',
  {
    sheetDefinitionId: uuid()
      .notNull()
      .references(() => sheetDefinition.id),
    spotNo: integer().notNull(),
    xMm: measured(),
    yMm: measured(),
  },
  (t) => [primaryKey({ columns: [t.sheetDefinitionId, t.spotNo] })],
);

export const sheetFigure = pgTable(
  'sheet_figure',
  {
    sheetDefinitionId: uuid()
      .notNull()
      .references(() => sheetDefinition.id),
    setNo: integer().notNull(),
    spotNo: integer().notNull(),
    axis: text({ enum: ['across', 'along', 'both'] }).notNull(),
    /** wedge, rough and lift-off now; disc and comb have their place. */
    kind: text({ enum: ['wedge', 'rough', 'lift-off', 'disc', 'comb'] }).notNull(),
    xMm: measured(),
    yMm: measured(),
    ditherMm: measured(),
  },
  (t) => [
    primaryKey({ columns: [t.sheetDefinitionId, t.setNo, t.spotNo, t.axis, t.kind] }),
    check('sheet_figure_set', sql`${t.setNo} in (1, 2)`),
  ],
);
