import { cornersOf, type Affine, type Point } from '@/core/geometry/affine';
import { arcAsCubics } from '@/core/geometry/arc';
import { edgeOffsetMm, type CutShape, type JobEdge, type JobItem } from '@/core/layout/job-draft';
import type { CellSize } from '@/core/layout/rows';
import type { Box } from '@/core/target/block';
import type { ItemFinding } from '@/core/artwork/item-finding';
import type { Artwork } from '@/formats/svg/read-artwork';
import { polyline, type LinePaint, type PathCommand } from '@/formats/vector-drawing';

/** A shape as it is printed, in the item's own box. */
export interface PrintShape {
  readonly commands: readonly PathCommand<'page'>[];
  readonly fill: string | null;
  readonly isEvenOdd: boolean;
  readonly stroke: LinePaint | null;
}

/** One item made ready: its cell's lower left corner is the origin, y up, mm. */
export interface PreparedItem {
  readonly id: string;
  readonly cell: CellSize;
  /** Where its art lies in the cell. */
  readonly artBox: Box;
  readonly cuts: readonly (readonly PathCommand<'page'>[])[];
  /** Lines that are scored, neither printed nor cut through. */
  readonly scores: readonly (readonly PathCommand<'page'>[])[];
  /** Plain shapes of its art; none for a picture or a plain item. */
  readonly shapes: readonly PrintShape[];
  /** A round edge shows an error in every direction. */
  readonly isRound: boolean;
  /** Distance of the cut from the art's edge, outward, where the lines are the drawing's own; null where it was asked for. */
  readonly ownEdgeMm: number | null;
  readonly findings: readonly ItemFinding[];
}

export interface PrepareRequest {
  readonly item: JobItem;
  readonly edge: JobEdge;
  readonly isMirrored: boolean;
  /** Of a drawing: what was read from its file. */
  readonly artwork: Artwork | null;
  /** Told now and then how much is done, 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** Rectangle with round corners, or ellipse, filling a box. */
export function shapeCommands(shape: CutShape, box: Box, cornerMm: number): readonly PathCommand<'page'>[] {
  const middle = { x: box.left + box.width / 2, y: box.bottom + box.height / 2 };
  if (shape === 'ellipse') {
    const arc = {
      centre: middle,
      radiusX: box.width / 2,
      radiusY: box.height / 2,
      turnRad: 0,
      startRad: 0,
      sweepRad: 2 * Math.PI,
    };
    return closedCubics({ x: middle.x + box.width / 2, y: middle.y }, [arc]);
  }
  const r = Math.min(cornerMm, box.width / 2, box.height / 2);
  const corners = cornersOf<'page'>(box.width - 2 * r, box.height - 2 * r).map((p) => ({
    x: p.x + middle.x,
    y: p.y + middle.y,
  }));
  if (!(r > 0)) return polyline([...corners, ...corners.slice(0, 1)]);
  // Lower left, lower right, upper right, upper left: each corner's quarter begins where its side ends.
  const arcs = corners.map((centre, i) => ({
    centre,
    radiusX: r,
    radiusY: r,
    turnRad: 0,
    startRad: Math.PI + (i * Math.PI) / 2,
    sweepRad: Math.PI / 2,
  }));
  const [first] = corners;
  return closedCubics({ x: (first?.x ?? 0) - r, y: first?.y ?? 0 }, arcs);
}

function closedCubics(
  start: Point<'page'>,
  arcs: readonly Parameters<typeof arcAsCubics<'page'>>[0][],
): readonly PathCommand<'page'>[] {
  const commands: PathCommand<'page'>[] = [{ op: 'M', points: [start] }];
  for (const arc of arcs) {
    const cubics = arcAsCubics(arc);
    const from = cubics[0]?.[0];
    if (from && commands.length > 1) commands.push({ op: 'L', points: [from] });
    for (const [, b, c, d] of cubics) commands.push({ op: 'C', points: [b, c, d] });
  }
  return [...commands, { op: 'Z', points: [] }];
}

/** Cut of a plain box at an offset: a rectangle grows and keeps sharp corners sharp, round ones grow with it. */
export function plainCut(item: JobItem, shape: CutShape, cornerMm: number, edge: JobEdge) {
  const offset = edgeOffsetMm(edge);
  const pad = Math.max(0, offset);
  const cell = { widthMm: item.widthMm + 2 * pad, lengthMm: item.lengthMm + 2 * pad };
  const artBox: Box = { left: pad, bottom: pad, width: item.widthMm, height: item.lengthMm };
  const cutBox: Box = {
    left: pad - offset,
    bottom: pad - offset,
    width: item.widthMm + 2 * offset,
    height: item.lengthMm + 2 * offset,
  };
  const corner = cornerMm > 0 ? Math.max(0, cornerMm + offset) : 0;
  const isLeft = cutBox.width > 0 && cutBox.height > 0;
  return { cell, artBox, cutBox, cuts: isLeft ? [shapeCommands(shape, cutBox, corner)] : [] };
}

/** Left and right exchanged inside a cell. */
export const mirrorIn = (cellWidthMm: number): Affine<'page', 'page'> => ({
  xx: -1,
  xy: 0,
  yx: 0,
  yy: 1,
  tx: cellWidthMm,
  ty: 0,
});
