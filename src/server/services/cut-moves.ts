import 'server-only';
import { identity, then, translation, type Affine, type Point } from '@/core/geometry/affine';
import { mapInMachine, mapOnSheet, type Load } from '@/core/geometry/load';
import { crossedBySpentSet } from '@/core/target/crossing';
import { discName, figureName, type SheetDefinition } from '@/core/target/sheet-definition';
import type { CalibrationRecord, CutPlan, CutSet } from './record';
import { doneSets } from './record';
import type { Rough } from './rough';

/** Map that moves a set's cut lines in its file for one load: the correction, then the rough shift. */
export function fileMove(plan: Pick<CutPlan, 'fileShift' | 'fileCorrection'>, load: Load): Affine {
  const correction = plan.fileCorrection ? mapOnSheet(plan.fileCorrection, load) : identity();
  return then(correction, translation(plan.fileShift.x, plan.fileShift.y));
}

/** A shift seen on the sheet of one load, told in the machine frame, and back on the sheet of another. */
export function shiftUnder(shift: Point, from: Load, to: Load): Point {
  const map = mapOnSheet(mapInMachine(translation(shift.x, shift.y), from), to);
  return { x: map.tx, y: map.ty };
}

/** Figures of set 2 that the misplaced set 1 of the same sheet ran through; on any other sheet there are none. */
export function figuresSpent(record: CalibrationRecord, sheetNo: number, rough: Rough): readonly string[] {
  const isOwnSheet = doneSets(record).some((c) => c.id === rough.cutSetId && c.sheetNo === sheetNo);
  if (!isOwnSheet) return [];
  return crossedBySpentSet(record.definition, rough.shift);
}

/** The definition without the figures that are left out of one set. */
export function withoutFigures(
  definition: SheetDefinition,
  cutSet: Pick<CutSet, 'setNo' | 'leftOut'>,
): SheetDefinition {
  if (cutSet.leftOut.length === 0) return definition;
  const isKept = (setNo: number, name: string): boolean => setNo !== cutSet.setNo || !cutSet.leftOut.includes(name);
  return {
    ...definition,
    wedges: definition.wedges.filter((w) => isKept(w.setNo, figureName(w))),
    discs: definition.discs.filter((d) => isKept(d.setNo, discName(d))),
  };
}
