import type { Box } from '@/core/target/block';
import { ringsBox, unionOf, type Ring } from './outline';

const boxesMeet = (a: Box, b: Box): boolean =>
  a.left <= b.left + b.width &&
  b.left <= a.left + a.width &&
  a.bottom <= b.bottom + b.height &&
  b.bottom <= a.bottom + a.height;

/** Rings of one side that the other side's box reaches, and those it does not: they stay as they are. */
function partedBy(
  rings: readonly Ring[],
  other: Box,
): { readonly near: readonly Ring[]; readonly far: readonly Ring[] } {
  const near: Ring[] = [];
  const far: Ring[] = [];
  for (const ring of rings) {
    const box = ringsBox([ring]);
    if (box) (boxesMeet(box, other) ? near : far).push(ring);
  }
  return { near, far };
}

/** What two clean outlines cover together: only rings that can meet are reckoned. What lies within a ring that stays, stays too. */
function unionOfTwo(one: readonly Ring[], two: readonly Ring[]): readonly Ring[] {
  const [boxOne, boxTwo] = [ringsBox(one), ringsBox(two)];
  if (!boxOne) return two;
  if (!boxTwo) return one;
  const a = partedBy(one, boxTwo);
  const b = partedBy(two, boxOne);
  const isApart = a.near.length === 0 || b.near.length === 0;
  const middle = isApart ? [...a.near, ...b.near] : unionOf([...a.near, ...b.near]);
  return [...a.far, ...b.far, ...middle];
}

const centre = (box: Box, isAcross: boolean): number =>
  isAcross ? box.left + box.width / 2 : box.bottom + box.height / 2;

/**
 * What many clean outlines cover together, halves of them first: holes and islands far from a seam are touched no more, so
 * that thousands of outlines that all run together take seconds less than one call with all of them.
 */
export function unionInParts(outlines: readonly (readonly Ring[])[]): readonly Ring[] {
  const [only] = outlines;
  if (outlines.length <= 1) return only ?? [];
  const whole = ringsBox(outlines.flat());
  if (!whole) return [];
  const isAcross = whole.width > whole.height;
  const order = outlines
    .flatMap((rings) => {
      const box = ringsBox(rings);
      return box ? [{ rings, at: centre(box, isAcross) }] : [];
    })
    .sort((a, b) => a.at - b.at)
    .map((o) => o.rings);
  const half = Math.ceil(order.length / 2);
  return unionOfTwo(unionInParts(order.slice(0, half)), unionInParts(order.slice(half)));
}
