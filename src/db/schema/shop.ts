import { sql } from 'drizzle-orm';
import { boolean, check, doublePrecision, pgTable, text, timestamp, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { id, instant, measured, version } from './columns';

/** One shop: its own people, machines and records. The demo is one, "my own" another; nothing is mixed. */
export const shop = pgTable(
  'shop',
  {
    id: id(),
    name: text().notNull(),
    isDemo: boolean().notNull(),
    defaultToleranceMm: measured(),
    /** ISO 4217 code of the currency that costs are in; absent: not said, costs are plain numbers. */
    currency: text(),
    madeAt: instant(),
  },
  (t) => [
    check('shop_tolerance', sql`${t.defaultToleranceMm} > 0`),
    check('shop_currency', sql`${t.currency} ~ '^[A-Z]{3}$'`),
    uniqueIndex('shop_demo')
      .on(t.isDemo)
      .where(sql`${t.isDemo}`),
  ],
);

/** The shop that a thing belongs to. */
export const shopId = () =>
  uuid()
    .notNull()
    .references(() => shop.id);

export const person = pgTable(
  'person',
  {
    id: id(),
    shopId: shopId(),
    name: text().notNull(),
    unitSystem: text({ enum: ['mm', 'in-decimal', 'in-fraction'] }).notNull(),
    timeZone: text().notNull().default('UTC'),
    /** Set when the person has left: old entries keep the name. */
    archivedAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    uniqueIndex('person_name')
      .on(t.shopId, sql`lower(${t.name})`)
      .where(sql`${t.archivedAt} is null`),
    check('person_unit_system', sql`${t.unitSystem} in ('mm', 'in-decimal', 'in-fraction')`),
  ],
);

export const material = pgTable(
  'material',
  {
    id: id(),
    shopId: shopId(),
    name: text().notNull(),
    finish: text().notNull(),
    form: text({ enum: ['sheet', 'roll'] })
      .notNull()
      .default('sheet'),
    /** Sheet or roll width; absent: not told. */
    widthMm: doublePrecision(),
    /** What the printer can really print of a roll's width. */
    printableWidthMm: doublePrecision(),
    thicknessMm: doublePrecision(),
    colour: text({ enum: ['white', 'light', 'dark', 'metallic'] })
      .notNull()
      .default('white'),
    transparency: text({ enum: ['opaque', 'translucent', 'clear'] })
      .notNull()
      .default('opaque'),
    carrier: text().notNull().default(''),
    /** Hours between printing and the next work on it. */
    dryingHours: measured().default(0),
    /** Change of length per kelvin, and per percent of relative humidity, each with its source; absent: not told. */
    thermalPerK: doublePrecision(),
    thermalSource: text().notNull().default(''),
    humidityPerPercent: doublePrecision(),
    humiditySource: text().notNull().default(''),
    cost: text().notNull().default(''),
    version: version(),
  },
  (t) => [
    uniqueIndex('material_name').on(t.shopId, sql`lower(${t.name})`),
    check('material_drying', sql`${t.dryingHours} >= 0`),
    check('material_width', sql`coalesce(${t.printableWidthMm}, 0) <= coalesce(${t.widthMm}, 1e6)`),
  ],
);
