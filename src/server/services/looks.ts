import 'server-only';
import type { FineMethod } from '@/core/reading/methods';
import { codedFigures, type CodedFigure } from '@/core/target/coded-figure';
import { discName, figureName } from '@/core/target/sheet-definition';
import { AXES, type Axis } from '@/core/target/wedge';
import type { CalibrationRecord, CutSet } from './record';

export interface Look {
  readonly method: FineMethod;
  readonly spotNo: number;
  readonly axis: Axis;
}

type Asked = Pick<CutSet, 'setNo' | 'leftOut'>;

/** The figures that a sheet is first of all read by. */
export function mainMethod({ definition }: Pick<CalibrationRecord, 'definition'>): FineMethod {
  if (definition.liftOffs.length > 0) return 'rim';
  return definition.combs.length > 0 ? 'comb' : 'wedge';
}

/** Every fine reading that a set offers first: each wedge or comb that was cut, both components of each lift-off disc. */
export function looksOf(record: CalibrationRecord, set: Asked): readonly Look[] {
  const { wedges, combs, liftOffs } = record.definition;
  const own = [
    ...wedges.filter((w) => w.setNo === set.setNo && !set.leftOut.includes(figureName(w))),
    ...combs.filter((c) => c.setNo === set.setNo),
  ].map(({ kind, spotNo, axis }): Look => ({ method: kind, spotNo, axis }));
  const rims = liftOffs.filter((f) => f.setNo === set.setNo);
  return [...own, ...rims.flatMap(({ spotNo }) => AXES.map((axis): Look => ({ method: 'rim', spotNo, axis })))];
}

/** Weeded discs beside the wedges of a set, whose walls may be measured as well. */
export const discsOf = (record: CalibrationRecord, set: Asked) =>
  record.definition.discs.filter(
    (d) => d.cut === 'hole' && d.setNo === set.setNo && !set.leftOut.includes(discName(d)),
  );

/** Coded figures of a set, which a scan may measure instead of the others. */
export const codedOf = (record: CalibrationRecord, set: Asked): readonly CodedFigure[] =>
  codedFigures(record.definition).filter((f) => f.setNo === set.setNo && !set.leftOut.includes(discName(f)));

/** The least number of discs of a scan that stand for a set's other figures: a shift, two scales, turn and squareness with something to spare. */
const ENOUGH_SCANNED = 4;

/** A set is read when every figure of its kind is answered, or its discs were measured in a scan. */
export function isRead(record: CalibrationRecord, set: CutSet): boolean {
  const scanned = record.readings.filter((r) => r.cutSetId === set.id && r.method === 'scan').length;
  return scanned >= AXES.length * ENOUGH_SCANNED || looksAnswered(record, set) >= looksOf(record, set).length;
}

/** How many of a set's first looks have been answered: read, skipped or unreadable. */
export function looksAnswered(record: CalibrationRecord, set: CutSet): number {
  const method = mainMethod(record);
  return record.readings.filter((r) => r.cutSetId === set.id && r.method === method).length;
}
