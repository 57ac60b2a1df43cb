import 'server-only';
import { fitReadings } from '@/core/fit/fit-readings';
import { affineOf } from '@/core/fit/design';
import { markNoise, type LoadMap, type MarkNoise } from '@/core/fit/mark-noise';
import { displacement } from '@/core/geometry/affine';
import type { Load } from '@/core/geometry/load';
import { fineReadings } from './fine-readings';
import type { CalibrationRecord, CutSet } from './record';

export interface LoadView extends LoadMap {
  readonly loadNo: number;
  /** How far this load's own map is from the mean of all, at the corner where that is most. */
  readonly departureMm: number;
}

const isLikeTurned = (a: Load, b: Load): boolean => a.turnDeg === b.turnDeg && a.face === b.face;

/** The map of one load by itself, as the newest set lay and was set, with the covariance of reading alone; null where it carries no whole map. */
function mapOf(record: CalibrationRecord, sets: readonly CutSet[], newest: CutSet): LoadMap | null {
  const fit = fitReadings(fineReadings(record, sets, newest), newest.load, { corners: record.corners });
  if (!fit.ok || fit.value.model !== 'affine') return null;
  // As stated: residuals of a few readings are too few to tell two loads apart by.
  const widened = Math.max(1, fit.value.reducedChiSquare ?? 1);
  return { beta: fit.value.beta, readingCovariance: fit.value.readingCovariance.map((c) => c / widened) };
}

/** Each load of these sets that lay as the newest did, told by itself and by how far it is from their mean. */
export function loadViews(record: CalibrationRecord, sets: readonly CutSet[]): readonly LoadView[] {
  const newest = sets.at(-1);
  if (!newest) return [];
  const like = sets.filter((s) => isLikeTurned(s.load, newest.load));
  const numbers = [...new Set(like.map((s) => s.loadNo))];
  const maps = numbers.flatMap((loadNo) => {
    const map = mapOf(
      record,
      like.filter((s) => s.loadNo === loadNo),
      newest,
    );
    return map ? [{ loadNo, ...map }] : [];
  });
  const mean = Array.from({ length: 6 }, (_, i) => maps.reduce((sum, m) => sum + (m.beta[i] ?? 0) / maps.length, 0));
  return maps.map((m) => {
    const apart = affineOf(mean.map((value, i) => (m.beta[i] ?? 0) - value));
    const far = record.corners.map((corner) => {
      const d = displacement(apart, corner);
      return Math.hypot(d.x, d.y);
    });
    return { ...m, departureMm: Math.max(...far) };
  });
}

/** What the loads of this state of the machine, and of its earlier ones, tell of the noise of reading its marks. */
export const noiseOfLoads = (record: CalibrationRecord, loads: readonly LoadView[]): MarkNoise =>
  markNoise([loads, ...record.earlierLoads], record.marks, record.loadModel);
