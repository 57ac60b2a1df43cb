import 'server-only';
import { desc, eq } from 'drizzle-orm';
import { identity, type Affine } from '@/core/geometry/affine';
import { aboutCentre } from '@/core/cutting/page-move';
import { mapOnSheet, type Load, type TurnDeg } from '@/core/geometry/load';
import type { Database } from '@/db/client';
import { findSavedCorrection } from '@/db/queries/bench';
import type { SetupRow } from '@/db/queries/shop';
import { calibrationSheet, cutSet } from '@/db/schema/calibration';

/** The correction by which a setup's cut lines are moved in the file, and how its sheet lay. */
export interface FileCorrection {
  readonly id: string;
  readonly sixNumbers: readonly number[];
  readonly load: Load;
}

const UPRIGHT: Load = { turnDeg: 0, face: 'ink-up' };

/** How the newest sheet of a calibration lay in the machine. */
export async function lastLoadOf(database: Database, calibrationId: string | null): Promise<Load> {
  if (calibrationId === null) return UPRIGHT;
  const [row] = await database
    .select({ turnDeg: cutSet.turnDeg, face: cutSet.face })
    .from(cutSet)
    .innerJoin(calibrationSheet, eq(cutSet.calibrationSheetId, calibrationSheet.id))
    .where(eq(calibrationSheet.calibrationId, calibrationId))
    .orderBy(desc(cutSet.cutAt))
    .limit(1);
  return row ? { turnDeg: row.turnDeg as TurnDeg, face: row.face } : UPRIGHT;
}

/** The saved correction that moves cut lines in the file; null where the machine's settings do it all, or nothing is saved. */
export async function correctionInForce(database: Database, row: SetupRow): Promise<FileCorrection | null> {
  const [saved] = await findSavedCorrection(database, row.setup.id);
  const sixNumbers = saved?.correction.fileCorrection;
  if (!saved || !sixNumbers) return null;
  return { id: saved.correction.id, sixNumbers, load: await lastLoadOf(database, saved.correction.calibrationId) };
}

/** A correction as a move of lines on the page, about its middle, for a sheet that lies so. */
export function moveOnPage(
  sixNumbers: readonly number[] | null,
  load: Load,
  page: { readonly widthMm: number; readonly lengthMm: number },
): Affine<'page', 'page'> {
  if (!sixNumbers) return identity<'page'>();
  const [xx = 1, xy = 0, yx = 0, yy = 1, tx = 0, ty = 0] = sixNumbers;
  const onSheet = mapOnSheet({ xx, xy, yx, yy, tx, ty }, load);
  return aboutCentre(onSheet as unknown as Affine<'page', 'page'>, { x: page.widthMm / 2, y: page.lengthMm / 2 });
}
