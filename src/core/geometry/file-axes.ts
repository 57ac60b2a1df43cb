import { apply, inverseOf, then, type Affine, type Point } from './affine';
import { sheetToMachine, type Load } from './load';

export const FILE_DIRECTIONS = ['+x', '-x', '+y', '-y'] as const;
export type FileDirection = (typeof FILE_DIRECTIONS)[number];

/** Which file axis runs to machine +x (across) and which to machine +y (along the feed). */
export interface FileAxes {
  readonly across: FileDirection;
  readonly along: FileDirection;
}

const UNIT: Record<FileDirection, { readonly x: number; readonly y: number }> = {
  '+x': { x: 1, y: 0 },
  '-x': { x: -1, y: 0 },
  '+y': { x: 0, y: 1 },
  '-y': { x: 0, y: -1 },
};

/** True when the two file directions stand at right angles, whichever way they point. */
export function isPerpendicular(axes: FileAxes): boolean {
  return axes.across.slice(1) !== axes.along.slice(1);
}

/** Machine directions written in the file's axes; a rigid turn or, on some cutters, a mirror image. No shift. */
export function machineToFileAxes(axes: FileAxes): Affine<'machine', 'file'> {
  const across = UNIT[axes.across];
  const along = UNIT[axes.along];
  return { xx: across.x, xy: along.x, yx: across.y, yy: along.y, tx: 0, ty: 0 };
}

/**
 * Sheet to file, so that the smallest file coordinate of `extent` is zero: the origin is the extent's lower left
 * corner as the file sees it. @param extent sheet points that span the box (the printed marks' outer corners).
 */
export function sheetToFile(load: Load, axes: FileAxes, extent: readonly Point[]): Affine<'sheet', 'file'> {
  const turned = then(sheetToMachine(load), machineToFileAxes(axes));
  const corners = extent.map((p) => apply(turned, p));
  const left = Math.min(...corners.map((p) => p.x));
  const bottom = Math.min(...corners.map((p) => p.y));
  return { ...turned, tx: -left, ty: -bottom };
}

export function fileToSheet(load: Load, axes: FileAxes, extent: readonly Point[]): Affine<'file'> {
  return inverseOf(sheetToFile(load, axes, extent));
}
