import 'server-only';
import {
  explainBound,
  explainMap,
  explainNextJob,
  explainOdd,
  explainPart,
  explainReading,
  explainVerdict,
  explainWorst,
  type Explanation,
} from '@/core/verdict/explain';
import type { Analysis } from './analysis';
import { PART_NAMES } from '@/core/verdict/part-words';
import { currentSets, type CalibrationRecord } from './record';
import { repeatsOf } from './repeats';

/** How each figure of a map page was worked out, with this sheet's own numbers. */
export function explanationsOf(record: CalibrationRecord, a: Analysis): readonly Explanation[] {
  const { toleranceMm } = record.calibration;
  const { conditions, known } = repeatsOf(record, currentSets(record));
  return [
    explainReading(conditions, known),
    explainMap(a.fit),
    explainOdd(a.fit),
    ...a.parts
      .filter((p) => p.standardError > 0)
      .map((p) => explainPart(p, PART_NAMES[p.part], record.area, toleranceMm)),
    explainWorst(a.fit, a.bounds),
    explainBound(a.fit, record.corners, a.bounds),
    explainVerdict(a.bounds, a.verdict, toleranceMm),
    explainNextJob(a.next, a.markSdMm, a.noise.kind !== 'estimated', toleranceMm),
  ];
}
