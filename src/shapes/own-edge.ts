import { samplesOf, type CutLine } from '@/core/artwork/cut-line';
import { indexLines, nearestLine } from '@/core/artwork/line-index';
import { ringArea, type Ring } from './outline';

/** Farther than this no border is measured. */
const FARTHEST_MM = 15;

function isCovered(p: { readonly x: number; readonly y: number }, ink: readonly Ring[]): boolean {
  let isInside = false;
  for (const ring of ink) {
    let before = ring.at(-1);
    for (const q of ring) {
      if (
        before &&
        before.y > p.y !== q.y > p.y &&
        p.x < ((q.x - before.x) * (p.y - before.y)) / (q.y - before.y) + before.x
      )
        isInside = !isInside;
      before = q;
    }
  }
  return isInside;
}

/**
 * The least distance of a drawing's own cut lines from the edge of its ink, outward: plus is a white border, minus a bleed,
 * 0 where the line crosses the ink's edge. Null where no line comes within 15 mm of the ink.
 * @param ink clean outlines, holes clockwise.
 */
export function measureOwnEdge(lines: readonly CutLine[], ink: readonly Ring[]): number | null {
  const edges: CutLine[] = ink
    .filter((ring) => Math.abs(ringArea(ring)) > 0)
    .map((points) => ({ points, isClosed: true, place: '' }));
  if (edges.length === 0) return null;
  const index = indexLines(edges, FARTHEST_MM);
  let outside = Infinity;
  let inside = Infinity;
  for (const line of lines) {
    for (const p of samplesOf(line, 0.5, 1000)) {
      const { distanceMm } = nearestLine(index, p, () => true);
      if (!Number.isFinite(distanceMm)) continue;
      if (isCovered(p, ink)) inside = Math.min(inside, distanceMm);
      else outside = Math.min(outside, distanceMm);
    }
  }
  if (Number.isFinite(outside) && Number.isFinite(inside)) return 0;
  if (Number.isFinite(outside)) return outside;
  return Number.isFinite(inside) ? -inside : null;
}
