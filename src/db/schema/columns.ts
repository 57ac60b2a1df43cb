import { customType, doublePrecision, integer, timestamp, uuid } from 'drizzle-orm/pg-core';

export const id = () => uuid().primaryKey();
export const instant = () => timestamp({ withTimezone: true, mode: 'date' }).notNull();
/** A length, ratio or other measured number. Every one is checked to be finite (migration 0001). */
export const measured = () => doublePrecision().notNull();
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
/** Optimistic version of an editable row. */
export const version = () => integer().notNull().default(1);
