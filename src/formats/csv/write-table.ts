import { csvFormatRows } from 'd3';

export type Cell = string | number | null;

/** A cell that a spreadsheet would take for a formula is marked as text; figures stay figures. */
const safe = (cell: Cell): string => {
  if (cell === null) return '';
  if (typeof cell === 'number') return String(cell);
  return /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
};

/** A table as CSV (RFC 4180): a head with its units, lines ended by CR LF, point as the decimal sign. */
export const writeTable = (head: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  `${csvFormatRows([[...head], ...rows.map((row) => row.map(safe))]).replaceAll('\n', '\r\n')}\r\n`;
