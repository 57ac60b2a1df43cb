import 'server-only';
import { layOutBlock, ownMarkCentres } from '@/core/target/block';
import type { Point } from '@/core/geometry/affine';
import type { Database } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { markSpaceFor } from './setup-marks';

export interface MeasureView {
  readonly setupName: string;
  readonly page: { readonly widthMm: number; readonly lengthMm: number };
  /** The frame that a check sheet prints round itself, in the middle of its page. */
  readonly frame: { readonly widthMm: number; readonly lengthMm: number };
  /** Where marks usually stand about the middle of the page. */
  readonly marks: readonly Point[];
  readonly toleranceMm: number;
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
  };
}
