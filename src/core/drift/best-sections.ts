import { fail, ok, type Result } from '../result';

/** What a section of so many rows costs and takes; index 0 is not used. */
export interface SectionCosts {
  /** Money: setting up, waste at both ends, pieces that the drift will spoil. Infinite where such a section is not allowed. */
  readonly cost: readonly number[];
}

export interface SectionPlan {
  /** Rows of each section, the longest first. */
  readonly sections: readonly number[];
  readonly cost: number;
}

export interface NoPlan {
  readonly kind: 'no-section-allowed';
}

/** For every number of rows up to some: the least that whole sections come to, and the last section of that way (0: no way). */
export interface Least {
  readonly sum: Float64Array;
  readonly last: Int32Array;
}

/** @param amount what a section of so many rows counts; index 0 is not used, Infinity where it is not allowed. */
export function leastOf(rows: number, amount: readonly number[]): Least {
  const most = amount.length - 1;
  const sum = new Float64Array(rows + 1).fill(Infinity);
  const last = new Int32Array(rows + 1);
  sum[0] = 0;
  for (let n = 1; n <= rows; n++)
    for (let k = 1; k <= most && k <= n; k++) {
      const own = sum[n - k]! + amount[k]!;
      if (own >= sum[n]!) continue;
      sum[n] = own;
      last[n] = k;
    }
  return { sum, last };
}

/** From the best choice for every number of rows back to the sections it is made of. */
function sectionsOf(last: Int32Array, rows: number): readonly number[] {
  const sections: number[] = [];
  for (let left = rows; left > 0; left -= last[left]!) sections.push(last[left]!);
  return sections.sort((a, b) => b - a);
}

/**
 * The cheapest way to cut a run of whole rows into sections, exact: the best for n rows is the best for n - k and one
 * section of k, whatever k.
 * Source: dynamic programming over the number of rows (Bellman), textbook.
 * @param rows rows of the run, 1 and more. @param costs of sections of 1, 2, ... rows, as many as may stand in one.
 */
export function bestSections(rows: number, { cost }: SectionCosts): Result<SectionPlan, NoPlan> {
  const { sum, last } = leastOf(rows, cost);
  if (!Number.isFinite(sum[rows]!)) return fail({ kind: 'no-section-allowed' });
  return ok({ sections: sectionsOf(last, rows), cost: sum[rows]! });
}
