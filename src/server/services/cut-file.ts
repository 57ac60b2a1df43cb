import 'server-only';
import type { FileAxes } from '@/core/geometry/file-axes';
import type { FeedDirection, Load } from '@/core/geometry/load';
import { decideRoute } from '@/core/shop/decide-route';
import type { Database } from '@/db/client';
import { findSavedCorrection } from '@/db/queries/bench';
import { findSetup } from '@/db/queries/shop';
import { lastLoadOf } from './job-correction';

export interface CutFileView {
  readonly setupName: string;
  readonly feed: FeedDirection;
  /** Of a cutter that takes a plain cut file: how the file's axes stand to the machine. */
  readonly axes: FileAxes | null;
  /** The program traces its own lines: only the print can be moved. */
  readonly isTraced: boolean;
  /** How the sheet was loaded last. */
  readonly load: Load;
  readonly saved: {
    readonly at: Date;
    readonly materialName: string;
    /** Six numbers, machine frame, about the middle of the marks; null when the machine's settings do it all. */
    readonly correction: readonly number[] | null;
  } | null;
}

/** What correcting a cut file of one setup needs: the saved correction, and how drawings stand to the machine. */
export async function readCutFileSetup(database: Database, setupId: string): Promise<CutFileView | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const [saved] = await findSavedCorrection(database, setupId);
  const { route } = decideRoute(row.program, row.setup.family);
  const { fileAcross, fileAlong, feeds } = row.cutter;
  return {
    setupName: row.setup.name,
    feed: feeds,
    axes: route === 'D' ? { across: fileAcross, along: fileAlong } : null,
    isTraced: route === 'B' || route === 'E',
    load: await lastLoadOf(database, saved?.correction.calibrationId ?? null),
    saved: saved
      ? { at: saved.entry.at, materialName: saved.materialName, correction: saved.correction.fileCorrection }
      : null,
  };
}
