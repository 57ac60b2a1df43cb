import 'server-only';
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ArchiveLook } from '@/contracts/archive';
import { urlOf } from '@/db/archive/databases';
import { environment } from '@/env/environment';
import { fileNamePart } from '@/formats/file-name';
import { now } from '../clock';
import { archiveStream } from './archive-out';
import { ArchiveRefused } from './archive-read';
import { forgetReady, keptBefore, lookAtArchive, namesBeside, putInPlace } from './archive-restore';
import type { Told } from './progress-response';
import { dropUpload, uploadPath } from './archive-upload';

const here = (): string => environment().DATABASE_URL;

/** The whole shop as a file to be kept elsewhere. */
export function archiveResponse(shop: { readonly id: string; readonly name: string }): Response {
  const day = now().toISOString().slice(0, 10);
  return new Response(Readable.toWeb(archiveStream(here(), shop.id)) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': 'application/gzip',
      'content-disposition': `attachment; filename="${fileNamePart(shop.name)}-${day}.jsonl.gz"`,
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}

/** Looks at an archive that was sent; the file is not needed any more afterwards. */
export async function lookAtUpload(upload: string, told: Told): Promise<ArchiveLook> {
  try {
    return await lookAtArchive(here(), uploadPath(upload), told);
  } finally {
    await dropUpload(upload);
  }
}

/** Looks at what the newest restore put aside, by the same way as any archive. */
export async function lookAtBefore(told: Told): Promise<ArchiveLook> {
  const before = await keptBefore(here());
  if (!before) throw new ArchiveRefused('Nothing was put aside.');
  const upload = randomUUID();
  told.onProgress?.('Reading what was put aside', 0, 1);
  const aside = urlOf(here(), namesBeside(here()).aside);
  await pipeline(archiveStream(aside, before.shopId), createWriteStream(uploadPath(upload), { mode: 0o600 }));
  return lookAtUpload(upload, told);
}

export const restore = (sha256: string, told: Told): Promise<string> => putInPlace(here(), sha256, told);
/** Drops what was looked at; where somebody else works on an archive, or chose another one, there is nothing of ours left. */
export async function leaveAsItIs(sha256: string): Promise<void> {
  try {
    await forgetReady(here(), sha256);
  } catch (error) {
    if (!(error instanceof ArchiveRefused)) throw error;
  }
}
export const readBefore = () => keptBefore(here());
