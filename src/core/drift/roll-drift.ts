import { AXES, type Axis } from '../target/wedge';
import type { LeastSquaresError } from '../math/qr';
import { matrix } from '../math/qr';
import { ok, type Result } from '../result';
import { believeSlip, foretoldMean, foretoldQuantile, tellSteady, type Foretold, type SlipBelief } from './slip-belief';
import { estimateSlip, type SlipEstimate } from './slip-estimate';
import type { StationSeries } from './slip-filter';

/** One figure along a roll: where it stands, which way it reads, and how far the cut is off the print there. */
export interface StationValue {
  readonly axis: Axis;
  /** Way from the leading edge (or the registered origin) along the roll, mm. */
  readonly atMm: number;
  /** Sideways from the middle of the work, mm. */
  readonly asideMm: number;
  readonly valueMm: number;
}

/** Both directions read at one place. */
export interface StationReading extends Pick<StationValue, 'atMm' | 'asideMm'> {
  /** Null where it was not read. */
  readonly acrossMm: number | null;
  readonly alongMm: number | null;
}

/** Readings of both directions as one value each. */
export const valuesOf = (stations: readonly StationReading[]): readonly StationValue[] =>
  stations.flatMap(({ atMm, asideMm, acrossMm, alongMm }) =>
    (
      [
        ['across', acrossMm],
        ['along', alongMm],
      ] as const
    ).flatMap(([axis, valueMm]) => (valueMm === null ? [] : [{ axis, atMm, asideMm, valueMm }])),
  );

/** A part of the drift, with its 95 % interval. */
export interface DriftPart {
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** What its value comes to at the far end of the strip, and at its edge: mm. */
  readonly atFarEndMm: number;
}

/** One direction of the drift: what stays the same, what grows with the way, and what walks at random. */
export interface DirectionDrift {
  readonly shiftMm: DriftPart;
  /** Growth with the way, mm a metre: feed along, sideways drift across. */
  readonly perMetreMm: DriftPart;
  /** How the growth itself changes, mm a metre and metre. */
  readonly bow: DriftPart;
  /** Growth with the way sideways, as a share (or rad): a turn along, the width's scale across; null where only one place sideways was read. */
  readonly perWidth: DriftPart | null;
  /** What each coefficient adds at a place, mm from the origin and sideways. */
  readonly rowAt: (atMm: number, asideMm: number) => readonly number[];
  readonly slip: SlipEstimate;
  readonly series: StationSeries;
  readonly belief: SlipBelief;
  /** Standard deviation of one reading, mm. */
  readonly noiseMm: number;
}

export interface RollDrift {
  readonly across: DirectionDrift;
  readonly along: DirectionDrift;
  /**
   * How fast the roll itself wanders sideways, mm a metre: the sideways drift without what the turn makes of it; null where
   * only one place sideways was read, so that a turn is not told from it.
   */
  readonly walkMm: DriftPart | null;
  readonly lengthMm: number;
}

const MM_PER_METRE = 1000;

/** What shift, growth, bow and width each add to a reading at a place: the columns of the design. */
const driftRow = (atMm: number, asideMm: number): readonly [number, number, number, number] => {
  const metres = atMm / MM_PER_METRE;
  return [1, metres, (metres * metres) / 2, asideMm];
};

const [WITH_WIDTH, WITHOUT_WIDTH] = [4, 3];

/** Places sideways that lie nearer to each other tell no turn, mm. */
const ASIDE_MM = 1;

function hasWidth(values: readonly StationValue[]): boolean {
  const asides = values.map(({ asideMm }) => asideMm);
  return Math.max(...asides) - Math.min(...asides) > ASIDE_MM;
}

function seriesOf(values: readonly StationValue[], columns: number): StationSeries {
  return {
    atMm: Float64Array.from(values, ({ atMm }) => atMm),
    valuesMm: Float64Array.from(values, ({ valueMm }) => valueMm),
    weights: new Float64Array(values.length).fill(1),
    design: matrix(values.length, columns, (row, k) => driftRow(values[row]!.atMm, values[row]!.asideMm)[k]!),
  };
}

const SIDE = 0.025;

const partOf = (told: Foretold, times: number): DriftPart => {
  const value = foretoldMean(told);
  return {
    value,
    low: foretoldQuantile(told, SIDE),
    high: foretoldQuantile(told, 1 - SIDE),
    atFarEndMm: value * times,
  };
};

interface Extent {
  readonly lengthMm: number;
  readonly halfWidthMm: number;
}

