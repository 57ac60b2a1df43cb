import 'server-only';
import type { Axis } from '@/core/target/wedge';
import type { CalibrationRecord, CutSet } from './record';

export interface Look {
  readonly method: 'wedge' | 'rim';
  readonly spotNo: number;
  readonly axis: Axis;
}

/** Every fine reading that a set offers: each wedge that was cut, both components of each disc. */
export function looksOf(record: CalibrationRecord, set: Pick<CutSet, 'setNo' | 'leftOut'>): readonly Look[] {
  const wedges = record.definition.wedges
    .filter((w) => w.setNo === set.setNo && !set.leftOut.includes(`${w.spotNo} ${w.axis}`))
    .map((w): Look => ({ method: 'wedge', spotNo: w.spotNo, axis: w.axis }));
  const rims = record.definition.liftOffs
    .filter((f) => f.setNo === set.setNo)
    .flatMap((f) => (['across', 'along'] as const).map((axis): Look => ({ method: 'rim', spotNo: f.spotNo, axis })));
  return [...wedges, ...rims];
}

/** How many of a set's looks have been answered: read, skipped or unreadable. */
export function looksAnswered(record: CalibrationRecord, set: CutSet): number {
  return record.readings.filter((r) => r.cutSetId === set.id && r.method !== 'rough').length;
}
