import 'server-only';
import { MOST_LOOKS } from '@/contracts/inputs';
import { nextBest, type Candidate, type OpenReading } from '@/core/fit/next-best';
import { looksUncertainty } from '@/core/reading/repeats';
import { studentQuantile } from '@/core/math/quantile';
import { wedgeOf } from '@/core/target/sheet-definition';
import { CONFIDENCE } from '@/core/verdict/bound';
import type { Analysis } from './analysis';
import { looksOf, type Look } from './looks';
import { currentSets, type CalibrationRecord, type CutSet } from './record';
import { repeatsOf, type Repeats } from './repeats';

/** The spot whose reading would help most, and what it does to the allowance for doubt at the worst corner. */
export interface NextSpot {
  readonly spotNo: number;
  readonly axis: string;
  /** Which look at it: 1 where it was not read yet. */
  readonly lookNo: number;
  readonly beforeMm: number;
  readonly afterMm: number;
}

interface Spot extends Candidate {
  readonly first: Look;
  readonly lookNo: number;
}

function placeOf(record: CalibrationRecord, set: CutSet, { method, spotNo, axis }: Look) {
  if (method === 'wedge') return wedgeOf(record.definition, set.setNo, spotNo, axis)?.origin;
  return record.definition.liftOffs.find((f) => f.spotNo === spotNo)?.centre;
}

/** How often a figure was looked at so far. */
function lookedAt({ figures }: Repeats, set: CutSet, look: Look): number {
  const found = figures.find(
    ({ row }) => row.cutSetId === set.id && row.spotNo === look.spotNo && row.axis === look.axis,
  );
  return found?.looks.length ?? 0;
}

/** Variance of what one look more would add: the first gives all, each further one only evens out the eye. */
function addedVariance({ conditions, known }: Repeats, count: number, spread: number): number {
  const variance = (n: number): number => looksUncertainty(conditions, known, { count: n, disputeMm: 0 }) ** 2 * spread;
  return count === 0 ? variance(1) : 1 / (1 / variance(count + 1) - 1 / variance(count));
}

function spotsOf(record: CalibrationRecord, set: CutSet, { fit }: Analysis): readonly Spot[] {
  const repeats = repeatsOf(record, [set]);
  const spread = Math.max(1, fit.reducedChiSquare ?? 1);
  const bySpot = new Map<number, Look[]>();
  for (const look of looksOf(record, set)) bySpot.set(look.spotNo, [...(bySpot.get(look.spotNo) ?? []), look]);
  return [...bySpot.values()].flatMap((looks): Spot[] => {
    const [first] = looks;
    const count = Math.min(...looks.map((l) => lookedAt(repeats, set, l)));
    if (!first || count >= MOST_LOOKS) return [];
    const readings = looks.flatMap((l): OpenReading[] => {
      const at = placeOf(record, set, l);
      const own = lookedAt(repeats, set, l);
      return at && own === count ? [{ axis: l.axis, at, varianceMm2: addedVariance(repeats, own, spread) }] : [];
    });
    return [{ first, lookNo: count + 1, readings }];
  });
}

/** Which spot of the newest set to read next, or once more. Null while no whole map is carried, or all is read out. */
export function nextSpot(record: CalibrationRecord, analysis: Analysis): NextSpot | null {
  const set = currentSets(record).at(-1);
  if (!set || analysis.fit.untold.length > 0) return null;
  const best = nextBest(analysis.fit, spotsOf(record, set, analysis), record.corners);
  if (!best) return null;
  const factor = studentQuantile(CONFIDENCE, analysis.fit.quantileDegrees);
  const { first, lookNo } = best.candidate;
  return {
    spotNo: first.spotNo,
    axis: first.axis,
    lookNo,
    beforeMm: factor * best.beforeMm,
    afterMm: factor * best.afterMm,
  };
}
