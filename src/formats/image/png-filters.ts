/** A filtered row: the bytes from the second on; the first one names its filter. */
type Unfilter = (filtered: Uint8Array, above: Uint8Array, out: Uint8Array, back: number) => void;

/*
 * Source: PNG specification, second edition, 9.2. Bytes of one channel follow each other at the distance of a pixel: each
 * channel is gone through by itself, so that the byte before is at hand, and four pixels at a time: a turn of the loop costs
 * as much as a byte's own work.
 */

const none: Unfilter = (filtered, _above, out) => {
  out.set(filtered.subarray(1));
};

const sub: Unfilter = (filtered, _above, out, back) => {
  const end = out.length;
  for (let channel = 0; channel < back; channel++) {
    let left = 0;
    let i = channel;
    for (; i + 3 * back < end; i += 4 * back) {
      out[i] = left += filtered[i + 1]!;
      out[i + back] = left += filtered[i + back + 1]!;
      out[i + 2 * back] = left += filtered[i + 2 * back + 1]!;
      out[i + 3 * back] = left += filtered[i + 3 * back + 1]!;
      left &= 255;
    }
    for (; i < end; i += back) out[i] = left += filtered[i + 1]!;
  }
};

const up: Unfilter = (filtered, above, out) => {
  const end = out.length;
  const bytes = filtered.subarray(1);
  let i = 0;
  for (; i + 3 < end; i += 4) {
    out[i] = bytes[i]! + above[i]!;
    out[i + 1] = bytes[i + 1]! + above[i + 1]!;
    out[i + 2] = bytes[i + 2]! + above[i + 2]!;
    out[i + 3] = bytes[i + 3]! + above[i + 3]!;
  }
  for (; i < end; i++) out[i] = bytes[i]! + above[i]!;
};

const average: Unfilter = (filtered, above, out, back) => {
  const end = out.length;
  const last = end - 3 * back;
  for (let channel = 0; channel < back; channel++) {
    let left = 0;
    let i = channel;
    for (; i < last; i += 4 * back) {
      const j = i + back;
      const k = j + back;
      const l = k + back;
      out[i] = left = (filtered[i + 1]! + ((left + above[i]!) >> 1)) & 255;
      out[j] = left = (filtered[j + 1]! + ((left + above[j]!) >> 1)) & 255;
      out[k] = left = (filtered[k + 1]! + ((left + above[k]!) >> 1)) & 255;
      out[l] = left = (filtered[l + 1]! + ((left + above[l]!) >> 1)) & 255;
    }
    for (; i < end; i += back) out[i] = left = (filtered[i + 1]! + ((left + above[i]!) >> 1)) & 255;
  }
};

/**
 * Of left, above and upper left the one nearest to what the first two less the third come to; of two as near the one named
 * first. Without branches: in noise none of them can be foreseen, and each wrong guess costs a processor more than the sums.
 */
function nearest(left: number, upper: number, upperLeft: number): number {
  const rise = upper - upperLeft;
  const run = left - upperLeft;
  const ofLeft = Math.abs(rise);
  const ofUpper = Math.abs(run);
  // All ones where the second is nearer than the first, and where the third is nearer than both.
  const isUpper = (ofUpper - ofLeft) >> 31;
  const ofEither = ofLeft ^ ((ofLeft ^ ofUpper) & isUpper);
  const isUpperLeft = (Math.abs(rise + run) - ofEither) >> 31;
  const either = left ^ ((left ^ upper) & isUpper);
  return either ^ ((either ^ upperLeft) & isUpperLeft);
}

const paeth: Unfilter = (filtered, above, out, back) => {
  const end = out.length;
  for (let channel = 0; channel < back; channel++) {
    let left = 0;
    let upperLeft = 0;
    for (let i = channel; i < end; i += back) {
      const upper = above[i]!;
      left = (filtered[i + 1]! + nearest(left, upper, upperLeft)) & 255;
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
