/** Quick: five spots. Full: as many as the sheet holds. */
export const CHECK_KINDS = ['quick', 'full'] as const;
export type CheckKind = (typeof CHECK_KINDS)[number];

/** Where a grid's cells begin: left ends of its columns, lower ends of its rows, least first. */
export interface Grid {
  readonly columnLeftsMm: readonly number[];
  readonly rowBottomsMm: readonly number[];
}

/** Room for one spot's figures on a block; block coordinates. */
export interface Cell {
  readonly row: number;
  readonly column: number;
  readonly left: number;
  readonly bottom: number;
  readonly isTopRow: boolean;
  readonly isBottomRow: boolean;
  readonly isRightColumn: boolean;
}

/** Cells row by row from the top left, as one reads with the arrow up. */
function allCells({ columnLeftsMm: lefts, rowBottomsMm: bottoms }: Grid): readonly Cell[] {
  return bottoms
    .map((bottom, row) =>
      lefts.map((left, column): Cell => ({
        row,
        column,
        left,
        bottom,
        isTopRow: row === bottoms.length - 1,
        isBottomRow: row === 0,
        isRightColumn: column === lefts.length - 1,
      })),
    )
    .reverse()
    .flat();
}

/** Quick: the corner cells and, where there is one, the cell nearest the middle. Full: all. */
export function cellsOf(grid: Grid, kind: CheckKind): readonly Cell[] {
  const all = allCells(grid);
  if (kind === 'full') return all;
  const middleColumn = grid.columnLeftsMm.length === 3 ? 1 : 0;
  const middleRow = 1;
  return all.filter((cell) => {
    const isCorner = (cell.isTopRow || cell.isBottomRow) && (cell.column === 0 || cell.isRightColumn);
    return isCorner || (cell.row === middleRow && cell.column === middleColumn);
  });
}
