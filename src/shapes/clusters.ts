import type { Box } from '@/core/target/block';

/** Index of the group that each box belongs to: boxes that overlap, directly or by others, share one. Sorted sweep. */
export function clustersOf(boxes: readonly Box[]): readonly (readonly number[])[] {
  const parent = boxes.map((_, i) => i);
  const rootOf = (i: number): number => {
    let at = i;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] ?? at] ?? at;
      at = parent[at] ?? at;
    }
    return at;
  };
  const order = boxes.map((_, i) => i).sort((a, b) => (boxes[a]?.left ?? 0) - (boxes[b]?.left ?? 0));
  let open: number[] = [];
  for (const i of order) {
    const box = boxes[i];
    if (!box) continue;
    open = open.filter((j) => {
      const other = boxes[j];
      return other !== undefined && other.left + other.width >= box.left;
    });
    for (const j of open) {
      const other = boxes[j];
      if (other && other.bottom <= box.bottom + box.height && box.bottom <= other.bottom + other.height)
        parent[rootOf(i)] = rootOf(j);
    }
    open.push(i);
  }
  const groups = new Map<number, number[]>();
  for (const i of boxes.keys()) {
    const root = rootOf(i);
    const group = groups.get(root);
    if (group) group.push(i);
    else groups.set(root, [i]);
  }
  return [...groups.values()];
}
