import { grownBox } from '@/core/layout/page-area';
import type { Box } from '@/core/target/block';
import { clustersOf } from './clusters';
import { offsetOf, ringArea, ringsBox, unionOf, type Ring } from './outline';
import { isSimple } from './simple-ring';
import { unionInParts } from './union-in-parts';

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

/** Boxes nearer than this may touch once they are whole micrometres. */
const TOUCH_MM = 0.01;
/** Of the whole time, while outlines are drawn; the rest joins those that met. */
const GROWING_SHARE = 0.7;

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

interface Grown extends RoundLine {
  readonly box: Box;
}

/**
 * The line round many shapes. Only shapes that touch share an outline, and only outlines that grew into each other share a
 * line: both are taken a few at a time, which for thousands of shapes is many times quicker than all in one.
 * @param shapes what each shape's ink covers.
 */
export function linesRound(shapes: readonly (readonly Ring[])[], order: RoundOrder): readonly RoundLine[] {
  const { offsetMm, keepsHoles, onProgress } = order;
  const inked = shapes.flatMap((rings) => {
    const box = ringsBox(rings);
    return box ? [{ rings, box: grownBox(box, TOUCH_MM) }] : [];
  });
  const touching = clustersOf(inked.map((s) => s.box));
  const grown = touching.flatMap((cluster, done): readonly Grown[] => {
    if (done % 16 === 0) onProgress?.((GROWING_SHARE * done) / touching.length);
    const art = wanted(cleaned(cluster.flatMap((i) => inked[i]?.rings ?? [])), keepsHoles);
    const line = offsetOf(art, offsetMm);
    const box = ringsBox([...art, ...line]);
    return box ? [{ art, line, box: grownBox(box, TOUCH_MM) }] : [];
  });
  const meeting = clustersOf(grown.map((g) => g.box));
  return meeting.map((cluster, done) => {
    if (done % 16 === 0) onProgress?.(GROWING_SHARE + ((1 - GROWING_SHARE) * done) / meeting.length);
    const parts = cluster.flatMap((i) => grown[i] ?? []);
    return { art: parts.flatMap((g) => g.art), line: unionInParts(parts.map((g) => g.line)) };
  });
}
