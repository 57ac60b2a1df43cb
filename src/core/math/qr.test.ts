import { readFileSync } from 'node:fs';
import { Matrix as OracleMatrix, QrDecomposition } from 'ml-matrix';
import { leastSquares, matrix } from './qr';
import { seededRng, standardNormal } from './random';

interface Reference {
  dataset: string;
  design: { degree?: number; intercept: boolean };
  data: number[][];
  certified: { params: { estimate: number; sd: number }[]; residual_sd: number; residual: { df: number } };
}
const digits = (got: number, wanted: number) =>
  -Math.log10(Math.max(Math.abs(got - wanted) / Math.abs(wanted || 1), 1e-16));

/** Powers of x as they stand, no centring: the hard way, as the certified values are meant. */
function polynomial(reference: Reference) {
  const degree = reference.design.degree ?? 1;
  const first = reference.design.intercept ? 0 : 1;
  const a = matrix(
    reference.data.length,
    degree + 1 - first,
    (row, column) => reference.data[row]![1]! ** (column + first),
  );
  return leastSquares(
    a,
    reference.data.map((row) => row[0]!),
  );
}

describe('least squares on NIST StRD certified sets (test-data/nist)', () => {
  it.each([
    ['Norris', 11],
    ['Pontius', 11],
    ['NoInt1', 13],
    ['Wampler1', 8],
    ['Wampler2', 9],
    ['Wampler3', 8],
  ])('%s agrees to %s digits on raw powers', (name, wanted) => {
    const reference = JSON.parse(readFileSync(`test-data/nist/${name}.json`, 'utf8')) as Reference;
    const solved = polynomial(reference);
    if (!solved.ok) throw new Error(solved.error.kind);
    const { parameters, inverseNormal, residualSumOfSquares } = solved.value;
    reference.certified.params.forEach((parameter, i) => {
      expect(digits(parameters[i]!, parameter.estimate)).toBeGreaterThan(wanted);
    });
    if (reference.certified.residual_sd > 0) {
      const sd = Math.sqrt(residualSumOfSquares / reference.certified.residual.df);
      expect(digits(sd, reference.certified.residual_sd)).toBeGreaterThan(wanted - 2);
      reference.certified.params.forEach((parameter, i) => {
        const got = sd * Math.sqrt(inverseNormal[i * reference.certified.params.length + i]!);
        expect(digits(got, parameter.sd)).toBeGreaterThan(wanted - 2);
      });
    }
  });
});

describe('a published straight-line calibration', () => {
  it('JCGM 100:2008 H.3 thermometer: intercept, slope, their uncertainties, correlation, prediction at 30 (from memory, recomputed)', () => {
    const h3 = JSON.parse(readFileSync('test-data/worked/gum_h3_thermometer.json', 'utf8')) as {
      t: number[];
      b: number[];
      t0: number;
      stated: Record<'y1' | 's_y1' | 'y2' | 's_y2' | 'r' | 's' | 'b30' | 'u_b30', number>;
    };
    const solved = leastSquares(
      matrix(h3.t.length, 2, (row, column) => (column === 0 ? 1 : h3.t[row]! - h3.t0)),
      h3.b,
    );
    if (!solved.ok) throw new Error(solved.error.kind);
    const { parameters: y, inverseNormal: q, residualSumOfSquares } = solved.value;
    const s = Math.sqrt(residualSumOfSquares / 9);
    expect(y[0]).toBeCloseTo(h3.stated.y1, 4);
    expect(y[1]).toBeCloseTo(h3.stated.y2, 5);
    expect(s).toBeCloseTo(h3.stated.s, 4);
    expect(s * Math.sqrt(q[0]!)).toBeCloseTo(h3.stated.s_y1, 4);
    expect(s * Math.sqrt(q[3]!)).toBeCloseTo(h3.stated.s_y2, 5);
    expect(q[1]! / Math.sqrt(q[0]! * q[3]!)).toBeCloseTo(h3.stated.r, 2);
    expect(y[0]! + 10 * y[1]!).toBeCloseTo(h3.stated.b30, 4);
    expect(s * Math.sqrt(q[0]! + 20 * q[1]! + 100 * q[3]!)).toBeCloseTo(h3.stated.u_b30, 4);
  });
});

describe('least squares as such', () => {
  const rng = seededRng(3);
  const a = matrix(12, 4, () => standardNormal(rng));
  const b = Array.from({ length: 12 }, () => standardNormal(rng));
  const solved = leastSquares(a, b);
  if (!solved.ok) throw new Error('random matrix has full rank');
  const x = solved.value.parameters;
  const cost = (at: ArrayLike<number>) =>
    b.reduce((sum, value, row) => {
      let fitted = 0;
      for (let column = 0; column < 4; column++) fitted += a.data[row * 4 + column]! * at[column]!;
      return sum + (value - fitted) ** 2;
    }, 0);

  it('agrees with the QR of ml-matrix', () => {
    const oracle = new QrDecomposition(OracleMatrix.from1DArray(12, 4, [...a.data])).solve(
      OracleMatrix.columnVector(b),
    );
    for (let i = 0; i < 4; i++) expect(x[i]!).toBeCloseTo(oracle.get(i, 0), 12);
  });
  it('satisfies the normal equations and costs more one step away', () => {
    expect(cost(x)).toBeCloseTo(solved.value.residualSumOfSquares, 12);
    for (let i = 0; i < 4; i++) {
      for (const step of [-1e-3, 1e-3]) {
        expect(cost(x.map((value, k) => (k === i ? value + step : value)))).toBeGreaterThan(cost(x));
      }
    }
  });
  it('names too few rows and a dependent column, also when it is dependent but for rounding', () => {
    expect(leastSquares(matrix(2, 3), [0, 0])).toEqual({
      ok: false,
      error: { kind: 'too-few-rows', got: 2, needed: 3 },
    });
    const collinear = matrix(4, 3, (row, column) => [1, 0.1 * row, 0.3 * row][column]!);
    expect(leastSquares(collinear, [1, 2, 3, 4])).toEqual({
      ok: false,
      error: { kind: 'rank-deficient', rank: 2, column: 2 },
    });
  });
});
