import { csvFormatRows } from 'd3';

export type Cell = string | number | null;

/**
 * Where a spreadsheet would begin a formula: at the start of a cell, or after what it may take for the end of one, a semicolon or tab as
 * its own language separates cells. Full-width signs count as well.
 * Source: OWASP, CSV Injection (the signs); the separators are common practice, no published source.
 */
const FORMULA = /(^|[;\t\r\n,|])(["'\s]*)([=+\-@\uff1d\uff0b\uff0d\uff20\t\r])/g;

/** A cell that a spreadsheet would take for a formula, or for several cells with one among them, is marked as text; figures stay figures. */
const safe = (cell: Cell): string => {
  if (cell === null) return '';
  if (typeof cell === 'number') return String(cell);
  return cell.replace(FORMULA, "$1$2'$3");
};

/** A table as CSV (RFC 4180): a head with its units, lines ended by CR LF, point as the decimal sign. */
export const writeTable = (head: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  `${csvFormatRows([[...head], ...rows.map((row) => row.map(safe))]).replaceAll('\n', '\r\n')}\r\n`;
