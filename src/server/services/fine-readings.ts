import 'server-only';
import { StoredScanReading } from '@/contracts/stored';
import type { FigureReading } from '@/core/reading/observation';
import { codedFigureOf } from '@/core/target/coded-figure';
import { combOf, wedgeOf } from '@/core/target/sheet-definition';
import type { CalibrationRecord, CutSet } from './record';
import { repeatsOf } from './repeats';

/** What a scan's readings have in common, as it was kept with each. */
function sharedOf(raw: unknown): { readonly key: string; readonly mm: number } | undefined {
  const kept = StoredScanReading.safeParse(raw);
  return kept.success ? { key: kept.data.scanId, mm: kept.data.sharedMm } : undefined;
}

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
    const kind = row.method === 'wall' || row.method === 'scan' ? row.method : 'rim';
    const disc =
      kind === 'rim'
        ? record.definition.liftOffs.find((f) => f.spotNo === row.spotNo)
        : codedFigureOf(record.definition, set.setNo, row.spotNo);
    if (!disc) return [];
    const shared = kind === 'scan' ? sharedOf(row.raw) : undefined;
    return [{ kind, axis: row.axis, centre: disc.centre, ...common, ...(shared && { shared }) }];
  });
}
