/** Speed of the arithmetic of rolls: the filter against statsmodels on the same stations, sections of a long run. Part of `npm run bench`. */
import { spawnSync } from 'node:child_process';
import { scaleLinear } from 'd3';
import { bestSections } from '../src/core/drift/best-sections';
import { sectionsWithin } from '../src/core/drift/section-rows';
import { thinnedOut } from '../src/core/drift/thin-out';
import { fitSlip, type StationSeries } from '../src/core/drift/slip-filter';
import { matrix } from '../src/core/math/qr';
import { seededRng, standardNormal } from '../src/core/math/random';
import { bestMs, line, print } from './timing';

const STATIONS = 100_000;
const STEP_MM = 250;
const RATIO = 1e-4;

function stations(): StationSeries {
  const rng = seededRng(5);
  const atMm = Float64Array.from({ length: STATIONS }, (_, i) => (i + 1) * STEP_MM);
  const valuesMm = atMm.map((s) => 0.2 + (0.01 * s) / 1e6 + 0.05 * standardNormal(rng));
  const design = matrix(STATIONS, 2, (row, column) => (column === 0 ? 1 : ((row + 1) * STEP_MM) / 1e6));
  return { atMm, valuesMm, weights: new Float64Array(STATIONS).fill(1), design };
}

/** The same filter with a diffuse start; only filtering is timed. */
const STATSMODELS = `
import json, sys, time, numpy as np
from statsmodels.tsa.statespace.kalman_filter import KalmanFilter
from statsmodels.tsa.statespace.initialization import Initialization
q = json.load(sys.stdin)
y = np.array(q['values']); n = len(y); s = (np.arange(n) + 1) * q['step'] / 1e6
m = KalmanFilter(k_endog=1, k_states=3, k_posdef=1)
m.bind(y.reshape(1, -1))
m['design'] = np.stack([np.ones(n), np.ones(n), s]).reshape(1, 3, n)
m['transition'] = np.eye(3)
m['selection'] = np.eye(3)[:, :1]
m['obs_cov'] = [[1.0]]
m['state_cov'] = [[q['ratio'] * q['step']]]
start = Initialization(3)
start.set(0, 'known', constant=[0], stationary_cov=[[q['ratio'] * q['step']]])
start.set(1, 'diffuse'); start.set(2, 'diffuse')
m.initialize(start)
best = 1e9
for _ in range(3):
    t = time.perf_counter(); m.loglike(); best = min(best, time.perf_counter() - t)
print(json.dumps(best * 1e3))
`;

function statsmodelsMs({ valuesMm }: StationSeries): number {
  const input = JSON.stringify({ values: [...valuesMm], step: STEP_MM, ratio: RATIO });
  const done = spawnSync('/usr/bin/python3', ['-c', STATSMODELS], { input, encoding: 'utf8', maxBuffer: 1e8 });
  if (done.status !== 0) throw new Error(done.stderr.slice(-500));
  return JSON.parse(done.stdout) as number;
}

const series = stations();
line(
  'drift and slip of 1e5 stations',
  bestMs(9, () => fitSlip(series, RATIO)),
  "statsmodels' filter",
  statsmodelsMs(series),
);
const cost = Array.from({ length: 61 }, (_, k) => 40 + 0.02 * k ** 2);
print(
  `cheapest sections of 1e5 rows, up to 60 in each${bestMs(5, () => bestSections(100_000, { cost }))
    .toFixed(1)
    .padStart(9)} ms`,
);

const order = { copies: 100_000, itemWidthMm: 200, itemLengthMm: 246, gapMm: 4, printableWidthMm: 210 };
print(
  `rows and sections of 1e5 copies${bestMs(5, () => sectionsWithin(order, 5000))
    .toFixed(3)
    .padStart(25)} ms`,
);
const points = Array.from(series.valuesMm, (valueMm, i) => ({ atMm: series.atMm[i] ?? 0, valueMm }));
const endMm = STATIONS * STEP_MM;
const [x, y] = [scaleLinear([0, endMm], [52, 1188]), scaleLinear([-1, 1], [206, 12])];
print(
  `a chart's frame of 1e5 stations (50 ms wanted)${bestMs(9, () => {
    const kept = thinnedOut(points, { fromMm: 0, toMm: endMm, columns: 1100 });
    return kept.map((p) => `M${x(p.atMm)},${y(p.valueMm)}h4`).join('');
  })
    .toFixed(1)
    .padStart(10)} ms`,
);
