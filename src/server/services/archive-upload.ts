import 'server-only';
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PART_BYTES } from '@/contracts/archive';

const DAY_MS = 86_400_000;
/** Files under names of our own: nothing that was sent along is part of a path. */
const folder = (): string => join(tmpdir(), 'red-plumb-archives');

/** Where an archive stands while it is looked at. @param upload a uuid. */
export const uploadPath = (upload: string): string => join(folder(), `${upload}.gz`);

/** What was left behind by uploads that were never finished. */
async function clearOld(): Promise<void> {
  for (const name of await readdir(folder())) {
    const path = join(folder(), name);
    const { mtimeMs } = await stat(path);
    if (Date.now() - mtimeMs > DAY_MS) await rm(path, { force: true });
  }
}

/** Keeps one part in its place; sent twice it stands once. False where a part before it has not come. */
export async function keepPart(upload: string, part: number, bytes: Uint8Array): Promise<boolean> {
  await mkdir(folder(), { recursive: true, mode: 0o700 });
  if (part === 0) await clearOld();
  const file = await open(uploadPath(upload), part === 0 ? 'w' : 'r+', 0o600).catch(() => null);
  if (!file) return false;
  try {
    if ((await file.stat()).size < part * PART_BYTES) return false;
    await file.write(bytes, 0, bytes.length, part * PART_BYTES);
    return true;
  } finally {
    await file.close();
  }
}

export const dropUpload = (upload: string): Promise<void> => rm(uploadPath(upload), { force: true });
