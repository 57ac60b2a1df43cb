export interface SheetFrame {
  readonly viewBox: string;
  readonly transform: string;
}

/** View box and transform that show a sheet (frame: middle at 0, y up) turned counter-clockwise on a screen (y down). */
export function sheetFrame(
  paper: { readonly widthMm: number; readonly lengthMm: number },
  turnDeg: number,
  marginMm = 2,
): SheetFrame {
  const isLying = turnDeg % 180 !== 0;
  const width = (isLying ? paper.lengthMm : paper.widthMm) + 2 * marginMm;
  const height = (isLying ? paper.widthMm : paper.lengthMm) + 2 * marginMm;
  return { viewBox: `${-width / 2} ${-height / 2} ${width} ${height}`, transform: `scale(1 -1) rotate(${turnDeg})` };
}
