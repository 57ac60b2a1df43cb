import { v4 as uuid } from 'uuid';
import { MOST_PARTS, PART_BYTES, type ArchiveProgress } from '@/contracts/archive';

const TRIES = 4;
const PAUSE_MS = 700;
const PLACE = '/shop/archive';

async function sendPart(url: string, body: Blob, signal: AbortSignal): Promise<void> {
  for (let tried = 1; ; tried++) {
    try {
      const answer = await fetch(url, { method: 'PUT', body, signal });
      if (answer.ok) return;
      throw new Error(await answer.text());
    } catch (error) {
      if (signal.aborted || tried === TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS * tried));
    }
  }
}

/** Sends a file in parts, each again where the line breaks. Gives the name under which it stands. */
export async function sendArchive(
  file: File,
  signal: AbortSignal,
  onProgress: (line: ArchiveProgress) => void,
): Promise<string> {
  const parts = Math.max(1, Math.ceil(file.size / PART_BYTES));
  if (parts > MOST_PARTS) throw new Error('The file is larger than 4 GB: no archive of a shop is.');
  const upload = uuid();
  for (let part = 0; part < parts; part++) {
    onProgress({ kind: 'progress', words: 'Sending the file', done: part, of: parts });
    const bytes = file.slice(part * PART_BYTES, (part + 1) * PART_BYTES);
    await sendPart(`${PLACE}/parts/${upload}/${String(part)}`, bytes, signal);
  }
  return upload;
}
