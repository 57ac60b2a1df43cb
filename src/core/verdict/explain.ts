import { displacement, type Point } from '../geometry/affine';
import { covarianceAt, largestSd } from '../fit/point-covariance';
import type { ErrorMapFit } from '../fit/fit-error-map';
import { studentQuantile } from '../math/quantile';
import { ENOUGH_DEGREES, lookSd, looksUncertainty, type Repeatability } from '../reading/repeats';
import { PLOTTER_ROUNDING_MM, type ReadingConditions } from '../reading/uncertainty';
import { formatFixed } from '../units/length';
import { CONFIDENCE, type Bounds, type Verdict } from './bound';
import type { NextJob } from './next-job';
import { leverOf, type Part, type PartJudgement } from './parts';

/** How one figure was worked out, with its own numbers: lengths in mm, so that it may be checked by hand. */
export interface Explanation {
  readonly id: string;
  readonly title: string;
  readonly lines: readonly string[];
}

const mm = (value: number): string => formatFixed(value, 3);
const signed = (value: number): string => formatFixed(value, 3, true);

/** The eye's part of a reading's doubt: assumed, or as its own repeats show it. */
function eyeLines(c: ReadingConditions, known: Repeatability | null): readonly string[] {
  const step = `step ${c.stepMm} / \u221a12 = ${mm(c.stepMm / Math.sqrt(12))}`;
  if (!known || known.degrees < ENOUGH_DEGREES) return [step, `eye ${mm(c.operatorSdMm)}`];
  const { sdMm, degrees } = known;
  const sd = lookSd(c, known);
  const eye = `eye and rounding from ${degrees} repeats: ${mm(sdMm)} \u00d7 \u221a(${degrees} / ${degrees - 2}) = ${mm(sd)}`;
  return sd < c.stepMm / 2 ? [eye, `steadier than half a step, so the step counts whole: ${step}`] : [eye];
}

/** u of one reading from what goes into it. */
export function explainReading(c: ReadingConditions, known: Repeatability | null = null): Explanation {
  const parts = [
    ...eyeLines(c, known),
    `printer dot ${mm(c.printerDotMm)} / \u221a12 = ${mm(c.printerDotMm / Math.sqrt(12))}`,
    ...(c.isPlotterFile ? [`plotter unit 0.025 / \u221a12 = ${mm(PLOTTER_ROUNDING_MM)}`] : []),
  ];
  const u = looksUncertainty(c, known, { count: 1, disputeMm: 0 });
  return {
    id: 'reading',
    title: 'how far one reading can be trusted',
    lines: [...parts, `root of the sum of their squares: ${mm(u)} mm`],
  };
}

const MODEL_WORDS = {
  affine: 'shift, turn, two scales and squareness (6 numbers)',
  similarity: 'shift, turn and one scale (4 numbers)',
  shift: 'shift alone (2 numbers)',
} as const;

/** Which map was fitted to how much, and how well the readings agree with it. */
export function explainMap(fit: ErrorMapFit): Explanation {
  const used = fit.readings.filter((r) => r.used).length;
  const reduced = fit.reducedChiSquare;
  return {
    id: 'map',
    title: 'the map',
    lines: [
      `${used} readings counted, ${fit.readings.length - used} left out, ${fit.loads} ${fit.loads === 1 ? 'load' : 'loads'}`,
      `the largest map that the spots carry: ${MODEL_WORDS[fit.model]}`,
      'least squares: the sum of (reading \u2212 map)\u00b2 / u\u00b2 is made as small as it can be',
      reduced === null
        ? 'no reading is left over to check it with'
        : `that sum over the ${fit.residualDegrees} readings left over is ${formatFixed(reduced, 2)}; 1 is as good as the readings claim${reduced > 1 ? ', so all doubts are widened by its root' : ''}`,
    ],
  };
}

/** How far the farthest reading lies off the map, and by what rule it would be left out. */
export function explainOdd(fit: ErrorMapFit): Explanation {
  const worst = fit.readings.reduce(
    (a, r) => Math.max(a, Math.abs(r.residualMm) / r.observation.standardUncertaintyMm),
    0,
  );
  return {
    id: 'odd',
    title: 'which readings belong',
    lines: [
      'for each direction the map is first drawn through the most readings that agree (least trimmed squares)',
      'a reading more than 4 of its own doubts off that map is left out; below five readings nothing is',
      `the farthest here lies ${formatFixed(worst, 1)} of its doubts off the final map; left out: ${fit.misfitIds.length}`,
    ],
  };
}

const UNIT: Readonly<Record<Part, string>> = {
  offsetAcrossMm: 'mm',
  offsetAlongMm: 'mm',
  rotationRad: 'rad',
  scaleAcross: 'of its width',
  scaleAlong: 'of its length',
  squareness: 'of its length',
};

