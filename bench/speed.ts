/**
 * Speed as ratios of one run: our arithmetic against numpy, a general matrix package and plain copies on the same data.
 * `npm run bench`. Machines differ, ratios less so; the absolute times beside them say what the run was like.
 */
import { spawnSync } from 'node:child_process';
import { Matrix, solve } from 'ml-matrix';
import { fitErrorMap } from '../src/core/fit/fit-error-map';
import { weightedFit } from '../src/core/fit/weighted-fit';
import { leastSquares } from '../src/core/math/qr';
import { moveAllInto } from '../src/core/geometry/move-all';
import { seededRng, standardNormal } from '../src/core/math/random';
import type { Observation } from '../src/core/reading/observation';
import { nextJob } from '../src/core/verdict/next-job';
import { moveCutFile, surveyCutFile } from '../src/formats/cut-file/move-cut-file';
import { bestMs, line, print } from './timing';

/** Median time of one call, ms, after a warm-up. */
function medianMs(rounds: number, work: () => unknown): number {
  for (let i = 0; i < Math.max(3, rounds / 4); i++) work();
  const times = Array.from({ length: rounds }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)] ?? NaN;
}

function observations(count: number): readonly Observation[] {
  const rng = seededRng(4);
  return Array.from({ length: count }, (_, i): Observation => {
    const at = { x: 180 * (rng() - 0.5), y: 260 * (rng() - 0.5) };
    const axis = i % 2 === 0 ? 'across' : 'along';
    const valueMm = 0.3 + 0.002 * at.x - 0.001 * at.y + 0.05 * standardNormal(rng);
    return { id: String(i), axis, at, valueMm, standardUncertaintyMm: 0.05, loadKey: 'load 1' };
  });
}

/** The same weighted problem as dense rows, for those who take a matrix. */
function rowsOf(own: readonly Observation[]): { readonly a: number[][]; readonly b: number[] } {
  const row = ({ axis, at, standardUncertaintyMm: u }: Observation): number[] =>
    (axis === 'across' ? [1, 0, at.x, at.y, 0, 0] : [0, 1, 0, 0, at.x, at.y]).map((v) => v / u);
  return { a: own.map(row), b: own.map((o) => o.valueMm / o.standardUncertaintyMm) };
}

const NUMPY = `
import json, sys, time
import numpy as np
d = json.load(sys.stdin)
a, b = np.array(d['a']), np.array(d['b'])
best = 1e9
for _ in range(30):
    t = time.perf_counter(); x = np.linalg.lstsq(a, b, rcond=None)[0]; best = min(best, time.perf_counter() - t)
print(json.dumps({'ms': best * 1e3, 'x': x.tolist()}))
`;

function numpyLeastSquares(a: number[][], b: number[]): { readonly ms: number; readonly x: readonly number[] } {
  const done = spawnSync('/usr/bin/python3', ['-c', NUMPY], {
    input: JSON.stringify({ a, b }),
    encoding: 'utf8',
    maxBuffer: 1e9,
  });
  if (done.status !== 0) throw new Error(done.stderr);
  return JSON.parse(done.stdout) as { ms: number; x: number[] };
}

function fits(): void {
  const small = observations(18);
  const covarianceUs = 1000 * medianMs(20_000, () => weightedFit(small, 'affine'));
  const robustUs = 1000 * medianMs(2000, () => fitErrorMap(small));
  print(
    `fit with covariance of 18 readings: ${covarianceUs.toFixed(1)} us; with odd readings looked for: ${robustUs.toFixed(1)} us`,
  );
  const large = observations(100_000);
  const { a, b } = rowsOf(large);
  const numpy = numpyLeastSquares(a, b);
  const ours = weightedFit(large, 'affine');
  if (!ours.ok) throw new Error('no fit');
  const gap = Math.max(...numpy.x.map((x, i) => Math.abs(x - (ours.value.beta[i] ?? NaN))));
  if (gap > 1e-10) throw new Error(`numpy differs by ${gap}`);
  const matrix = new Matrix(a);
  const rhs = Matrix.columnVector(b);
  const ms = bestMs(30, () => weightedFit(large, 'affine'));
  const data = Float64Array.from(a.flat());
  const flatMs = bestMs(30, () => leastSquares({ rows: large.length, columns: 6, data }, b));
  line('1e5 rows of 6 from flat arrays, covariance too', flatMs, "numpy's lstsq", numpy.ms);
  line('fit of 1e5 readings, from their objects', ms, "numpy's lstsq", numpy.ms);
  line(
    'the same',
    ms,
    'ml-matrix solve (QR)',
    bestMs(3, () => solve(matrix, rhs)),
  );
}

function moves(): void {
  const xy = Float64Array.from({ length: 2_000_000 }, (_, i) => i % 977);
  const out = new Float64Array(xy.length);
  const map = { xx: 1.001, xy: 0.002, yx: -0.001, yy: 0.999, tx: 1, ty: 2 };
  line(
    'correcting 1e6 points',
    bestMs(150, () => {
      moveAllInto(map, xy, out);
    }),
    'a plain copy',
    bestMs(150, () => {
      out.set(xy);
    }),
  );
  const text = `IN;SP1;PU0,0;PD${Array.from({ length: 1_000_000 }, (_, i) => `${(i * 7) % 40000},${(i * 13) % 60000}`).join(',')};PU;`;
  const bytes = new TextEncoder().encode(text);
  const request = { by: 'colour', names: ['pen 1'], move: { affine: map } } as const;
  line(
    'a plotter file of 1e6 points corrected',
    bestMs(3, () => moveCutFile(bytes, request)),
    'looking at it',
    bestMs(3, () => surveyCutFile(bytes)),
  );
}

function jobs(): void {
  const covariance = new Float64Array(36);
  for (let i = 0; i < 6; i++) covariance[i * 7] = i < 2 ? 0.001 : 1e-7;
  const corners = [
    { x: 90, y: 130 },
    { x: -90, y: 130 },
    { x: -90, y: -130 },
    { x: 90, y: -130 },
  ];
  const input = { beta: [0.1, 0, 0, 0, 0, 0], covariance, loadCovariance: covariance, corners, toleranceMm: 0.3 };
  const rng = seededRng(1);
  const draws = 4000 * 6;
  let sum = 0;
  line(
    'the next job by 4,000 draws',
    bestMs(20, () => nextJob(input, seededRng(1))),
    'its normal draws alone',
    bestMs(20, () => {
      for (let i = 0; i < draws; i++) sum += standardNormal(rng);
    }),
  );
  if (!Number.isFinite(sum)) throw new Error('a draw was no number');
}

print(`${''.padEnd(46)}${'ours'.padStart(13)}${'reference'.padStart(15)}${''.padEnd(26)}${'ratio'.padStart(9)}`);
fits();
moves();
jobs();
