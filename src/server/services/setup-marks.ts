import 'server-only';
import type { LoadModel } from '@/core/fit/load-noise';
import type { Point } from '@/core/geometry/affine';
import { loadModelOf, markPlaces, markSpaceOf, type MarkScheme } from '@/core/shop/marks';
import { ownMarkCentres, USUAL_MARKS, type Block, type MarkSpace } from '@/core/target/block';
import type { SetupRow } from '@/db/queries/shop';

/** Four corner marks of the usual size and inset, where a shop has not said which it uses. */
const USUAL_SCHEME: MarkScheme = { kind: 'four_corners', ...USUAL_MARKS, keepOutMm: 5, edgeMinMm: 10 };

/** The marks that stand on this setup's prints: those its program prints, else those its cutter reads. */
export const schemeOf = (row: SetupRow): MarkScheme => row.programScheme ?? row.cutterScheme ?? USUAL_SCHEME;

/** White that this print mode leaves at the worst edge. */
export function unprintableOf({ printer, printMode }: SetupRow): number {
  if (printMode.isBorderless) return 0;
  return Math.max(printer.marginLeftMm, printer.marginRightMm, printer.marginTopMm, printer.marginBottomMm);
}

/** Room that marks take from a check sheet's page. Our own marks of route D stand where the usual ones would. */
export const markSpaceFor = (row: SetupRow): MarkSpace =>
  row.setup.route === 'D' ? USUAL_MARKS : markSpaceOf(schemeOf(row));

export interface SetupMarks {
  readonly places: readonly Point[];
  /** What the machine makes of them at each load. */
  readonly model: LoadModel;
}

/** The marks that a cutter reads on a check sheet, sheet frame. */
export function marksFor(row: SetupRow, block: Block): SetupMarks {
  const isOurs = row.setup.route === 'D';
  const isByHand = row.setup.family === 'F8';
  const own = ownMarkCentres(block);
  const printed = isOurs ? own : markPlaces(schemeOf(row), block.page);
  const places = isOurs && isByHand ? own.filter((p) => p.x < 0) : printed;
  return { places, model: loadModelOf(row.cutter.markUse, places.length) };
}
