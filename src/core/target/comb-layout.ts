import { BORDER_ROOM_MM, CELLS_BOTTOM_MM, CELLS_LEFT_MM, cellStarts, type Block, type Box } from './block';
import { COMB_BELOW_MM, COMB_BOX_LENGTH_MM, COMB_BOX_WIDTH_MM } from './comb';

/** A cell holds one comb across, one along, and a pocket beside them. */
export const COMB_CELL_WIDTH_MM = COMB_BOX_LENGTH_MM;
export const COMB_CELL_LENGTH_MM = COMB_BOX_WIDTH_MM + COMB_BOX_LENGTH_MM;

export interface CombGrid {
  readonly columnLeftsMm: readonly number[];
  readonly rowBottomsMm: readonly number[];
}

/** Two or three combs across and along on a block; null when it holds fewer. */
export function combGridOf(block: Block): CombGrid | null {
  const columns = cellStarts(CELLS_LEFT_MM, block.widthMm - BORDER_ROOM_MM, COMB_CELL_WIDTH_MM, 0);
  const rows = cellStarts(CELLS_BOTTOM_MM, block.lengthMm - BORDER_ROOM_MM, COMB_CELL_LENGTH_MM, 0);
  return columns && rows ? { columnLeftsMm: columns, rowBottomsMm: rows } : null;
}

export interface CombCellBoxes {
  readonly across: Box;
  readonly along: Box;
  readonly pocket: Box;
}

/** The comb across at the sheet's outer end, the one along at its outer side: far apart, they tell turn and scale best. */
export function combBoxes(
  left: number,
  bottom: number,
  outer: { readonly isBottom: boolean; readonly isRight: boolean },
): CombCellBoxes {
  const rest = outer.isBottom ? bottom + COMB_BOX_WIDTH_MM : bottom;
  const pocketWidth = COMB_CELL_WIDTH_MM - COMB_BOX_WIDTH_MM;
  return {
    across: {
      left,
      bottom: outer.isBottom ? bottom : bottom + COMB_BOX_LENGTH_MM,
      width: COMB_BOX_LENGTH_MM,
      height: COMB_BOX_WIDTH_MM,
    },
    along: {
      left: outer.isRight ? left + pocketWidth : left,
      bottom: rest,
      width: COMB_BOX_WIDTH_MM,
      height: COMB_BOX_LENGTH_MM,
    },
    pocket: {
      left: outer.isRight ? left : left + COMB_BOX_WIDTH_MM,
      bottom: rest,
      width: pocketWidth,
      height: COMB_BOX_LENGTH_MM,
    },
  };
}

/** s = 0, w = 0 of the two combs in their boxes, block coordinates. */
export const combCentres = ({ across, along }: CombCellBoxes) => ({
  across: { x: across.left + COMB_BOX_LENGTH_MM / 2, y: across.bottom + COMB_BELOW_MM },
  along: { x: along.left + COMB_BOX_WIDTH_MM - COMB_BELOW_MM, y: along.bottom + COMB_BOX_LENGTH_MM / 2 },
});

/** From the middle of a spot's ring to the middle of its number. */
export const RING_TO_NUMBER_MM = 17;

/** Where a pocket holds what is common to a spot: low its grid or blade trail, above that its ring and its number. */
export const pocketPlaces = ({ left, bottom, width }: Box) => ({
  grid: { x: left + width / 2, y: bottom + 20 },
  ring: { x: left + 9, y: bottom + 44 },
  number: { x: left + 9 + RING_TO_NUMBER_MM, y: bottom + 44 },
});
