import 'server-only';
import { statfs } from 'node:fs/promises';
import { environment } from '@/env/environment';

/** Below this a page warns. */
const WARNED_BYTES = 1e9;
/** Below this nothing large is taken in. */
const NEEDED_BYTES = 200e6;

/** Free bytes of the disk that holds the data; null where no folder is watched. */
async function freeBytes(): Promise<number | null> {
  const folder = environment().RED_PLUMB_DATA;
  if (folder === undefined) return null;
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
}

const megabytes = (bytes: number): string => `${Math.max(0, Math.round(bytes / 1e6)).toLocaleString('en-GB')} MB`;

/** What a page says of a disk that fills up; null while there is room. */
export async function diskWarning(): Promise<string | null> {
  const free = await freeBytes();
  if (free === null || free >= WARNED_BYTES) return null;
  return `The disk has ${megabytes(free)} left. Free some space on the machine that runs Red Plumb${free < NEEDED_BYTES ? ': files are not taken in any more' : ''}.`;
}

/** Why a file is not taken in now; null where there is room for it. */
export async function uploadRefusal(): Promise<string | null> {
  const free = await freeBytes();
  if (free === null || free >= NEEDED_BYTES) return null;
  return `The disk has ${megabytes(free)} left, so the file was not taken in. Free some space on the machine that runs Red Plumb, then send it again.`;
}
