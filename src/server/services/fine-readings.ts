import 'server-only';
import type { FigureReading } from '@/core/reading/observation';
import { wedgeOf } from '@/core/target/sheet-definition';
import type { CalibrationRecord, CutSet } from './record';

/** Current fine readings of some sets, as the fit takes them. */
export function fineReadings(record: CalibrationRecord, sets: readonly CutSet[]): readonly FigureReading[] {
  return record.readings.flatMap((r): FigureReading[] => {
    const set = sets.find((s) => s.id === r.cutSetId);
    if (!set || r.readingMm === null || r.standardUncertaintyMm === null) return [];
    const common = {
      id: r.id,
      readingMm: r.readingMm,
      standardUncertaintyMm: r.standardUncertaintyMm,
      loadKey: `load ${set.loadNo}`,
      load: set.load,
      fileShift: set.fileShift,
    };
    if (r.method === 'wedge') {
      const place = wedgeOf(record.definition, set.setNo, r.spotNo, r.axis);
      return place ? [{ kind: 'wedge', place, ...common }] : [];
    }
    const disc = record.definition.liftOffs.find((f) => f.spotNo === r.spotNo);
    return r.method === 'rim' && disc ? [{ kind: 'rim', axis: r.axis, centre: disc.centre, ...common }] : [];
  });
}
