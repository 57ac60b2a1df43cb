import { nextSums, USUAL_CUSUM, type CusumPoint } from './cusum';
import { ewmaHalfWidth, nextAverage, USUAL_EWMA } from './ewma';
import { deviation, FULL_COUNT, usualLimits, usualOf, type Usual } from './usual';

/** Which chart is kept: practitioners differ, and each sees something better than the others. */
export const SCHOOLS = ['individuals', 'ewma', 'cusum'] as const;
export type School = (typeof SCHOOLS)[number];

/** So many points in a row on one side of the middle signal. Western Electric, Statistical Quality Control Handbook, 1956, from memory. */
export const RUN_LENGTH = 8;

/** Rule by which a point signals. */
export type Rule = 'beyond' | 'run' | 'average' | 'sum';

export interface ChartPoint {
  readonly value: number;
  /** What the chart draws, and its limits: the value's unit on an individuals chart, SDs on the others; null while two points are too few. */
  readonly drawn: { readonly at: number; readonly lower: number; readonly upper: number } | null;
  readonly signal: Rule | null;
}

export interface ControlChart {
  readonly school: School;
  readonly points: readonly ChartPoint[];
  readonly usual: Usual | null;
  /** Fewer than fifty points: limits are still wide, and move. */
  readonly isProvisional: boolean;
}

/** State of one chart as it runs over its points. */
export interface Running extends CusumPoint {
  readonly average: number;
  /** Points in a row on one side, minus below the middle. */
  readonly run: number;
}

export const START: Running = { average: 0, high: 0, low: 0, run: 0 };

/** The chart's state after a point that lies z SDs from what is usual. */
export function next(now: Running, z: number): Running {
  const isSameSide = Math.sign(z) === Math.sign(now.run);
  return {
    average: nextAverage(now.average, z, USUAL_EWMA.lambda),
    ...nextSums(now, z, USUAL_CUSUM.slack),
    run: Math.sign(z) * (isSameSide ? Math.abs(now.run) + 1 : 1),
  };
}

const EWMA_HALF = ewmaHalfWidth(1, USUAL_EWMA);

/** The rule by which a state signals. */
export function signalOf(school: School, z: number, now: Running): Rule | null {
  if (school === 'ewma') return Math.abs(now.average) > EWMA_HALF ? 'average' : null;
  if (school === 'cusum') return Math.max(now.high, now.low) > USUAL_CUSUM.limit ? 'sum' : null;
  if (Math.abs(z) > 3) return 'beyond';
  return Math.abs(now.run) >= RUN_LENGTH ? 'run' : null;
}

function drawnOf(school: School, value: number, now: Running, usual: Usual): ChartPoint['drawn'] {
  if (school === 'individuals') return { at: value, ...usualLimits(usual) };
  if (school === 'ewma') return { at: now.average, lower: -EWMA_HALF, upper: EWMA_HALF };
  // The larger of both sums, downward ones below the line.
  const at = now.high >= now.low ? now.high : -now.low;
  return { at, lower: -USUAL_CUSUM.limit, upper: USUAL_CUSUM.limit };
}

/**
 * A control chart of values in the order in which they came, all of one state of the machine and one material. Each point is
 * held against the points before it (`deviation`), so that signals mean the same from the third point on; from fifty points
 * on what is usual stays as it is. A point that signals never becomes part of what is usual.
 */
export function controlChart(values: readonly number[], school: School): ControlChart {
  const quiet: number[] = [];
  let now = START;
  const points = values.map((value): ChartPoint => {
    const usual = usualOf(quiet);
    if (!usual) {
      quiet.push(value);
      return { value, drawn: null, signal: null };
    }
    const z = deviation(value, usual);
    now = next(now, z);
    const signal = signalOf(school, z, now);
    if (signal === null && quiet.length < FULL_COUNT) quiet.push(value);
    return { value, drawn: drawnOf(school, value, now, usual), signal };
  });
  return { school, points, usual: usualOf(quiet), isProvisional: quiet.length < FULL_COUNT };
}

/** Mean number of points between false signals of one chart, as its rules are stated. */
export const FALSE_SIGNAL_EVERY: Readonly<Record<School, number>> = { individuals: 153, ewma: 500, cusum: 465 };
