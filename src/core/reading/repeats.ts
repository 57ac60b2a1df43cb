import { medianOf } from '../math/median';
import { chiSquareQuantile } from '../math/quantile';
import { readingUncertainty, type ReadingConditions } from './uncertainty';

/** One look at a figure. Looks at the same figure are blind to each other. */
export interface FigureLook {
  readonly id: string;
  readonly valueMm: number;
}

/** Looks at one figure taken together. */
export interface CombinedLooks {
  readonly valueMm: number;
  /** Looks that count. */
  readonly count: number;
  /** Looks that the others contradict: left out. */
  readonly oddIds: readonly string[];
  /** Half of what the looks differ by where they contradict each other and none is clearly the odd one; else 0. */
  readonly disputeMm: number;
}

/** How far looks at one figure scatter. Interval: 95 %, by chi-square. */
export interface Repeatability {
  readonly sdMm: number;
  readonly degrees: number;
  readonly lowerMm: number;
  readonly upperMm: number;
}

/** A look this many times its own scatter off the others does not belong. */
const ODD_AT = 4;

/** Scatter of one look until it is known from repeats: the eye and the rounding to whole steps. */
export const assumedLookSd = ({ stepMm, operatorSdMm }: ReadingConditions): number =>
  Math.hypot(operatorSdMm, stepMm / Math.sqrt(12));

const meanOf = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/**
 * Several looks at one figure: their mean. From three on, a look more than 4 of its own scatters off the median is left
 * out, if at least two remain. Two that lie farther apart than that, times root 2, and more of which no two agree with the
 * median, are in dispute until another is made.
 * @param looks one or more. @param lookSdMm scatter of one look.
 */
export function combineLooks(looks: readonly FigureLook[], lookSdMm: number): CombinedLooks {
  const middle = medianOf(looks.map((l) => l.valueMm));
  const kept = looks.filter((l) => Math.abs(l.valueMm - middle) <= ODD_AT * lookSdMm);
  const counted = looks.length > 2 && kept.length > 1 ? kept : looks;
  const values = counted.map((l) => l.valueMm);
  const spreadMm = Math.max(...values) - Math.min(...values);
  const isScattered = looks.length > 2 && kept.length < 2;
  const isPairApart = counted.length === 2 && spreadMm > ODD_AT * Math.SQRT2 * lookSdMm;
  return {
    valueMm: meanOf(values),
    count: counted.length,
    oddIds: looks.filter((l) => !counted.includes(l)).map((l) => l.id),
    disputeMm: isScattered || isPairApart ? spreadMm / 2 : 0,
  };
}

/**
 * Pooled scatter of looks over all figures looked at more than once; those in dispute are left out. Null: there are none.
 * Source: GUM 2008, H.3.6 and 4.2 (pooled experimental variance).
 */
export function repeatabilityOf(
  figures: readonly (readonly FigureLook[])[],
  assumedSdMm: number,
): Repeatability | null {
  let squares = 0;
  let degrees = 0;
  for (const looks of figures) {
    if (looks.length < 2) continue;
    const { valueMm, oddIds, disputeMm } = combineLooks(looks, assumedSdMm);
    if (disputeMm > 0) continue;
    const counted = looks.filter((l) => !oddIds.includes(l.id));
    squares += counted.reduce((sum, l) => sum + (l.valueMm - valueMm) ** 2, 0);
    degrees += counted.length - 1;
  }
  if (degrees === 0) return null;
  const bound = (share: number): number => Math.sqrt(squares / chiSquareQuantile(share, degrees));
  return { sdMm: Math.sqrt(squares / degrees), degrees, lowerMm: bound(0.975), upperMm: bound(0.025) };
}

/** Repeats are reckoned with instead of the assumed eye once their scatter is known to about a quarter. */
export const ENOUGH_DEGREES = 10;

/**
 * Scatter of one look to reckon with: that of the repeats, widened by sqrt(nu / (nu - 2)), the spread of Student's t with
 * its degrees; the assumed one while there are too few.
 */
export function lookSd(conditions: ReadingConditions, known: Repeatability | null): number {
  if (!known || known.degrees < ENOUGH_DEGREES) return assumedLookSd(conditions);
  return known.sdMm * Math.sqrt(known.degrees / (known.degrees - 2));
}

/**
 * Standard uncertainty of the mean of some looks at one figure. Only the eye averages out: printer dot and file rounding
 * are the figure's own. An eye steadier than half a step sees the same step every time, so that the rounding stays whole.
 */
export function looksUncertainty(
  conditions: ReadingConditions,
  known: Repeatability | null,
  { count, disputeMm }: Pick<CombinedLooks, 'count' | 'disputeMm'>,
): number {
  const sd = lookSd(conditions, known);
  const isSteady = sd < conditions.stepMm / 2;
  return Math.hypot(
    sd / Math.sqrt(count),
    disputeMm,
    readingUncertainty({ ...conditions, operatorSdMm: 0, stepMm: isSteady ? conditions.stepMm : 0 }),
  );
}
