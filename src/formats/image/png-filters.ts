/** A filtered row: the bytes from the second on; the first one names its filter. */
type Unfilter = (filtered: Uint8Array, above: Uint8Array, out: Uint8Array, back: number) => void;

/*
 * Source: PNG specification, second edition, 9.2. Bytes of one channel follow each other at the distance of a pixel: each
 * channel is gone through by itself, so that the byte before is at hand.
 */

const none: Unfilter = (filtered, _above, out) => {
  out.set(filtered.subarray(1));
};

const sub: Unfilter = (filtered, _above, out, back) => {
  const end = out.length;
  for (let channel = 0; channel < back; channel++) {
    let left = 0;
    for (let i = channel; i < end; i += back) {
      left = ((filtered[i + 1] ?? 0) + left) & 255;
      out[i] = left;
    }
  }
};

const up: Unfilter = (filtered, above, out) => {
  const end = out.length;
  for (let i = 0; i < end; i++) out[i] = (filtered[i + 1] ?? 0) + (above[i] ?? 0);
};

const average: Unfilter = (filtered, above, out, back) => {
  const end = out.length;
  for (let channel = 0; channel < back; channel++) {
    let left = 0;
    for (let i = channel; i < end; i += back) {
      left = ((filtered[i + 1] ?? 0) + ((left + (above[i] ?? 0)) >> 1)) & 255;
      out[i] = left;
    }
  }
};

/** Of left, above and upper left the one nearest to what the first two less the third come to. */
function nearest(a: number, b: number, c: number): number {
  const pa = Math.abs(b - c);
  const pb = Math.abs(a - c);
  const pc = Math.abs(a + b - 2 * c);
  if (pa <= pb && pa <= pc) return a;
  return pb <= pc ? b : c;
}

const paeth: Unfilter = (filtered, above, out, back) => {
  const end = out.length;
  for (let channel = 0; channel < back; channel++) {
    let left = 0;
    let upperLeft = 0;
    for (let i = channel; i < end; i += back) {
      const upper = above[i] ?? 0;
      left = ((filtered[i + 1] ?? 0) + nearest(left, upper, upperLeft)) & 255;
      out[i] = left;
      upperLeft = upper;
    }
  }
};

const UNFILTERS: readonly Unfilter[] = [none, sub, up, average, paeth];

/**
 * Undoes the filter of one row.
 * @param filtered its filter's number, then the filtered bytes. @param above the row before, unfiltered (zeros above the first).
 * @param out takes the row, one byte shorter. @param back bytes from a pixel to the one before it.
 * @returns false when there is no such filter.
 */
export function unfilterRow(filtered: Uint8Array, above: Uint8Array, out: Uint8Array, back: number): boolean {
  const unfilter = UNFILTERS[filtered[0] ?? 255];
  if (!unfilter) return false;
  unfilter(filtered, above, out, back);
  return true;
}
