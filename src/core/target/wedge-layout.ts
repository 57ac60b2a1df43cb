import type { Box } from './block';
import type { Cell } from './cells';
import { WEDGE_BOX_LENGTH_MM, WEDGE_BOX_WIDTH_MM } from './wedge';

/** Boxes of a cell's figures in block coordinates: place 0 and 1 of each axis, and the pocket kept for two discs. */
export function wedgeBoxes(cell: Cell): {
  readonly along: readonly Box[];
  readonly across: readonly Box[];
  readonly pocket: Box;
} {
  const outerIsTop = !cell.isBottomRow;
  const alongBottom = outerIsTop ? cell.bottom + 36 : cell.bottom;
  const restBottom = outerIsTop ? cell.bottom : cell.bottom + 20;
  const acrossLeft = cell.isRightColumn ? cell.left + 16 : cell.left;
  const stacked = [0, 1].map((i) => ({
    left: cell.left,
    bottom: alongBottom + i * WEDGE_BOX_WIDTH_MM,
    width: WEDGE_BOX_LENGTH_MM,
    height: WEDGE_BOX_WIDTH_MM,
  }));
  const sideBySide = [0, 1].map((i) => ({
    left: acrossLeft + i * WEDGE_BOX_WIDTH_MM,
    bottom: restBottom,
    width: WEDGE_BOX_WIDTH_MM,
    height: WEDGE_BOX_LENGTH_MM,
  }));
  const pocketLeft = cell.isRightColumn ? cell.left : cell.left + 20;
  return {
    along: stacked,
    across: sideBySide,
    pocket: { left: pocketLeft, bottom: restBottom, width: 16, height: 36 },
  };
}
