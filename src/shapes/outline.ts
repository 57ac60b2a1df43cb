import { Clipper, EndType, FillRule, JoinType, type Paths64 } from 'clipper2-ts';
import type { Frame, Point } from '@/core/geometry/affine';
import type { Box } from '@/core/target/block';

/** A closed line, mm; its last point is not its first again. Outer rings run counter-clockwise, holes clockwise. */
export type Ring<F extends Frame = 'page'> = readonly Point<F>[];

/** Whole micrometres: the polygon package reckons in integers. */
export const UNITS_PER_MM = 1000;
/** Largest distance of a round corner's chords from its arc, in units. */
export const ARC_UNITS = 4;

export const toUnits = (rings: readonly Ring<Frame>[]): Paths64 =>
  rings.map((ring) => ring.map((p) => ({ x: Math.round(p.x * UNITS_PER_MM), y: Math.round(p.y * UNITS_PER_MM) })));

export const toMm = <F extends Frame>(paths: Paths64): readonly Ring<F>[] =>
  paths.map((path) => path.map((p) => ({ x: p.x / UNITS_PER_MM, y: p.y / UNITS_PER_MM })));

/** Signed area, mm2: positive for counter-clockwise. */
export function ringArea(ring: Ring<Frame>): number {
  let twice = 0;
  let before = ring.at(-1) ?? { x: 0, y: 0 };
  for (const p of ring) {
    twice += before.x * p.y - p.x * before.y;
    before = p;
  }
  return twice / 2;
}

export const areaOf = (rings: readonly Ring<Frame>[]): number => rings.reduce((sum, ring) => sum + ringArea(ring), 0);

export function ringsBox(rings: readonly Ring<Frame>[]): Box | null {
  const all = { left: Infinity, bottom: Infinity, right: -Infinity, top: -Infinity };
  for (const ring of rings)
    for (const { x, y } of ring) {
      all.left = Math.min(all.left, x);
      all.right = Math.max(all.right, x);
      all.bottom = Math.min(all.bottom, y);
      all.top = Math.max(all.top, y);
    }
  if (all.left > all.right) return null;
  return { left: all.left, bottom: all.bottom, width: all.right - all.left, height: all.top - all.bottom };
}

/** What rings cover together, as clean outlines with holes. @param rule how one shape's own rings are filled. */
export function unionOf<F extends Frame>(rings: readonly Ring<F>[], rule: 'nonzero' | 'evenodd' = 'nonzero') {
  return toMm<F>(Clipper.union(toUnits(rings), rule === 'evenodd' ? FillRule.EvenOdd : FillRule.NonZero));
}

/** A is what is left of `from` where `taken` was taken away. */
export function differenceOf<F extends Frame>(from: readonly Ring<F>[], taken: readonly Ring<F>[]): readonly Ring<F>[] {
  return toMm<F>(Clipper.difference(toUnits(from), toUnits(taken), FillRule.NonZero));
}

/**
 * The line at one distance from an outline, outward for plus and inward for minus; corners are rounded, holes shrink and
 * grow the other way. Within 5 um of the true line at the given points: 0.5 um of rounding, 4 um of chords.
 * @param rings clean outlines, as `unionOf` gives them.
 */
export function offsetOf<F extends Frame>(rings: readonly Ring<F>[], distanceMm: number): readonly Ring<F>[] {
  if (distanceMm === 0) return rings;
  const grown = Clipper.inflatePaths(
    toUnits(rings),
    distanceMm * UNITS_PER_MM,
    JoinType.Round,
    EndType.Polygon,
    2,
    ARC_UNITS,
  );
  return toMm<F>(grown);
}

/** Thinner than this a part neither lifts nor holds. Common practice, no published source. */
export const SLIVER_MM = 0.5;

export interface Sliver {
  readonly box: Box;
  readonly areaMm2: number;
}

/**
 * Parts of an outline thinner than `widthMm`: what is lost when it is drawn in by half the width and let out again, as far
 * as it is longer than twice the width (corners lose a little as well).
 */
export function sliversOf<F extends Frame>(rings: readonly Ring<F>[], widthMm = SLIVER_MM): readonly Sliver[] {
  const opened = offsetOf(offsetOf(rings, -widthMm / 2), widthMm / 2 + 0.005);
  return differenceOf(rings, opened).flatMap((ring) => {
    const box = ringsBox([ring]);
    const areaMm2 = ringArea(ring);
    const isLong = box !== null && Math.hypot(box.width, box.height) > 2 * widthMm;
    return box && isLong && areaMm2 > 0 ? [{ box, areaMm2 }] : [];
  });
}

/** Outer rings that drawing in by so much leaves nothing of. */
export function lostParts<F extends Frame>(rings: readonly Ring<F>[], distanceMm: number): readonly Box[] {
  if (distanceMm >= 0) return [];
  const outer = rings.filter((ring) => ringArea(ring) > 0);
  return outer.flatMap((ring) => {
    const box = ringsBox([ring]);
    return box && offsetOf([ring], distanceMm).length === 0 ? [box] : [];
  });
}
