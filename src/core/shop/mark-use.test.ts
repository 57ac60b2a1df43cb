import { cornersOf, identity, then, type Affine, type Point } from '../geometry/affine';
import { affineOf } from '../fit/design';
import { fitErrorMap, type ErrorMapFit } from '../fit/fit-error-map';
import { loadCovariance } from '../fit/load-noise';
import { seededRng, standardNormal, type Rng } from '../math/random';
import { loadNoise } from '../simulate/simulated-load';
import { blockNamed } from '../target/block';
import { defineSheet } from '../target/sheet-definition';
import { AXES } from '../target/wedge';
import { loadModelOf, markPlaces } from './marks';
import {
  insetMoves,
  responseTo,
  slantedMoves,
  TELLABLE_USES,
  tellMarkUse,
  keptUse,
  type TellableUse,
} from './mark-use';

const FOUR = cornersOf(164, 251);
const THREE = markPlaces({ kind: 'corner_figures', insetMm: 15.9, sizeMm: 14 }, { widthMm: 210, lengthMm: 297 });
const SPOTS = defineSheet({ block: blockNamed('A4'), checkKind: 'quick', style: 'wedge', sets: 2 }).spots.map(
  (s) => s.centre,
);
const READING_MM = 0.03;
const MARK_MM = 0.05;

/** One sheet as read: the cut map at the spots, with reading noise, fitted as the application fits it. */
function readSheet(map: Affine, rng: Rng, marks: readonly Point[]): ErrorMapFit {
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
    { loadCovariance: loadCovariance(marks, MARK_MM, 'affine') },
  );
  if (!fit.ok) throw new Error(fit.error.kind);
  return fit.value;
}

interface Trial {
  readonly use: TellableUse;
  readonly marks: readonly Point[];
  readonly moves: readonly Point[];
}

function findingOf({ use, marks, moves }: Trial, seed: number) {
  const rng = seededRng(seed);
  const model = loadModelOf(use, marks.length);
  const error: Affine = { xx: 1.0014, xy: 0.0005, yx: -0.0008, yy: 0.9991, tx: 0.2, ty: -0.1 };
  const load = () => then(error, loadNoise(marks, MARK_MM, rng, model));
  const followed = affineOf(responseTo(marks, moves, use) ?? []);
  const moved = readSheet(then(load(), followed), rng, marks);
  const ordinary = readSheet(load(), rng, marks);
  return tellMarkUse({
    marks,
    moves,
    difference: moved.beta.map((b, i) => b - ordinary.beta[i]!),
    covariance: moved.covariance.map((c, i) => c + ordinary.covariance[i]!),
  });
}

const TRIALS = 300;

describe.each([
  ['four of our own, slanted', FOUR, slantedMoves(FOUR), 0.8],
  ['four of a program, set in by 0.7 mm', FOUR, insetMoves(FOUR, 0.7, 0.7), 0.7],
  ['three of a program, set in by 0.7 mm', THREE, insetMoves(THREE, 0.7, 0.7), 0.25],
] as const)('%s', (_, marks, moves, leastTold) => {
  it.each(TELLABLE_USES)(
    'a machine that uses them for %s is told, or said not to be; hardly ever taken for another',
    (use) => {
      let told = 0;
      let wrong = 0;
      for (let seed = 1; seed <= TRIALS; seed++) {
        const finding = findingOf({ use, marks, moves }, seed);
        if (finding.kind !== 'told') continue;
        if (finding.uses.includes(use)) told++;
        else wrong++;
      }
      expect(wrong / TRIALS).toBeLessThanOrEqual(0.01);
      expect(told / TRIALS).toBeGreaterThan(leastTold);
    },
  );
});

it('our own marks part all five uses; a program\u2019s inset cannot tell a turn, nor squareness from two scales', () => {
  const alike = (moves: readonly Point[]) => {
    const answers = TELLABLE_USES.map((use) =>
      JSON.stringify(
        responseTo(FOUR, moves, use)
          ?.slice(2)
          .map((b) => Math.round(b * 1e9) + 0),
      ),
    );
    return new Set(answers).size;
  };
  expect(alike(slantedMoves(FOUR))).toBe(5);
  expect(alike(insetMoves(FOUR, 0.7, 0.7))).toBe(3);
  expect(keptUse(['shift', 'shift_rotation'])).toBe('shift_rotation');
  expect(keptUse(['two_scales', 'affine'])).toBe('two_scales');
});

it('marks set in evenly shrink the cut of a machine that uses two scales by just that, by hand: 2 x 0.7 mm over the distance', () => {
  const response = responseTo(FOUR, insetMoves(FOUR, 0.7, 0.7), 'two_scales');
  expect(response?.[2]).toBeCloseTo(-1.4 / 164, 12);
  expect(response?.[5]).toBeCloseTo(-1.4 / 251, 12);
  expect(response?.[3]).toBeCloseTo(0, 12);
});

it('the cut of another file explains itself by no use', () => {
  const rng = seededRng(5);
  const moves = slantedMoves(FOUR);
  const moved = readSheet({ ...identity(), xx: 0.99, yy: 1.01 }, rng, FOUR);
  const ordinary = readSheet(identity(), rng, FOUR);
  const finding = tellMarkUse({
    marks: FOUR,
    moves,
    difference: moved.beta.map((b, i) => b - ordinary.beta[i]!),
    covariance: moved.covariance.map((c, i) => c + ordinary.covariance[i]!),
  });
  expect(finding.kind).toBe('unexplained');
});

it('readings rougher than the answer part nothing, and that is said', () => {
  const moves = insetMoves(FOUR, 0.05, 0.05);
  expect(findingOf({ use: 'two_scales', marks: FOUR, moves }, 3).kind).toBe('too-rough');
});
