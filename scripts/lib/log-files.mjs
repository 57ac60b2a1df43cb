import { join } from 'node:path';
import { ensureFolder } from './data-folder.mjs';

/** The log of the application, in files of 10 MB, of which the last ten are kept. */
export async function openLog(dataFolder) {
  const { createStream } = await import('rotating-file-stream');
  const folder = join(dataFolder, 'logs');
  ensureFolder(folder, 'RED_PLUMB_DATA');
  const log = createStream('application.log', { path: folder, size: '10M', maxFiles: 10, history: 'rotated.txt' });
  // A full disk costs lines of the log, not the application.
  log.on('error', () => undefined);
  log.on('warning', () => undefined);
  return { log, file: join(folder, 'application.log') };
}
