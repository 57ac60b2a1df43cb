import type { Point } from '../geometry/affine';
import { closedPoints, distanceToPiece, type CutLine } from './cut-line';

interface Piece {
  readonly line: number;
  readonly a: Point<'page'>;
  readonly b: Point<'page'>;
}

/** Straight pieces of many lines, sorted into square cells, so that what is near a place is found without a walk over all. */
export interface LineIndex {
  readonly cellMm: number;
  readonly cells: ReadonlyMap<string, readonly Piece[]>;
}

/** A long piece is entered cell by cell; pieces of kilometres are not drawn. */
const MOST_CELLS = 4000;

const key = (i: number, j: number): string => `${i} ${j}`;

/** Sorts all straight pieces of lines into cells. @param cellMm at least the farthest distance that will be asked for. */
export function indexLines(lines: readonly CutLine[], cellMm: number): LineIndex {
  const cells = new Map<string, Piece[]>();
  for (const [line, own] of lines.entries()) {
    const points = closedPoints(own);
    for (const [i, b] of points.slice(1).entries()) {
      const a = points[i]!;
      const steps = Math.min(MOST_CELLS, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / cellMm) + 1);
      const entered = new Set<string>();
      for (let k = 0; k <= steps; k++) {
        const x = a.x + ((b.x - a.x) * k) / steps;
        const y = a.y + ((b.y - a.y) * k) / steps;
        entered.add(key(Math.floor(x / cellMm), Math.floor(y / cellMm)));
      }
      for (const cell of entered) {
        const inCell = cells.get(cell);
        if (inCell) inCell.push({ line, a, b });
        else cells.set(cell, [{ line, a, b }]);
      }
    }
  }
  return { cellMm, cells };
}

/** Distance from a place to the nearest line that is asked for, within one cell; infinite beyond. */
export function nearestLine(index: LineIndex, p: Point<'page'>, isAsked: (line: number) => boolean) {
  const i = Math.floor(p.x / index.cellMm);
  const j = Math.floor(p.y / index.cellMm);
  let line = -1;
  let distanceMm = Infinity;
  for (const di of [-1, 0, 1])
    for (const dj of [-1, 0, 1])
      for (const piece of index.cells.get(key(i + di, j + dj)) ?? []) {
        if (!isAsked(piece.line)) continue;
        const d = distanceToPiece(p, piece.a, piece.b);
        if (d < distanceMm) {
          distanceMm = d;
          line = piece.line;
        }
      }
  return { line, distanceMm };
}
