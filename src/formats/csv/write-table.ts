import { csvFormatRows } from 'd3';
import { markFormulas } from './formula-marks';

export type Cell = string | number | null;

/** A cell that a spreadsheet would take for a formula, or for several cells with one among them, is marked as text; figures stay figures. */
const safe = (cell: Cell): string => {
  if (cell === null) return '';
  if (typeof cell === 'number') return String(cell);
  return markFormulas(cell);
};

/** A table as CSV (RFC 4180): a head with its units, lines ended by CR LF, point as the decimal sign. */
export const writeTable = (head: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  `${csvFormatRows([[...head], ...rows.map((row) => row.map(safe))]).replaceAll('\n', '\r\n')}\r\n`;