function directionOf(values: readonly StationValue[], extent: Extent): Result<DirectionDrift, LeastSquaresError> {
  const columns = hasWidth(values) ? WITH_WIDTH : WITHOUT_WIDTH;
  const series = seriesOf(values, columns);
  const belief = believeSlip(series);
  if (!belief.ok) return belief;
  const slip = estimateSlip(series);
  if (!slip.ok) return slip;
  const metres = extent.lengthMm / MM_PER_METRE;
  const part = (column: number, times: number): DriftPart =>
    partOf(
      tellSteady(
        belief.value,
        Array.from({ length: columns }, (_, k) => (k === column ? 1 : 0)),
      ),
      times,
    );
  return ok({
    shiftMm: part(0, 1),
    perMetreMm: part(1, metres),
    bow: part(2, (metres * metres) / 2),
    perWidth: columns === WITH_WIDTH ? part(3, extent.halfWidthMm) : null,
    rowAt: (atMm, asideMm) => driftRow(atMm, asideMm).slice(0, columns),
    slip: slip.value,
    belief: belief.value,
    series,
    noiseMm: Math.sqrt(slip.value.fit.noiseVariance),
  });
}

/** Mean and variance of what is foretold; degrees above two are wanted. */
function momentsOf({ parts }: Foretold): { readonly mean: number; readonly variance: number } {
  const mean = parts.reduce((sum, p) => sum + p.weight * p.meanMm, 0);
  const variance = parts.reduce(
    (sum, p) => sum + p.weight * ((p.sdMm ** 2 * p.degrees) / (p.degrees - 2) + (p.meanMm - mean) ** 2),
    0,
  );
  return { mean, variance };
}

/** 95 % of a normal distribution, to one side of two. */
const SIDE_95 = 1.96;

/**
 * The walk: a roll that only lies turned drifts sideways by minus its turn, so that the turn (told by left and right of the
 * stations) is added to the sideways drift. Both are told by readings of their own: their variances add.
 */
function walkOf(across: DirectionDrift, along: DirectionDrift, lengthMm: number): DriftPart | null {
  if (!along.perWidth) return null;
  const sideways = momentsOf(tellSteady(across.belief, across.perWidth ? [0, 1, 0, 0] : [0, 1, 0]));
  const turn = momentsOf(tellSteady(along.belief, [0, 0, 0, MM_PER_METRE]));
  const value = sideways.mean + turn.mean;
  const reach = SIDE_95 * Math.sqrt(sideways.variance + turn.variance);
  return { value, low: value - reach, high: value + reach, atFarEndMm: (value * lengthMm) / MM_PER_METRE };
}

/** Stations that tell four coefficients each way need so many readings to tell slip and noise as well. */
export const LEAST_STATION_READINGS = 8;

export type RollProblem =
  | LeastSquaresError
  | { readonly kind: 'too-few-readings'; readonly needed: number }
  /** All stations stand at the origin. */
  | { readonly kind: 'no-length' };

/**
 * Steady drift and slip of a roll from what was read at its stations, the cut against the print. It does not know how long
 * the print itself is: feed of printer and cutter are told apart only by a length on the print.
 * @param values in any order, each direction at four places along at least; a turn is told where they stand at two places sideways.
 */
export function rollDrift(values: readonly StationValue[]): Result<RollDrift, RollProblem> {
  const ordered = [...values].sort((a, b) => a.atMm - b.atMm);
  const [acrossValues, alongValues] = AXES.map((axis) => ordered.filter((v) => v.axis === axis)) as [
    StationValue[],
    StationValue[],
  ];
  if (Math.min(acrossValues.length, alongValues.length) < LEAST_STATION_READINGS)
    return { ok: false, error: { kind: 'too-few-readings', needed: LEAST_STATION_READINGS } };
  const lengthMm = ordered.at(-1)!.atMm;
  if (!(acrossValues.at(-1)!.atMm > 0) || !(alongValues.at(-1)!.atMm > 0))
    return { ok: false, error: { kind: 'no-length' } };
  const extent = { lengthMm, halfWidthMm: halfWidthOf(ordered) };
  const across = directionOf(acrossValues, extent);
  if (!across.ok) return across;
  const along = directionOf(alongValues, extent);
  if (!along.ok) return along;
  return ok({
    across: across.value,
    along: along.value,
    walkMm: walkOf(across.value, along.value, lengthMm),
    lengthMm,
  });
}

/** How far sideways the outermost figure stands, mm. */
export const halfWidthOf = (values: readonly Pick<StationValue, 'asideMm'>[]): number =>
  values.reduce((most, { asideMm }) => Math.max(most, Math.abs(asideMm)), 0);
