import fc from 'fast-check';
import { matrix } from '../math/qr';
import { seededRng, standardNormal } from '../math/random';
import { fitSlip, smoothSlip, type StationSeries } from './slip-filter';

/** Shift and slope of a series of stations, some of them missing, some read twice. */
function series(seed: number, count: number, { slip = 0.002, noise = 0.05 } = {}): StationSeries {
  const rng = seededRng(seed);
  const at: number[] = [];
  for (let i = 0, place = 0; i < count; i++) {
    place += rng() < 0.2 ? 0 : 100 * (1 + Math.floor(3 * rng()));
    at.push(place);
  }
  let walk = 0;
  const values = at.map((s, i) => {
    walk += Math.sqrt(slip * slip * (s - (at[i - 1] ?? 0))) * standardNormal(rng);
    return 0.3 + 0.0002 * s + walk + noise * standardNormal(rng);
  });
  return {
    atMm: Float64Array.from(at),
    valuesMm: Float64Array.from(values),
    weights: Float64Array.from(at, () => 0.5 + rng()),
    design: matrix(count, 2, (row, column) => (column === 0 ? 1 : at[row]! / 1000)),
  };
}

/** Solves L x = b for a lower triangle. */
function forward(l: number[][], b: readonly number[]): number[] {
  const x: number[] = [];
  l.forEach((row, i) => {
    x.push((b[i]! - row.slice(0, i).reduce((sum, v, k) => sum + v * x[k]!, 0)) / row[i]!);
  });
  return x;
}

function cholesky(a: readonly (readonly number[])[]): number[][] {
  const l: number[][] = a.map((row) => row.map(() => 0));
  a.forEach((row, i) => {
    for (let j = 0; j <= i; j++) {
      const rest = row[j]! - l[i]!.slice(0, j).reduce((sum, v, k) => sum + v * l[j]![k]!, 0);
      l[i]![j] = i === j ? Math.sqrt(rest) : rest / l[j]![j]!;
    }
  });
  return l;
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, v, i) => sum + v * b[i]!, 0);

/** The same by the covariance matrix of all readings at once. */
function dense({ atMm, valuesMm, weights, design }: StationSeries, ratio: number) {
  const n = valuesMm.length;
  const p = design.columns;
  const covariance = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) => ratio * Math.min(atMm[i]!, atMm[j]!) + (i === j ? weights[i]! : 0)),
  );
  const l = cholesky(covariance);
  const columns = Array.from({ length: p }, (_, k) =>
    forward(
      l,
      Array.from({ length: n }, (_, i) => design.data[i * p + k]!),
    ),
  );
  const y = forward(l, [...valuesMm]);
  const normal = columns.map((a) => columns.map((b) => dot(a, b)));
  const ln = cholesky(normal);
  const z = forward(
    ln,
    columns.map((c) => dot(c, y)),
  );
  const coefficients = new Array<number>(p).fill(0);
  for (let i = p - 1; i >= 0; i--) {
    let rest = z[i]!;
    for (let k = i + 1; k < p; k++) rest -= ln[k]![i]! * coefficients[k]!;
    coefficients[i] = rest / ln[i]![i]!;
  }
  const squares = dot(y, y) - dot(z, z);
  const noiseVariance = squares / (n - p);
  const logs = 2 * l.reduce((sum, row, i) => sum + Math.log(row[i]!), 0);
  const logNormal = 2 * ln.reduce((sum, row, i) => sum + Math.log(row[i]!), 0);
  return {
    coefficients,
    noiseVariance,
    logLikelihood: -((n - p) * (Math.log(2 * Math.PI * noiseVariance) + 1) + logs + logNormal) / 2,
    /** The slip's mean given all readings and the coefficients, at each reading. */
    slipGiven: (beta: readonly number[]): number[] => {
      const left = Array.from(
        { length: n },
        (_, i) => valuesMm[i]! - dot(beta, [...design.data.slice(i * p, (i + 1) * p)]),
      );
      const half = forward(l, left);
      const solved = new Array<number>(n).fill(0);
      for (let i = n - 1; i >= 0; i--) {
        let rest = half[i]!;
        for (let k = i + 1; k < n; k++) rest -= l[k]![i]! * solved[k]!;
        solved[i] = rest / l[i]![i]!;
      }
      return Array.from({ length: n }, (_, i) =>
        solved.reduce((sum, v, j) => sum + v * ratio * Math.min(atMm[i]!, atMm[j]!), 0),
      );
    },
  };
}

describe('slip between stations', () => {
  it('filter and likelihood agree with the covariance of all readings at once, missing and repeated stations too', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10_000 }),
        fc.integer({ min: 4, max: 40 }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (seed, count, ratio) => {
          const s = series(seed, count);
          const fit = fitSlip(s, ratio);
          if (!fit.ok) {
            expect(new Set(s.atMm).size).toBeLessThan(2);
            return;
          }
          const reference = dense(s, ratio);
          const { logLikelihood, noiseVariance, coefficients } = fit.value;
          expect(Math.abs(logLikelihood - reference.logLikelihood)).toBeLessThan(
            1e-8 * Math.max(1, Math.abs(reference.logLikelihood)),
          );
          expect(Math.abs(noiseVariance / reference.noiseVariance - 1)).toBeLessThan(1e-8);
          reference.coefficients.forEach((c, k) => {
            expect(Math.abs(coefficients[k]! - c)).toBeLessThan(1e-8 * Math.max(1, Math.abs(c)));
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('smoothed slip is the mean given all readings; the last one is what the filter ended with', () => {
    const s = series(7, 30);
    const ratio = 0.004;
    const fit = fitSlip(s, ratio);
    if (!fit.ok) throw new Error(fit.error.kind);
    const beta = [...fit.value.coefficients];
    const smoothed = smoothSlip(s, ratio);
    const wanted = dense(s, ratio).slipGiven(beta);
    smoothed.forEach(({ ofValues, ofDesign }, i) => {
      expect(Math.abs(ofValues - dot(beta, [...ofDesign]) - wanted[i]!)).toBeLessThan(1e-9);
    });
    expect(smoothed.at(-1)).toEqual(fit.value.end);
    // What all readings tell is known better than what those before tell.
    expect(smoothed.every(({ variance }) => variance >= 0)).toBe(true);
  });

  it('without slip it is plain least squares', () => {
    const s = series(3, 25, { slip: 0, noise: 1e-9 });
    const fit = fitSlip(s, 0);
    if (!fit.ok) throw new Error(fit.error.kind);
    expect(fit.value.coefficients[0]).toBeCloseTo(0.3, 7);
    expect(fit.value.coefficients[1]).toBeCloseTo(0.2, 7);
    expect(fit.value.end.variance).toBe(0);
  });

  it('stations that do not tell a slope are refused by name', () => {
    const s = series(1, 4);
    const one = {
      ...s,
      atMm: new Float64Array(4).fill(100),
      design: matrix(4, 2, (_, column) => (column === 0 ? 1 : 0.1)),
    };
    expect(fitSlip(one, 0.1)).toMatchObject({ ok: false, error: { kind: 'rank-deficient' } });
  });
});
