import 'server-only';
import { eq } from 'drizzle-orm';
import type { KeepLadderInput } from '@/contracts/shop';
import { StoredLadder } from '@/contracts/stored';
import type { Ladder } from '@/core/reading/ladder';
import { fail, ok, type Result } from '@/core/result';
import { layOutBlock, ownMarkCentres } from '@/core/target/block';
import type { Point } from '@/core/geometry/affine';
import type { Database } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { cutter } from '@/db/schema/machines';
import { refusal, type Refusal } from './actor';
import { markSpaceFor } from './setup-marks';

export interface MeasureView {
  readonly setupName: string;
  readonly page: { readonly widthMm: number; readonly lengthMm: number };
  /** The frame that a check sheet prints round itself, in the middle of its page. */
  readonly frame: { readonly widthMm: number; readonly lengthMm: number };
  /** Where marks usually stand about the middle of the page. */
  readonly marks: readonly Point[];
  readonly toleranceMm: number;
  readonly cutterName: string;
  /** The cutter's own row of test lines, where someone described it. */
  readonly ladder: Ladder | null;
}

/** What measuring a sheet of one setup by rule starts from. */
export async function readMeasure(database: Database, setupId: string): Promise<MeasureView | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const { page, pageWidthMm: widthMm, pageLengthMm: lengthMm } = row.printMode;
  const block = layOutBlock({ name: page, widthMm, lengthMm }, markSpaceFor(row));
  const frame = block.ok
    ? { widthMm: block.value.widthMm, lengthMm: block.value.lengthMm }
    : { widthMm: widthMm - 30, lengthMm: lengthMm - 30 };
  const half = { x: frame.widthMm / 2, y: frame.lengthMm / 2 };
  return {
    setupName: row.setup.name,
    page: { widthMm, lengthMm },
    frame,
    marks: block.ok
      ? ownMarkCentres(block.value)
      : [
          { x: -half.x, y: -half.y },
          { x: half.x, y: -half.y },
          { x: half.x, y: half.y },
          { x: -half.x, y: half.y },
        ],
    toleranceMm: row.setup.toleranceMm,
    cutterName: row.cutter.name,
    ladder: row.cutter.ladder === null ? null : StoredLadder.parse(row.cutter.ladder),
  };
}

/** Keeps how a cutter's own test lines are labelled, so that the next reading needs only the line. */
export async function keepLadder(
  database: Database,
  shopId: string,
  input: KeepLadderInput,
): Promise<Result<string, Refusal>> {
  const row = await findSetup(database, input.setupId);
  if (!row || row.cutter.shopId !== shopId) return fail(refusal('This setup is not there any more.'));
  await database.update(cutter).set({ ladder: input.ladder }).where(eq(cutter.id, row.cutter.id));
  return ok(row.cutter.name);
}
