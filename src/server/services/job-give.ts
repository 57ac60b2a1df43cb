import 'server-only';
import { createEvent } from 'ics';
import type { Database } from '@/db/client';
import { findJob, findLocked, findLockedFile, findOneArt, findPrint, findRelease } from '@/db/queries/job';
import { JOB_FILE_KINDS } from '@/db/schema/job';
import { fileResponse } from './file-response';
import { titleOf } from './job-content';

type Kind = (typeof JOB_FILE_KINDS)[number];

const MEDIA: Readonly<Record<Kind, string>> = {
  'print-pdf': 'application/pdf',
  'print-svg': 'image/svg+xml',
  drawing: 'image/svg+xml',
  'queue-pdf': 'application/pdf',
  'cut-hpgl': 'application/vnd.hp-hpgl',
  'cut-svg': 'image/svg+xml',
  'cut-dxf': 'image/vnd.dxf',
};

const isKind = (words: string): words is Kind => JOB_FILE_KINDS.some((kind) => kind === words);

/** A file's name with nothing in it that a head line or a file system stumbles over. */
const plainName = (name: string): string => name.replace(/[^\w.-]+/g, '-');

/** Art as it was placed. */
export async function artOf(database: Database, jobId: string, fileId: string): Promise<Response | null> {
  const row = await findOneArt(database, jobId, fileId);
  return row ? fileResponse({ name: plainName(row.fileName), mediaType: row.mediaType, body: row.content }) : null;
}

/** A stored print file of a locked layout. */
export async function lockedFileOf(database: Database, jobId: string, kind: string): Promise<Response | null> {
  const row = isKind(kind) ? await findLockedFile(database, jobId, kind) : undefined;
  return row ? fileResponse({ name: row.name, mediaType: MEDIA[row.kind], body: row.content }) : null;
}

/** A stored cut file as it was released. */
export async function releasedFileOf(database: Database, jobId: string, id: string): Promise<Response | null> {
  const row = await findRelease(database, jobId, id);
  if (!row?.kind || !row.content || row.name === null) return null;
  return fileResponse({ name: row.name, mediaType: MEDIA[row.kind], body: row.content });
}

/** The end of a print's drying as one calendar entry. Null where nothing dries. */
export async function dryCalendar(database: Database, jobId: string): Promise<Response | null> {
  const found = await findJob(database, jobId);
  const locked = found && (await findLocked(database, jobId));
  const print = locked && (await findPrint(database, locked.layout.id));
  const dryAt = print?.print.dryAt;
  if (!found || !dryAt) return null;
  const title = `${found.job.name} (${titleOf(found.job).toLowerCase()}): dry`;
  const { value, error } = createEvent({
    ...{ uid: `${jobId}@red-plumb`, title, description: 'The print may be laminated or cut from now on.' },
    ...{ start: dryAt.getTime(), startInputType: 'utc', duration: { minutes: 15 } },
    // The same entry, the same bytes.
    created: print.print.printedAt.getTime(),
    lastModified: print.print.printedAt.getTime(),
  });
  if (error || !value) return null;
  return fileResponse({ name: `job-${found.job.number}-dry.ics`, mediaType: 'text/calendar', body: value });
}
