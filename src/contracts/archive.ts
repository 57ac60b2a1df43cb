import { z } from 'zod';
import type { Progress } from './progress';

export const ARCHIVE_FORMAT = 'red-plumb-archive';
/** Raised when the shape of the file changes; what tables and columns there are stands in `schema`. */
export const ARCHIVE_VERSION = 1;

/** First line of an archive. */
export const ArchiveHead = z.strictObject({
  format: z.literal(ARCHIVE_FORMAT),
  version: z.number().int().min(1),
  /** Newest migration of the database it was made from. */
  schema: z.string().regex(/^\d{4}_[a-z0-9_]{1,60}$/),
  madeAt: z.iso.datetime(),
  shop: z.strictObject({ id: z.uuid(), name: z.string().min(1).max(200), isDemo: z.boolean() }),
  /** How many rows of each table follow. */
  rows: z.record(z.string().max(63), z.number().int().min(0)),
});
export type ArchiveHead = z.infer<typeof ArchiveHead>;

/** Last line of an archive: how many rows stood before it, and SHA-256 of every byte before it. */
export const ArchiveFoot = z.strictObject({
  rows: z.number().int().min(0),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
});

/** Parts in which a browser sends an archive: smaller than any body's limit, and sent again alone when the line breaks. */
export const PART_BYTES = 8 * 1024 * 1024;
export const MOST_PARTS = 512;

export const ArchivePart = z.object({
  upload: z.uuid(),
  part: z.coerce
    .number()
    .int()
    .min(0)
    .max(MOST_PARTS - 1),
});
/** Upload null: what the newest restore put aside. */
export const LookAtArchive = z.object({ upload: z.uuid().nullable() });
/** What was looked at is what is put in: told by the hash in the archive's foot. */
export const RestoreArchive = z.object({ sha256: ArchiveFoot.shape.sha256 });

/** Rows of one kind of record, as they stand here and in the archive. */
export interface GroupChange {
  readonly group: string;
  readonly here: number;
  readonly inArchive: number;
  readonly onlyHere: number;
  readonly onlyInArchive: number;
  readonly different: number;
}

/** A setting that the record would tell otherwise than it does now: what the machine holds is what was keyed in last. */
export interface SettingChange {
  readonly owner: string;
  readonly setting: string;
  readonly unit: string;
  readonly here: number | null;
  readonly inArchive: number | null;
}

/** What would change if an archive were put in; nothing has changed yet. */
export interface ArchiveLook {
  readonly sha256: string;
  readonly shopName: string;
  readonly madeAt: string;
  /** Name of the shop here whose place it takes; absent: it comes as another shop. */
  readonly replaces: string | null;
  readonly groups: readonly GroupChange[];
  readonly settings: readonly SettingChange[];
}

/** What was put aside by the newest restore, and can be put back. */
export interface KeptBefore {
  readonly shopId: string;
  readonly shopName: string;
  /** When it was put aside, ISO. */
  readonly at: string;
}

/** Lines of the answer while an archive is looked at or put in. */
export type ArchiveProgress =
  | Progress
  | { readonly kind: 'look'; readonly look: ArchiveLook }
  | { readonly kind: 'restored'; readonly shopId: string };
