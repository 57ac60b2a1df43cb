import 'server-only';
import { nextBest, vagueCovariance, type Candidate, type OpenReading } from '@/core/fit/next-best';
import { looksUncertainty } from '@/core/reading/repeats';
import { studentQuantile } from '@/core/math/quantile';
import { combOf, wedgeOf } from '@/core/target/sheet-definition';
import { CONFIDENCE } from '@/core/verdict/bound';
import type { Analysis } from './analysis';
import { looksOf, type Look } from './looks';
import { currentSets, type CalibrationRecord, type CutSet } from './record';
import { repeatsOf, type Repeats } from './repeats';

/** The spot whose reading would help most, and what it does to the allowance for doubt at the worst corner. */
export interface NextSpot {
  readonly spotNo: number;
  readonly axis: string;
  /** Which look at it comes next. */
  readonly lookNo: number;
  /** Whether it was read before. */
  readonly isRead: boolean;
  /** Allowance for doubt at the worst corner now and then; null while no whole map is carried. */
  readonly doubt: { readonly beforeMm: number; readonly afterMm: number } | null;
}

interface Spot extends Candidate {
  readonly first: Look;
  readonly lookNo: number;
  readonly isRead: boolean;
}

function placeOf(record: CalibrationRecord, set: CutSet, { method, spotNo, axis }: Look) {
  if (method === 'wedge') return wedgeOf(record.definition, set.setNo, spotNo, axis)?.origin;
  if (method === 'comb') return combOf(record.definition, spotNo, axis)?.centre;
  return record.definition.liftOffs.find((f) => f.spotNo === spotNo)?.centre;
}

/** How often a figure was looked at so far, and which look comes next. */
function lookedAt(
  { figures }: Repeats,
  set: CutSet,
  look: Look,
): { readonly count: number; readonly free: number | null } {
  const found = figures.find(
    ({ row }) =>
      row.cutSetId === set.id && row.method === look.method && row.spotNo === look.spotNo && row.axis === look.axis,
  );
  return found ? { count: found.looks.length, free: found.freeLook } : { count: 0, free: 1 };
}

/** Variance of what one look more would add: the first gives all, each further one only evens out the eye. */
function addedVariance({ conditions, known }: Repeats, count: number, spread: number): number {
  const variance = (n: number): number => looksUncertainty(conditions, known, { count: n, disputeMm: 0 }) ** 2 * spread;
  return count === 0 ? variance(1) : 1 / (1 / variance(count + 1) - 1 / variance(count));
}

interface Sheet {
  readonly record: CalibrationRecord;
  readonly set: CutSet;
  readonly repeats: Repeats;
  /** How much more the readings scatter than they claim: 1 or more. */
  readonly spread: number;
}

/** What looking at a spot's least looked at figures would give; none where all were looked at often enough. */
function spotOf({ record, set, repeats, spread }: Sheet, looks: readonly Look[]): readonly Spot[] {
  const told = looks.map((look) => ({ look, ...lookedAt(repeats, set, look) }));
  const fewest = Math.min(...told.map((t) => t.count));
  const open = told.filter((t) => t.count === fewest);
  const [first] = open;
  if (!first?.free) return [];
  const readings = open.flatMap(({ look }): OpenReading[] => {
    const at = placeOf(record, set, look);
    return at ? [{ axis: look.axis, at, varianceMm2: addedVariance(repeats, fewest, spread) }] : [];
  });
  return [{ first: first.look, lookNo: first.free, isRead: fewest > 0, readings }];
}

function spotsOf(record: CalibrationRecord, set: CutSet, { fit }: Analysis): readonly Spot[] {
  const spread = Math.max(1, fit.reducedChiSquare ?? 1);
  const sheet = { record, set, repeats: repeatsOf(record, [set]), spread };
  const bySpot = new Map<number, Look[]>();
  for (const look of looksOf(record, set)) bySpot.set(look.spotNo, [...(bySpot.get(look.spotNo) ?? []), look]);
  return [...bySpot.values()].flatMap((looks) => spotOf(sheet, looks));
}

/** What was read so far, as far as the choice of the next spot needs it. */
const readSoFar = ({ fit }: Analysis): readonly OpenReading[] =>
  fit.readings
    .filter((r) => r.used)
    .map(({ observation: { axis, at, standardUncertaintyMm } }) => ({
      ...{ axis, at },
      varianceMm2: standardUncertaintyMm ** 2,
    }));

/** Which spot of the newest set to read next, or once more. Null when all is read out. */
export function nextSpot(record: CalibrationRecord, analysis: Analysis): NextSpot | null {
  const set = currentSets(record).at(-1);
  if (!set) return null;
  const isWhole = analysis.fit.model === 'affine';
  const vague = isWhole ? null : vagueCovariance(readSoFar(analysis));
  const known = vague ? { covariance: vague, readingCovariance: vague } : analysis.fit;
  const best = nextBest(known, spotsOf(record, set, analysis), record.corners);
  if (!best) return null;
  const factor = studentQuantile(CONFIDENCE, analysis.fit.quantileDegrees);
  const { first, lookNo, isRead } = best.candidate;
  return {
    spotNo: first.spotNo,
    axis: first.axis,
    lookNo,
    isRead,
    doubt: isWhole ? { beforeMm: factor * best.beforeMm, afterMm: factor * best.afterMm } : null,
  };
}
