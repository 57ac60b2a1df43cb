import type { Point } from '../geometry/affine';
import { roughCut } from './drawing';
import { discExtentMm, type DiscFigure } from './disc';
import { circleAbout } from './lift-off';
import { discName, figureName, type SheetDefinition, type WedgeFigure } from './sheet-definition';
import { cutStrip, figureToSheet } from './wedge';

/** Ink and strip of a wedge need this much room on either side of the strip's middle line, and beyond its ends. */
const HALF_ROOM_MM = 3.5;
export const CROSSING_MARGIN_MM = 2;

interface Extent {
  readonly minX: number;
  readonly maxX: number;
  readonly minY: number;
  readonly maxY: number;
}

function extentOf(points: readonly Point[], grow: number): Extent {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return {
    minX: Math.min(...xs) - grow,
    maxX: Math.max(...xs) + grow,
    minY: Math.min(...ys) - grow,
    maxY: Math.max(...ys) + grow,
  };
}

const overlap = (a: Extent, b: Extent): boolean =>
  a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;

const hole = (d: DiscFigure): readonly Point[] => circleAbout(d.centre, d.holeRadiusMm);
const stripOnSheet = (w: WedgeFigure): readonly Point[] => cutStrip(w.halfLengthMm).map((p) => figureToSheet(w, p));

/**
 * Figures of set 2 that the cuts of a misplaced set 1 ran through: set 1's strips and Ls moved by the rough shift, with
 * 2 mm to spare, against each figure's own room. Such figures cannot be read and are left out of set 2.
 * @returns their names: "spot axis" of a wedge, "spot disc" of a disc.
 */
export function crossedBySpentSet(definition: SheetDefinition, shift: Point): readonly string[] {
  const moved = [
    ...definition.wedges.filter((w) => w.setNo === 1).map(stripOnSheet),
    ...definition.discs.filter((d) => d.setNo === 1).map(hole),
    ...definition.roughs.map(roughCut),
  ].map((path) =>
    extentOf(
      path.map((p) => ({ x: p.x + shift.x, y: p.y + shift.y })),
      CROSSING_MARGIN_MM,
    ),
  );
  const isCrossed = (room: Extent): boolean => moved.some((extent) => overlap(extent, room));
  return [
    ...definition.wedges
      .filter((w) => w.setNo === 2 && isCrossed(extentOf(stripOnSheet(w), HALF_ROOM_MM - 1)))
      .map((w) => figureName(w)),
    ...definition.discs
      .filter((d) => d.setNo === 2 && isCrossed(extentOf([d.centre], discExtentMm(d))))
      .map((d) => discName(d)),
  ];
}