/** What a part does at the worst corner, and why it is corrected or left. */
export function explainPart(
  p: PartJudgement,
  name: string,
  area: { readonly widthMm: number; readonly lengthMm: number },
  toleranceMm: number,
): Explanation {
  const lever = leverOf(p.part, area.widthMm, area.lengthMm);
  const value = Math.abs(p.value);
  const isClear = value > 2 * p.standardError;
  const isLarge = p.effectMm > toleranceMm / 5;
  return {
    id: p.part,
    title: name,
    lines: [
      `${formatFixed(value, 6)} ${UNIT[p.part]} \u00d7 ${formatFixed(lever, 1)} = ${mm(p.effectMm)} mm at the worst corner`,
      `its doubt ${formatFixed(p.standardError, 6)} \u00d7 1.96 \u00d7 ${formatFixed(lever, 1)} = ${mm(p.effectIntervalMm)} mm (95 %)`,
      `twice its doubt is ${formatFixed(2 * p.standardError, 6)}: the value is ${isClear ? 'larger' : 'smaller'}`,
      `a fifth of what is allowed is ${mm(toleranceMm / 5)} mm: its effect is ${isLarge ? 'larger' : 'smaller'}`,
      isClear || isLarge ? 'either is enough: it is corrected' : 'neither holds: it is left as it is',
    ],
  };
}

/** The error at the worst corner from the map. */
export function explainWorst(fit: ErrorMapFit, { worstCorner: p, worstMm }: Bounds): Explanation {
  const d = displacement(fit.map, p);
  const [b2 = 0, b3 = 0, b4 = 0, b5 = 0] = fit.beta.slice(2);
  const row = (t: number, x: number, y: number, sum: number): string =>
    `${signed(t)} + ${formatFixed(x, 6)} \u00d7 ${formatFixed(p.x, 1)} + ${formatFixed(y, 6)} \u00d7 ${formatFixed(p.y, 1)} = ${signed(sum)}`;
  return {
    id: 'worst',
    title: 'the worst corner',
    lines: [
      `it is the corner at ${formatFixed(p.x, 1)} across, ${formatFixed(p.y, 1)} along from the middle`,
      `across: ${row(fit.beta[0] ?? 0, b2, b3, d.x)}`,
      `along: ${row(fit.beta[1] ?? 0, b4, b5, d.y)}`,
      `root of the sum of squares: ${mm(worstMm)} mm`,
    ],
  };
}

/** The bound that the verdict stands on. */
export function explainBound(fit: ErrorMapFit, corners: readonly Point[], bounds: Bounds): Explanation {
  const factor = studentQuantile(CONFIDENCE, fit.quantileDegrees);
  const rows = corners.map((p) => {
    const d = displacement(fit.map, p);
    const sd = largestSd(covarianceAt(fit.covariance, p));
    const length = Math.hypot(d.x, d.y);
    return `${mm(length)} + ${formatFixed(factor, 3)} \u00d7 ${mm(sd)} = ${mm(length + factor * sd)}`;
  });
  return {
    id: 'bound',
    title: 'what it may be at most',
    lines: [
      'at each corner: the error, and its doubt (reading and loading) times the 95 % factor',
      ...rows,
      `the largest: ${mm(bounds.upperMm)} mm; and at least ${mm(Math.max(0, bounds.lowerMm))} mm by the same doubts, with a factor for four corners`,
    ],
  };
}

const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  pass: 'at most is within what is allowed: pass',
  fail: 'at least is beyond what is allowed: fail',
  cannot_tell: 'what is allowed lies between the two: it cannot be told',
};

export function explainVerdict(bounds: Bounds, verdict: Verdict, toleranceMm: number): Explanation {
  return {
    id: 'verdict',
    title: 'the verdict',
    lines: [
      `allowed ${mm(toleranceMm)}, at most ${mm(bounds.upperMm)}, at least ${mm(Math.max(0, bounds.lowerMm))}`,
      VERDICT_WORDS[verdict],
    ],
  };
}

/** The next job and the border that hides it. */
export function explainNextJob(next: NextJob, markSdMm: number, isAssumed: boolean, toleranceMm: number): Explanation {
  return {
    id: 'next',
    title: 'the next job, and the border that hides it',
    lines: [
      `noise of reading one mark: ${mm(markSdMm)} mm, ${isAssumed ? 'assumed until three loads tell it' : 'from this setup\u2019s loads'}`,
      '4,000 next jobs are drawn: the map within its doubt, and a fresh reading of the marks; the worst corner of each is taken',
      `half stay below ${mm(next.medianMm)} mm; 95 in 100 below ${mm(next.q95Mm)} mm: the border`,
      `${formatFixed(100 * next.outShare, 1)} in 100 are beyond ${mm(toleranceMm)} mm`,
    ],
  };
}
