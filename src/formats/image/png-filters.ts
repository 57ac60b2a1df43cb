/** Undoes the filter of one row in place. Source: PNG specification, second edition, 9.2. */
type Unfilter = (row: Uint8Array, above: Uint8Array, back: number) => void;

/* Indexes run from 1: the first byte of a row names its filter. */

const sub: Unfilter = (row, _above, back) => {
  for (let i = 1 + back; i < row.length; i++) row[i] = (row[i] ?? 0) + (row[i - back] ?? 0);
};

const up: Unfilter = (row, above) => {
  for (let i = 1; i < row.length; i++) row[i] = (row[i] ?? 0) + (above[i] ?? 0);
};

const average: Unfilter = (row, above, back) => {
  for (let i = 1; i <= back && i < row.length; i++) row[i] = (row[i] ?? 0) + ((above[i] ?? 0) >> 1);
  for (let i = 1 + back; i < row.length; i++) row[i] = (row[i] ?? 0) + (((row[i - back] ?? 0) + (above[i] ?? 0)) >> 1);
};

/** Of left, above and upper left the one nearest to what the first two less the third come to. */
function nearest(a: number, b: number, c: number): number {
  const pa = Math.abs(b - c);
  const pb = Math.abs(a - c);
  const pc = Math.abs(a + b - 2 * c);
  if (pa <= pb && pa <= pc) return a;
  return pb <= pc ? b : c;
}

const paeth: Unfilter = (row, above, back) => {
  for (let i = 1; i <= back && i < row.length; i++) row[i] = (row[i] ?? 0) + (above[i] ?? 0);
  for (let i = 1 + back; i < row.length; i++)
    row[i] = (row[i] ?? 0) + nearest(row[i - back] ?? 0, above[i] ?? 0, above[i - back] ?? 0);
};

const UNFILTERS: readonly Unfilter[] = [() => undefined, sub, up, average, paeth];

/**
 * @param row its filter's number, then the filtered bytes; unfiltered in place. @param above the row before, unfiltered.
 * @param back bytes from a pixel to the one before it. @returns false when there is no such filter.
 */
export function unfilterRow(row: Uint8Array, above: Uint8Array, back: number): boolean {
  const unfilter = UNFILTERS[row[0] ?? 255];
  if (!unfilter) return false;
  unfilter(row, above, back);
  return true;
}
