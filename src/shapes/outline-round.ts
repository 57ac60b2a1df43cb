import { grownBox } from '@/core/layout/page-area';
import { clustersOf } from './clusters';
import { offsetOf, ringArea, ringsBox, unionOf, type Ring } from './outline';
import { isSimple } from './simple-ring';

export interface RoundOrder {
  readonly offsetMm: number;
  readonly keepsHoles: boolean;
  /** Told now and then how much is done, 0 to 1. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

/** Art that runs together, and the line round it. */
export interface RoundLine {
  /** Outlines of the art itself, holes as they were asked for. */
  readonly art: readonly Ring[];
  /** The line at the offset. */
  readonly line: readonly Ring[];
}

/** A hole smaller than this is a gap of the art, not a hole that is wanted. Common practice, no published source. */
export const LEAST_HOLE_MM2 = 1;

function wanted(rings: readonly Ring[], keepsHoles: boolean): readonly Ring[] {
  return rings.filter((ring) => {
    const area = ringArea(ring);
    return area > 0 || (keepsHoles && -area >= LEAST_HOLE_MM2);
  });
}

/** Clean outlines of rings. One that stands alone and crosses itself nowhere only runs the right way round. */
function cleaned(rings: readonly Ring[]): readonly Ring[] {
  const [only] = rings;
  if (!only || rings.length > 1 || !isSimple(only)) return unionOf(rings);
  return ringArea(only) < 0 ? [[...only].reverse()] : [only];
}

/**
 * The line round many shapes. Only shapes near each other can run into one outline: they are taken cluster by cluster, which
 * for thousands of small shapes is many times quicker than all in one. @param shapes what each shape's ink covers.
 */
export function linesRound(shapes: readonly (readonly Ring[])[], order: RoundOrder): readonly RoundLine[] {
  const { offsetMm, keepsHoles, onProgress } = order;
  const inked = shapes.flatMap((rings) => {
    const box = ringsBox(rings);
    return box ? [{ rings, box: grownBox(box, Math.max(0, offsetMm) + 0.01) }] : [];
  });
  const clusters = clustersOf(inked.map((s) => s.box));
  return clusters.map((cluster, done) => {
    if (done % 16 === 0) onProgress?.(done / clusters.length);
    const art = wanted(cleaned(cluster.flatMap((i) => inked[i]?.rings ?? [])), keepsHoles);
    const grown = offsetOf(art, offsetMm);
    // Where two outlines grew into each other they become one.
    return { art, line: art.length > 1 ? unionOf(grown) : grown };
  });
}
