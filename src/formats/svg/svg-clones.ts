import { identity, invert, then, type Affine } from '@/core/geometry/affine';
import type { DrawnShape } from './svg-content';

type Inner = Affine<'file', 'file'>;

/** What was put in front of the transforms of elements, in the units around each, by their place in the tree. */
export type MovedElements = ReadonlyMap<number, Inner>;

/** How much two maps may differ, in units of the drawing, and still be one: far below what is written. */
const SAME = 1e-7;

const PARTS = ['xx', 'xy', 'yx', 'yy', 'tx', 'ty'] as const;

function isSame(a: Inner, b: Inner): boolean {
  const size = Math.max(1, ...PARTS.map((part) => Math.abs(a[part])));
  return PARTS.every((part) => Math.abs(a[part] - b[part]) <= SAME * size);
}

/** How a move inside an element shows where a clone draws that element; null for one that is drawn as nothing. */
function shownMove({ map }: DrawnShape, own: Inner, moved: Inner): Inner | null {
  const [back, place] = [invert(own), invert(map)];
  if (!back.ok || !place.ok) return null;
  // From the units around the element to those around the clone, and back.
  const around = then(back.value, map);
  const inside = invert(around);
  return inside.ok ? then(then(inside.value, moved), around) : null;
}

/**
 * By how much what a clone shows was moved already, in the units around the clone, because its original is drawn and was moved
 * itself: the identity where nothing of it was. Null where its parts were moved in different ways, or where it shows a clone
 * that was moved: no one transform of the clone puts that right.
 * @param ownMap an element's own transform as it was
 */
export function movedInside(
  shapes: readonly DrawnShape[],
  moved: MovedElements,
  ownMap: (index: number) => Inner | null,
): Inner | null {
  let all: Inner | null = null;
  for (const shape of shapes) {
    if (shape.uses.some((use) => moved.has(use))) return null;
    const by = moved.get(shape.index);
    const own = ownMap(shape.index);
    const shown = by && own ? shownMove(shape, own, by) : identity<'file'>();
    if (!shown) continue;
    if (all && !isSame(all, shown)) return null;
    all = shown;
  }
  return all ?? identity<'file'>();
}
