import { cornersOf, then, type Affine } from '../geometry/affine';
import { seededRng, standardNormal, type Rng } from '../math/random';
import { loadNoise } from '../simulate/simulated-load';
import { blockNamed } from '../target/block';
import { defineSheet } from '../target/sheet-definition';
import { AXES } from '../target/wedge';
import { fitErrorMap } from './fit-error-map';
import type { LoadModel } from './load-noise';
import { markNoise, type LoadMap, type MarkNoise } from './mark-noise';

const MARKS = cornersOf(164, 251);
const READING_MM = 0.05;
const ERROR: Affine = { xx: 1.002, xy: 0.0011, yx: -0.0007, yy: 0.9985, tx: 0.3, ty: -0.2 };
const SPOTS = defineSheet({ block: blockNamed('A4'), checkKind: 'quick', style: 'wedge', sets: 2 }).spots.map(
  (s) => s.centre,
);

function loadMap(sdMm: number, rng: Rng, model: LoadModel): LoadMap {
  const map = then(ERROR, loadNoise(MARKS, sdMm, rng, model));
  const fit = fitErrorMap(
    SPOTS.flatMap((at, i) =>
      AXES.map((axis) => {
        const d =
          axis === 'across'
            ? map.tx + (map.xx - 1) * at.x + map.xy * at.y
            : map.ty + map.yx * at.x + (map.yy - 1) * at.y;
        const valueMm = d + READING_MM * standardNormal(rng);
        return { id: `${i} ${axis}`, axis, at, valueMm, standardUncertaintyMm: READING_MM, loadKey: 'a' };
      }),
    ),
    { keepAll: true },
  );
  if (!fit.ok) throw new Error(fit.error.kind);
  // The stated covariance: the one that residuals widened is for maps, not for telling two of them apart.
  const factor = Math.max(1, fit.value.reducedChiSquare ?? 1);
  return { beta: fit.value.beta, readingCovariance: fit.value.readingCovariance.map((c) => c / factor) };
}

function simulate(sdMm: number, loads: number, seed: number, model: LoadModel = 'affine'): MarkNoise {
  const rng = seededRng(seed);
  const group = Array.from({ length: loads }, () => loadMap(sdMm, rng, model));
  return markNoise([group], MARKS, model);
}

const isLong = process.env.JEST_LONG !== undefined;
const TRIALS = isLong ? 1200 : 250;
/** Two binomial standard errors beside the quality itself. */
const COVER = isLong ? [0.932, 0.968] : [0.91, 0.985];

describe.each([
  ['affine', 0.05],
  ['affine', 0.1],
  ['affine', 0.02],
  ['rigid', 0.08],
] as const)('%s marks read to %s mm', (model, sdMm) => {
  it.each([3, 4])('the 95 %% interval from %s loads of five spots holds the truth 95 times in 100', (loads) => {
    let held = 0;
    let sum = 0;
    for (let seed = 1; seed <= TRIALS; seed++) {
      const noise = simulate(sdMm, loads, seed, model);
      if (noise.kind !== 'estimated') throw new Error(noise.kind);
      if (noise.lowerMm <= sdMm && sdMm <= noise.upperMm) held++;
      sum += noise.sdMm / TRIALS;
    }
    expect(held / TRIALS).toBeGreaterThan(COVER[0]!);
    expect(held / TRIALS).toBeLessThan(COVER[1]!);
    expect(sum).toBeLessThan(1.15 * sdMm);
    expect(sum).toBeGreaterThan(0.6 * sdMm);
  });
});

describe('two loads say only "steady" or "unsteady"', () => {
  it('a steady machine is called unsteady 5 times in 100; what it says could hide is true 95 times in 100', () => {
    let unsteady = 0;
    for (let seed = 1; seed <= TRIALS; seed++) if (simulate(0, 2, seed).kind === 'unsteady') unsteady++;
    expect(unsteady / TRIALS).toBeGreaterThan(0.02);
    expect(unsteady / TRIALS).toBeLessThan(0.09);
    let held = 0;
    for (let seed = 1; seed <= TRIALS; seed++) {
      const noise = simulate(0.05, 2, seed);
      if (noise.kind === 'unsteady' || (noise.kind === 'steady' && noise.withinMm >= 0.05)) held++;
    }
    expect(held / TRIALS).toBeGreaterThan(0.9);
  });
  it('an unsteady one is found', () => {
    let found = 0;
    for (let seed = 1; seed <= 200; seed++) if (simulate(0.3, 2, seed).kind === 'unsteady') found++;
    expect(found / 200).toBeGreaterThan(0.9);
  });
});

it('one load tells nothing of what changes; nor do groups of one', () => {
  const rng = seededRng(1);
  const [a, b] = [loadMap(0.1, rng, 'affine'), loadMap(0.1, rng, 'affine')];
  expect(markNoise([], MARKS, 'affine')).toEqual({ kind: 'one-load' });
  expect(markNoise([[a], [b]], MARKS, 'affine')).toEqual({ kind: 'one-load' });
});

it('groups are pooled: a change of settings between them does not count as noise', () => {
  const rng = seededRng(2);
  const moved = (map: LoadMap): LoadMap => ({ ...map, beta: Array.from(map.beta, (b, i) => (i < 2 ? b + 3 : b)) });
  const [a, b, c, d] = Array.from({ length: 4 }, () => loadMap(0.05, rng, 'affine')) as [
    LoadMap,
    LoadMap,
    LoadMap,
    LoadMap,
  ];
  const apart = markNoise(
    [
      [a, b],
      [moved(c), moved(d)],
    ],
    MARKS,
    'affine',
  );
  const plain = markNoise(
    [
      [a, b],
      [c, d],
    ],
    MARKS,
    'affine',
  );
  if (apart.kind !== 'estimated' || plain.kind !== 'estimated') throw new Error('too few loads');
  expect(apart.sdMm).toBeCloseTo(plain.sdMm, 9);
  expect(apart.upperMm).toBeCloseTo(plain.upperMm, 9);
  expect(plain).toMatchObject({ kind: 'estimated', degrees: 12 });
});

it('with equal reading covariances the estimate is the closed form, by hand: (S / degrees - r^2) / c^2 for a shift', () => {
  const shifts = [
    [0.1, -0.2],
    [-0.15, 0.05],
    [0.22, 0.18],
    [-0.07, -0.11],
  ] as const;
  const readingMm = 0.03;
  const readingCovariance = new Float64Array(36);
  for (const i of [0, 7]) readingCovariance[i] = readingMm ** 2;
  for (const i of [14, 21, 28, 35]) readingCovariance[i] = 1e-8;
  const group = shifts.map(([x, y]): LoadMap => ({ beta: [x, y, 0.001, 0, 0, 0.002], readingCovariance }));
  const mean = [0, 1].map((k) => shifts.reduce((sum, s) => sum + s[k]! / shifts.length, 0));
  const squares = shifts.reduce((sum, s) => sum + (s[0] - mean[0]!) ** 2 + (s[1] - mean[1]!) ** 2, 0);
  const degrees = 2 * (shifts.length - 1);
  // One mark: its own noise is the load's shift, c = 1.
  const byHand = Math.sqrt(squares / degrees - readingMm ** 2);
  const noise = markNoise([group], [{ x: 40, y: -60 }], 'shift');
  expect(noise).toMatchObject({ kind: 'estimated', degrees });
  expect(noise.kind === 'estimated' ? noise.sdMm : NaN).toBeCloseTo(byHand, 7);
});
