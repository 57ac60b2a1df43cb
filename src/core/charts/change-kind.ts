export type ChangeKind = 'jump' | 'walk' | 'cannot-tell';

export interface Change {
  readonly kind: ChangeKind;
  /** First point after the jump, or last before the walk began. */
  readonly at: number;
  /** Height of the jump, or rise of the walk from its beginning to the last point; the values' unit. */
  readonly size: number;
}

/** Sums over a stretch of values, so that every way of parting them costs nothing. */
function sumsOf(values: readonly number[]) {
  const sums: number[] = [0];
  const squares: number[] = [0];
  for (const [i, v] of values.entries()) {
    sums.push((sums[i] ?? 0) + v);
    squares.push((squares[i] ?? 0) + v * v);
  }
  const misfit = (from: number, to: number): number => {
    const sum = (sums[to] ?? 0) - (sums[from] ?? 0);
    return (squares[to] ?? 0) - (squares[from] ?? 0) - (sum * sum) / (to - from);
  };
  const meanOf = (from: number, to: number): number => ((sums[to] ?? 0) - (sums[from] ?? 0)) / (to - from);
  return { misfit, meanOf };
}

interface Candidate {
  readonly at: number;
  readonly misfit: number;
  readonly size: number;
}

const best = (candidates: readonly Candidate[]): Candidate =>
  candidates.reduce((a, b) => (b.misfit < a.misfit ? b : a), { at: 0, misfit: Infinity, size: 0 });

/** Two levels, parted at every place. */
function bestJump(values: readonly number[]): Candidate {
  const { misfit, meanOf } = sumsOf(values);
  const n = values.length;
  return best(
    values.slice(1).map((_, i) => ({
      at: i + 1,
      misfit: misfit(0, i + 1) + misfit(i + 1, n),
      size: meanOf(i + 1, n) - meanOf(0, i + 1),
    })),
  );
}

/**
 * A level, and from every place on a straight walk away from it: least squares on max(0, time since). Sums over what follows a
 * place are carried along from the end, so that every place costs the same. Values and times are taken from their means first,
 * so that little is lost in the differences of the sums.
 */
function bestWalk(values: readonly number[], times: readonly number[]): Candidate {
  const n = values.length;
  const meanOf = (all: readonly number[]): number => all.reduce((sum, v) => sum + v, 0) / n;
  const [meanValue, meanTime] = [meanOf(values), meanOf(times)];
  const off = values.map((v) => v - meanValue);
  const at = times.map((t) => t - meanTime);
  const whole = off.reduce((sum, u) => sum + u * u, 0);
  const last = at[n - 1] ?? 0;
  let [sumT, sumTT, sumU, sumUT] = [0, 0, 0, 0];
  const candidates: Candidate[] = [];
  for (let i = n - 1; i >= 0; i--) {
    const [t, u] = [at[i] ?? 0, off[i] ?? 0];
    const later = n - 1 - i;
    if (later >= 2) {
      const sumSince = sumT - later * t;
      const cross = sumUT - t * sumU;
      const spread = sumTT - 2 * t * sumT + later * t * t - (sumSince * sumSince) / n;
      const slope = spread > 0 ? cross / spread : 0;
      candidates.push({ at: i, misfit: whole - slope * cross, size: slope * (last - t) });
    }
    sumT += t;
    sumTT += t * t;
    sumU += u;
    sumUT += u * t;
  }
  return best(candidates.reverse());
}

/** Odds of about seven to one between equally many parameters: below them neither is said. */
const LEAST_LEAD = 4;

/**
 * Whether values that left what was usual did so at once or by and by: a step and a bent line, three parameters each, by
 * their likelihoods at the known spread. @param times ascending, any unit; @param sd of one value, same unit as values.
 */
export function changeKind(values: readonly number[], times: readonly number[], sd: number): Change {
  if (values.length < 4) return { kind: 'cannot-tell', at: values.length - 1, size: 0 };
  const jump = bestJump(values);
  const walk = bestWalk(values, times);
  const lead = (walk.misfit - jump.misfit) / sd ** 2;
  const likelier = lead >= 0 ? jump : walk;
  if (Math.abs(lead) < LEAST_LEAD) return { kind: 'cannot-tell', at: likelier.at, size: likelier.size };
  return { kind: lead > 0 ? 'jump' : 'walk', at: likelier.at, size: likelier.size };
}
