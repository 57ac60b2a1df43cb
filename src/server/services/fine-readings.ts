import 'server-only';
import { StoredScanReading } from '@/contracts/stored';
import type { FigureReading } from '@/core/reading/observation';
import { carriedTo } from '@/core/setting/plan-settings';
import { codedFigureOf } from '@/core/target/coded-figure';
import { combOf, wedgeOf } from '@/core/target/sheet-definition';
import type { CalibrationRecord, CutSet } from './record';
import { repeatsOf } from './repeats';

/** What a scan's readings have in common, as it was kept with each. */
function sharedOf(raw: unknown): { readonly key: string; readonly mm: number } | undefined {
  const kept = StoredScanReading.safeParse(raw);
  return kept.success ? { key: kept.data.scanId, mm: kept.data.sharedMm } : undefined;
}

const isSameState = (settings: CalibrationRecord['settings'], a: CutSet, b: CutSet): boolean =>
  settings.every((s) => (a.settings[s.id] ?? s.value) === (b.settings[s.id] ?? s.value));

/**
 * Map that takes a set's cut to what the reference's settings would have cut: undefined where both were cut with the same,
 * null where a setting between them has no known direction.
 */
export const carryTo = ({ settings }: CalibrationRecord, set: CutSet, reference: CutSet) =>
  isSameState(settings, set, reference) ? undefined : carriedTo(settings, set.settings, reference.settings);

/**
 * Current fine readings of some sets, as the fit takes them: looks at the same figure as one. Sets cut with other settings
 * than the reference (the newest unless another is given) are carried to its settings, or left out where that cannot be done.
 */
export function fineReadings(
  record: CalibrationRecord,
  sets: readonly CutSet[],
  reference: CutSet | undefined = sets.at(-1),
): readonly FigureReading[] {
  return repeatsOf(record, sets).figures.flatMap((figure) => {
    const set = sets.find((s) => s.id === figure.row.cutSetId);
    const toReference = set && reference && carryTo(record, set, reference);
    if (!set || toReference === null) return [];
    return readingOf(record, set, figure).map((r) => (toReference ? { ...r, toReference } : r));
  });
}

type Figure = ReturnType<typeof repeatsOf>['figures'][number];

/** One figure of a set, as the fit takes it; none where the sheet does not have it. */
function readingOf(
  { definition }: CalibrationRecord,
  set: CutSet,
  { row, combined, standardUncertaintyMm }: Figure,
): readonly FigureReading[] {
  const common = {
    id: row.id,
    readingMm: combined.valueMm,
    standardUncertaintyMm,
    loadKey: `load ${set.loadNo}`,
    load: set.load,
    fileShift: set.fileShift,
  };
  if (row.method === 'wedge') {
    const place = wedgeOf(definition, set.setNo, row.spotNo, row.axis);
    return place ? [{ kind: 'wedge', place, ...common }] : [];
  }
  if (row.method === 'comb') {
    const place = combOf(definition, row.spotNo, row.axis);
    return place ? [{ kind: 'comb', place, ...common }] : [];
  }
  const kind = row.method === 'wall' || row.method === 'scan' ? row.method : 'rim';
  const disc =
    kind === 'rim'
      ? definition.liftOffs.find((f) => f.spotNo === row.spotNo)
      : codedFigureOf(definition, set.setNo, row.spotNo);
  if (!disc) return [];
  const shared = kind === 'scan' ? sharedOf(row.raw) : undefined;
  return [{ kind, axis: row.axis, centre: disc.centre, ...common, ...(shared && { shared }) }];
}
