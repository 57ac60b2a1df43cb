import { sql } from 'drizzle-orm';
import {
  bigint,
  check,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { bytea, id, instant, measured, version } from './columns';
import { setup } from './machines';
import { material, person, shopId } from './shop';

/** draft: may still change. locked: it may be printed. waiting: printed, not cut yet. cut: its result is told. archived: put away, with the reason. */
export const JOB_STATES = ['draft', 'locked', 'waiting', 'cut', 'archived'] as const;
/** What a locked layout gives out. */
export const JOB_FILE_KINDS = [
  'print-pdf',
  'print-svg',
  'drawing',
  'queue-pdf',
  'cut-hpgl',
  'cut-svg',
  'cut-dxf',
] as const;

/** One job: laid out, locked for printing, waiting, cut. A job that was locked is never changed: a change makes another. */
export const job = pgTable(
  'job',
  {
    id: id(),
    shopId: shopId(),
    /** As it is called in the shop: "Job 14". */
    number: integer().notNull(),
    name: text().notNull(),
    setupId: uuid()
      .notNull()
      .references(() => setup.id),
    materialId: uuid()
      .notNull()
      .references(() => material.id),
    state: text({ enum: JOB_STATES }).notNull(),
    /** The layout as it is being made; what was locked stands in locked_layout. */
    draft: jsonb().notNull(),
    /** Job that this one was made from, changed. */
    madeFromId: uuid(),
    archivedReason: text(),
    /** What it was before it was put away. */
    archivedState: text({ enum: ['draft', 'locked', 'waiting', 'cut'] }),
    startedAt: instant(),
    startedBy: uuid()
      .notNull()
      .references(() => person.id),
    version: version(),
  },
  (t) => [
    unique('job_number').on(t.shopId, t.number),
    index('job_state').on(t.shopId, t.state, t.number),
    index('job_setup').on(t.setupId),
    index('job_open')
      .on(t.setupId)
      .where(sql`state in ('draft', 'locked', 'waiting')`),
    check('job_number_from_one', sql`${t.number} >= 1`),
    check(
      'job_archived',
      sql`(${t.state} = 'archived') = (${t.archivedReason} is not null and ${t.archivedState} is not null)`,
    ),
  ],
);

/** Art as it was uploaded, byte for byte. Append-only. */
export const jobArt = pgTable(
  'job_art',
  {
    id: id(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    fileName: text().notNull(),
    mediaType: text({ enum: ['image/svg+xml', 'image/png', 'image/jpeg'] }).notNull(),
    content: bytea().notNull(),
    contentSha256: bytea().notNull(),
    at: instant(),
  },
  (t) => [
    index('job_art_job').on(t.jobId),
    check('job_art_content', sql`octet_length(${t.content}) between 1 and 67108864`),
    check('job_art_hash', sql`octet_length(${t.contentSha256}) = 32`),
  ],
);

/** A layout as it was locked: nothing of it changes. The hash is over its canonical JSON. Append-only. */
export const lockedLayout = pgTable(
  'locked_layout',
  {
    id: id(),
    jobId: uuid()
      .notNull()
      .unique()
      .references(() => job.id),
    content: jsonb().notNull(),
    contentSha256: bytea().notNull(),
    /** What the setup's settings stood at, by their ids; its material's version. */
    settingsSnapshot: jsonb().notNull(),
    materialVersion: integer().notNull(),
    /** The material as it was described then, so that what changed can be named; absent in older layouts. */
    materialSnapshot: jsonb(),
    /** Saved file of the program that laid it out: name, size and hash, reckoned in the browser; absent when it was laid out here. */
    ownFileName: text(),
    ownFileBytes: bigint({ mode: 'number' }),
    ownFileSha256: text(),
    /** What was known to be wrong and locked all the same, in words. */
    warnings: text().array().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    check('locked_layout_hash', sql`octet_length(${t.contentSha256}) = 32`),
    check('locked_layout_own_file', sql`num_nulls(${t.ownFileName}, ${t.ownFileBytes}, ${t.ownFileSha256}) in (0, 3)`),
    check('locked_layout_own_hash', sql`${t.ownFileSha256} ~ '^[0-9a-f]{64}$'`),
  ],
);

/** Print files of a locked layout, byte for byte as they are given out every time. Append-only. */
export const lockedFile = pgTable(
  'locked_file',
  {
    lockedLayoutId: uuid()
      .notNull()
      .references(() => lockedLayout.id),
    kind: text({ enum: JOB_FILE_KINDS }).notNull(),
    name: text().notNull(),
    content: bytea().notNull(),
    contentSha256: bytea().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.lockedLayoutId, t.kind] }),
    check('locked_file_hash', sql`octet_length(${t.contentSha256}) = 32`),
  ],
);

/** That it was printed, and until when it dries. Append-only. */
export const jobPrint = pgTable(
  'job_print',
  {
    id: id(),
    lockedLayoutId: uuid()
      .notNull()
      .unique()
      .references(() => lockedLayout.id),
    printedAt: instant(),
    /** Not to be cut before; absent: it need not dry. */
    dryAt: timestamp({ withTimezone: true }),
    sheets: integer().notNull(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [check('job_print_sheets', sql`${t.sheets} >= 1`)],
);

/** A cut file given out, or a program's own file found unchanged, with what had changed since the lock. Append-only. */
export const cutRelease = pgTable(
  'cut_release',
  {
    id: id(),
    lockedLayoutId: uuid()
      .notNull()
      .references(() => lockedLayout.id),
    /** What had changed, in the words that were acknowledged. */
    changes: text().array().notNull(),
    /** What lay on or under the material as it was cut; empty: as it was printed. */
    stack: text().notNull().default(''),
    /** The file as it was given out; absent where a program of its own holds the lines. */
    kind: text({ enum: JOB_FILE_KINDS }),
    name: text(),
    content: bytea(),
    contentSha256: bytea(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    index('cut_release_layout').on(t.lockedLayoutId, t.at),
    index('cut_release_at').on(t.at),
    check('cut_release_file', sql`num_nulls(${t.kind}, ${t.name}, ${t.content}, ${t.contentSha256}) in (0, 4)`),
  ],
);

/** How it came out. Append-only: the newest counts. */
export const jobResult = pgTable(
  'job_result',
  {
    id: id(),
    jobId: uuid()
      .notNull()
      .references(() => job.id),
    seq: integer().notNull(),
    good: integer().notNull(),
    spoiled: integer().notNull(),
    /** Of all that was spoiled, in the shop's own money. */
    spoiledCost: measured(),
    note: text().notNull(),
    at: instant(),
    by: uuid()
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    unique('job_result_seq').on(t.jobId, t.seq),
    index('job_result_at').on(t.at),
    check('job_result_counts', sql`${t.good} >= 0 and ${t.spoiled} >= 0 and ${t.spoiledCost} >= 0`),
  ],
);
