import 'server-only';
import { StoredScans } from '@/contracts/stored';
import { fail, ok, type Result } from '@/core/result';
import type { ImageFormat } from '@/formats/image/gray-image';
import { imageFormatOf } from '@/formats/image/image-format';
import type { Database } from '@/db/client';
import { findOriginal, findScanOf } from '@/db/queries/calibration';
import { scanOriginal } from '@/db/schema/calibration';
import { refusal, type Refusal } from './actor';

/** An original larger than this is not kept. */
export const MOST_ORIGINAL_BYTES = 64 * 1024 * 1024;

export interface OriginalPlace {
  readonly calibrationId: string;
  readonly scanId: string;
  /** Its place among the scan's pictures, from 0. */
  readonly no: number;
}

/** Keeps a picture as it came, once; the same sent again is harmless. */
export async function keepOriginal(
  database: Database,
  { calibrationId, scanId, no }: OriginalPlace,
  file: { readonly name: string; readonly content: Uint8Array },
): Promise<Result<true, Refusal>> {
  const owner = await findScanOf(database, calibrationId, scanId);
  if (!owner || no >= StoredScans.parse(owner.scans).length)
    return fail(refusal('There is no such picture among those that were measured.'));
  if (file.content.length > MOST_ORIGINAL_BYTES)
    return fail(refusal('The picture is larger than 64 MB: it is not kept. What was measured of it is.'));
  const format = imageFormatOf(file.content.subarray(0, 16));
  if (!format) return fail(refusal('The file is no PNG, JPEG or TIFF: it is not kept.'));
  const fileName = file.name.slice(0, 200);
  await database
    .insert(scanOriginal)
    .values({ scanId, no, fileName, format, content: Buffer.from(file.content) })
    .onConflictDoNothing();
  return ok(true);
}

const TYPES: Readonly<Record<ImageFormat, string>> = { png: 'image/png', jpeg: 'image/jpeg', tiff: 'image/tiff' };

export interface KeptOriginal {
  readonly fileName: string;
  readonly mediaType: string;
  readonly content: Buffer;
}

/** A picture that was kept as it came; null where there is none. */
export async function keptOriginal(
  database: Database,
  { calibrationId, scanId, no }: OriginalPlace,
): Promise<KeptOriginal | null> {
  if (!(await findScanOf(database, calibrationId, scanId))) return null;
  const row = await findOriginal(database, scanId, no);
  return row ? { fileName: row.fileName, mediaType: TYPES[row.format], content: row.content } : null;
}
