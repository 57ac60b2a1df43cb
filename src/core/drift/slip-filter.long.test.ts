/**
 * The same series by an independent library: statsmodels from Debian, its Kalman filter and smoother with an exact diffuse
 * start for the coefficients. Only in the long tests: it is not wanted on every machine.
 */
import { spawnSync } from 'node:child_process';
import { matrix } from '../math/qr';
import { seededRng, standardNormal } from '../math/random';
import { estimateSlip } from './slip-estimate';
import { fitSlip, smoothSlip, type StationSeries } from './slip-filter';

interface Reference {
  /** Log-likelihood at every ratio asked for, a constant aside. */
  readonly likelihoods: readonly number[];
  readonly slip: readonly number[];
  readonly slipVariance: readonly number[];
  /** Where the likelihood is greatest: logarithms of the ratio and of the noise's variance. */
  readonly best: readonly [ratio: number, variance: number];
}

const PROGRAM = `
import json, sys, numpy as np
from scipy.optimize import minimize
from statsmodels.tsa.statespace.kalman_smoother import KalmanSmoother
from statsmodels.tsa.statespace.initialization import Initialization
q = json.load(sys.stdin)
s, y, w, x = (np.array(q[k], float) for k in ('at', 'values', 'weights', 'design'))
n, p = x.shape
steps = np.diff(np.concatenate([s, s[-1:]]))
def model(ratio, variance):
    m = KalmanSmoother(k_endog=1, k_states=1 + p, k_posdef=1)
    m.bind(y.reshape(1, -1))
    m['design'] = np.concatenate([np.ones((1, 1, n)), x.T.reshape(1, p, n)], axis=1)
    m['transition'] = np.eye(1 + p)[:, :, None]
    m['selection'] = np.eye(1 + p)[:, :1, None]
    m['obs_cov'] = (variance * w).reshape(1, 1, n)
    m['state_cov'] = (variance * ratio * steps).reshape(1, 1, n)
    start = Initialization(1 + p)
    start.set(0, 'known', constant=[0], stationary_cov=[[variance * ratio * s[0]]])
    for k in range(p): start.set(1 + k, 'diffuse')
    m.initialize(start)
    return m
loglike = lambda r, v: float(model(r, v).loglike())
smooth = model(q['ratio'], q['variance']).smooth()
best = minimize(lambda t: -loglike(np.exp(t[0]), np.exp(t[1])), q['start'], method='Nelder-Mead', options=dict(xatol=1e-9, fatol=1e-12, maxiter=4000))
print(json.dumps(dict(likelihoods=[loglike(r, q['variance']) for r in q['ratios']], slip=list(smooth.smoothed_state[0]), slipVariance=list(smooth.smoothed_state_cov[0, 0]), best=list(best.x))))
`;

function reference(input: object): Reference {
  const done = spawnSync('/usr/bin/python3', ['-c', PROGRAM], { input: JSON.stringify(input), encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr.slice(-800));
  return JSON.parse(done.stdout) as Reference;
}

/** A strip with some stations missing, shift, slope and bow, and a slip of 0.12 mm over one metre. */
function strip(seed: number, count: number): StationSeries {
  const rng = seededRng(seed);
  const at: number[] = [];
  for (let i = 0, place = 0; i < count; i++) at.push((place += 150 * (1 + Math.floor(3 * rng()))));
  let walk = 0;
  const values = at.map((s, i) => {
    walk += 0.12 * Math.sqrt((s - (at[i - 1] ?? 0)) / 1000) * standardNormal(rng);
    return 0.2 + 0.1 * (s / 1000) - 0.004 * (s / 1000) ** 2 + walk + 0.05 * standardNormal(rng);
  });
  return {
    atMm: Float64Array.from(at),
    valuesMm: Float64Array.from(values),
    weights: Float64Array.from(at, () => 0.5 + rng()),
    design: matrix(count, 3, (row, column) => (at[row]! / 1000) ** column),
  };
}

describe('against statsmodels', () => {
  it.each([
    [1, 12],
    [2, 30],
    [3, 90],
  ])(
    'strip %i of %i stations: likelihood to 1e-8, slip and its variance, and where the likelihood is greatest',
    (seed, count) => {
      const series = strip(seed, count);
      const { design } = series;
      const told = estimateSlip(series);
      if (!told.ok) throw new Error(told.error.kind);
      const { fit } = told.value;
      const ratios = [1e-7, 1e-5, 1e-4, 1e-3, 1e-2];
      const variance = 0.0025;
      const ratio = 1e-3;
      const other = reference({
        ...{ at: [...series.atMm], values: [...series.valuesMm], weights: [...series.weights] },
        design: Array.from({ length: count }, (_, i) => [...design.data.slice(3 * i, 3 * i + 3)]),
        ...{ ratios, variance, ratio },
        start: [Math.log(Math.max(1e-9, fit.slipRatio)) + 0.3, Math.log(fit.noiseVariance) - 0.2],
      });
      // Each leaves out its own constant: ratios of likelihoods are compared.
      const own = ratios.map((r) => {
        const at = fitSlip(series, r);
        if (!at.ok) throw new Error(at.error.kind);
        const { logLikelihood, degrees, noiseVariance } = at.value;
        return logLikelihood - (degrees * (Math.log(variance / noiseVariance) + noiseVariance / variance - 1)) / 2;
      });
      own.forEach((l, i) => {
        const wanted = other.likelihoods[i]! - other.likelihoods[0]!;
        expect(Math.abs(l - own[0]! - wanted)).toBeLessThan(1e-8 * Math.max(1, Math.abs(other.likelihoods[i]!)));
      });
      const at = fitSlip(series, ratio);
      if (!at.ok) throw new Error(at.error.kind);
      const { coefficients, inverseNormal } = at.value;
      smoothSlip(series, ratio).forEach(({ ofValues, ofDesign, variance: own }, i) => {
        const mean = ofDesign.reduce((left, d, k) => left - d * coefficients[k]!, ofValues);
        let doubt = own;
        ofDesign.forEach((a, j) => {
          ofDesign.forEach((b, k) => (doubt += a * b * inverseNormal[3 * j + k]!));
        });
        expect(Math.abs(mean - other.slip[i]!)).toBeLessThan(1e-8);
        expect(Math.abs((variance * doubt) / other.slipVariance[i]! - 1)).toBeLessThan(1e-6);
      });
      const [logRatio, logVariance] = other.best;
      if (fit.slipRatio * fit.noiseVariance * 1000 > 1e-3 * fit.noiseVariance) {
        expect(Math.abs(fit.slipRatio / Math.exp(logRatio) - 1)).toBeLessThan(1e-4);
        expect(Math.abs(fit.noiseVariance / Math.exp(logVariance) - 1)).toBeLessThan(1e-4);
      }
    },
  );
});
