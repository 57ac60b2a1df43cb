import 'server-only';
import { roughShift, type RoughReading } from '@/core/cutting/rough';
import type { Point } from '@/core/geometry/affine';
import type { Load } from '@/core/geometry/load';
import { doneSets, type CalibrationRecord } from './record';

export interface Rough {
  readonly cutSetId: string;
  readonly shift: Point;
  readonly load: Load;
  readonly readingIds: readonly string[];
  readonly spots: number;
}

/** The rough position read off the newest set that has one: both components of a spot count together. */
export function roughOf(record: CalibrationRecord): Rough | null {
  const rough = record.readings.filter((r) => r.method === 'rough' && r.state === 'read');
  const set = [...doneSets(record)].reverse().find((c) => rough.some((r) => r.cutSetId === c.id));
  if (!set) return null;
  const own = rough.filter((r) => r.cutSetId === set.id);
  const spots = [...new Set(own.map((r) => r.spotNo))].flatMap((spotNo): RoughReading[] => {
    const across = own.find((r) => r.spotNo === spotNo && r.axis === 'across')?.displacementMm ?? null;
    const along = own.find((r) => r.spotNo === spotNo && r.axis === 'along')?.displacementMm ?? null;
    return across === null || along === null ? [] : [{ spotNo, acrossMm: across, alongMm: along }];
  });
  const shift = roughShift(spots);
  return shift
    ? { cutSetId: set.id, shift, load: set.load, readingIds: own.map((r) => r.id), spots: spots.length }
    : null;
}
