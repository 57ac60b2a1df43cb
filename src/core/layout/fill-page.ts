import type { Box } from '../target/block';
import type { PageArea } from './page-area';
import { fillRows, type CellSize } from './rows';

/** One item of a layout as it must be placed. */
export interface LayoutItem {
  readonly id: string;
  /** Art and cut line together, as the item stands upright. */
  readonly cell: CellSize;
  /** Whether it may lie turned by a quarter. */
  readonly mayTurn: boolean;
}

/** One copy on the page. */
export interface Placement {
  readonly itemId: string;
  readonly box: Box;
  /** Counter-clockwise from upright. */
  readonly turnDeg: 0 | 90;
}

/** A box with across and along exchanged. */
const transposed = (box: Box): Box => ({
  left: box.bottom,
  bottom: box.left,
  width: box.height,
  height: box.width,
});
const flipped = ({ widthMm, lengthMm }: CellSize): CellSize => ({ widthMm: lengthMm, lengthMm: widthMm });

/** Straight rows or straight columns of one cell, whichever hold more. */
function fillBothWays(area: Box, keepOuts: readonly Box[], cell: CellSize, gapMm: number): readonly Box[] {
  const rows = fillRows({ area, keepOuts, cell, gapMm });
  const columns = fillRows({
    area: transposed(area),
    keepOuts: keepOuts.map(transposed),
    cell: flipped(cell),
    gapMm,
  });
  return columns.length > rows.length ? columns.map(transposed) : rows;
}

/**
 * The most copies of one item on a page: in straight rows or straight columns, upright or, where that is allowed, turned.
 * @param gapMm between copies, >= 0.
 */
export function fillPage({ usable, keepOuts }: PageArea, item: LayoutItem, gapMm: number): readonly Placement[] {
  if (!usable) return [];
  const placed = (cell: CellSize, turnDeg: 0 | 90): readonly Placement[] =>
    fillBothWays(usable, keepOuts, cell, gapMm).map((box) => ({ itemId: item.id, box, turnDeg }));
  const upright = placed(item.cell, 0);
  if (!item.mayTurn) return upright;
  const turned = placed(flipped(item.cell), 90);
  return turned.length > upright.length ? turned : upright;
}
