import 'server-only';
import type { JobDraft } from '@/core/layout/job-draft';
import type { LaidOut } from '@/core/layout/lay-out';
import type { findArt, JobRow } from '@/db/queries/job';
import type { PreparedItem } from '@/shapes/prepared-item';
import type { FileCorrection } from './job-correction';

export type ArtRow = Awaited<ReturnType<typeof findArt>>[number];

/** A layout as the thread answers it. */
export interface ReadyLayout extends Omit<LaidOut, 'page'> {
  readonly page: { readonly widthMm: number; readonly lengthMm: number };
  readonly items: readonly PreparedItem[];
}

/** What is locked: plain data that says everything its files are made of. */
export interface LockedContent {
  readonly version: 1;
  readonly title: string;
  readonly draft: JobDraft;
  readonly page: ReadyLayout['page'];
  readonly sheets: number;
  readonly placements: ReadyLayout['placements'];
  readonly markBoxes: ReadyLayout['area']['marks'];
  readonly items: readonly (Pick<PreparedItem, 'id' | 'artBox' | 'cuts'> & Partial<Pick<PreparedItem, 'scores'>>)[];
  /** SHA-256 of each file of art, by its id. */
  readonly art: Readonly<Record<string, string>>;
  /** Six numbers, machine frame: the correction whose lines stand in the print file itself; null where there is none. */
  readonly fileCorrection: readonly number[] | null;
}

/** The same draft, the same art, the same correction: the same content, to the byte. */
export function lockedContent(
  { title, draft }: { readonly title: string; readonly draft: JobDraft },
  ready: ReadyLayout,
  art: readonly ArtRow[],
  correction: FileCorrection | null,
): LockedContent {
  const used = new Set(draft.items.flatMap((i) => (i.art.kind === 'plain' ? [] : [i.art.fileId])));
  return {
    version: 1,
    title,
    draft,
    page: ready.page,
    sheets: ready.sheets,
    placements: ready.placements,
    markBoxes: ready.area.marks,
    items: ready.items.map(({ id, artBox, cuts, scores }) => ({
      id,
      artBox,
      cuts,
      ...(scores.length > 0 && { scores }),
    })),
    art: Object.fromEntries(art.filter((a) => used.has(a.id)).map((a) => [a.id, a.contentSha256.toString('hex')])),
    fileCorrection: correction?.sixNumbers ?? null,
  };
}

export const titleOf = ({ number }: Pick<JobRow, 'number'>): string => `Job ${number}`;
