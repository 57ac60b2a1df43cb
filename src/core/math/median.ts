/** Median absolute deviation to standard deviation of a normal distribution. From memory. */
export const MAD_TO_SD = 1.4826;

/**
 * The value that `rank` others of an array are not above; the array is put in another order. Source: Hoare, Algorithm 65: Find
 * (1961), from memory.
 */
export function valueOfRank(values: Float64Array, rank: number): number {
  let [from, to] = [0, values.length - 1];
  while (from < to) {
    const pivot = values[(from + to) >> 1]!;
    let [i, j] = [from, to];
    while (i <= j) {
      while (values[i]! < pivot) i++;
      while (values[j]! > pivot) j--;
      if (i > j) break;
      const held = values[i]!;
      values[i++] = values[j]!;
      values[j--] = held;
    }
    if (rank <= j) to = j;
    else if (rank >= i) from = i;
    else break;
  }
  return values[rank]!;
}

/** The middle value, or the mean of the two middle ones; NaN of none. */
export function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** Median of sizes without their signs (of an even number the upper middle one); `held` is as long, and written over. */
export function medianSize(values: Float64Array, held: Float64Array): number {
  for (let i = 0; i < values.length; i++) held[i] = Math.abs(values[i]!);
  return valueOfRank(held, values.length >> 1);
}
