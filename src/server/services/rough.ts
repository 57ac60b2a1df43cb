import 'server-only';
import { roughContradicts, roughShift, type RoughReading } from '@/core/cutting/rough';
import { displacement, type Point } from '@/core/geometry/affine';
import type { Load } from '@/core/geometry/load';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { Analysis } from './analysis';
import { currentSets, doneSets, type CalibrationRecord } from './record';

export interface Rough {
  readonly cutSetId: string;
  readonly shift: Point;
  readonly load: Load;
  readonly readingIds: readonly string[];
  /** Spots whose grids were read both ways. */
  readonly spotNos: readonly number[];
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
    ? { cutSetId: set.id, shift, load: set.load, readingIds: own.map((r) => r.id), spotNos: spots.map((s) => s.spotNo) }
    : null;
}

/** A rough position and fine figures of the same cut that cannot both be right, as a question; null when they agree. */
export function roughQuestion(record: CalibrationRecord, a: Analysis, system: UnitSystem): string | null {
  const rough = roughOf(record);
  const set = rough && currentSets(record).find((c) => c.id === rough.cutSetId);
  const isFineToo = record.readings.some((r) => r.cutSetId === set?.id && r.method !== 'rough' && r.state === 'read');
  const isSameLoad = set?.load.turnDeg === a.load.turnDeg && set.load.face === a.load.face;
  if (!rough || !set || !isFineToo || !isSameLoad) return null;
  const grids = record.definition.roughs.filter((g) => rough.spotNos.includes(g.spotNo));
  const mean = (pick: (p: Point) => number): number => grids.reduce((sum, g) => sum + pick(g.centre), 0) / grids.length;
  const d = displacement(a.fit.map, { x: mean((p) => p.x), y: mean((p) => p.y) });
  const fine = { x: d.x + set.fileShift.x, y: d.y + set.fileShift.y };
  if (!roughContradicts(rough.shift, fine)) return null;
  const words = ({ x, y }: Point): string =>
    `${formatLength(x, system, true)} across, ${formatLength(y, system, true)} along`;
  return `The rough grids put this cut at ${words(rough.shift)}; the fine figures say ${words(fine)}. Both cannot be right: read the grids again, or the figures.`;
}
