import 'server-only';
import type { FigureReading } from '@/core/reading/observation';
import { combOf, discOf, wedgeOf } from '@/core/target/sheet-definition';
import type { CalibrationRecord, CutSet } from './record';
import { repeatsOf } from './repeats';

/** Current fine readings of some sets, as the fit takes them: looks at the same figure as one. */
export function fineReadings(record: CalibrationRecord, sets: readonly CutSet[]): readonly FigureReading[] {
  return repeatsOf(record, sets).figures.flatMap(({ row, combined, standardUncertaintyMm }): FigureReading[] => {
    const set = sets.find((s) => s.id === row.cutSetId);
    if (!set) return [];
    const common = {
      id: row.id,
      readingMm: combined.valueMm,
      standardUncertaintyMm,
      loadKey: `load ${set.loadNo}`,
      load: set.load,
      fileShift: set.fileShift,
    };
    if (row.method === 'wedge') {
      const place = wedgeOf(record.definition, set.setNo, row.spotNo, row.axis);
      return place ? [{ kind: 'wedge', place, ...common }] : [];
    }
    if (row.method === 'comb') {
      const place = combOf(record.definition, row.spotNo, row.axis);
      return place ? [{ kind: 'comb', place, ...common }] : [];
    }
    const isWall = row.method === 'wall';
    const disc = isWall
      ? discOf(record.definition, set.setNo, row.spotNo)
      : record.definition.liftOffs.find((f) => f.spotNo === row.spotNo);
    return disc ? [{ kind: isWall ? 'wall' : 'rim', axis: row.axis, centre: disc.centre, ...common }] : [];
  });
}
