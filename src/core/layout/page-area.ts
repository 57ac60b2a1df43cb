import { markPlaces, type MarkScheme } from '../shop/marks';
import { boxesOverlap, type Box } from '../target/block';
import type { SheetSize } from '../units/sheet-size';

/** White edge that a printer leaves, as the page lies with its leading end up. */
export interface Margins {
  readonly leftMm: number;
  readonly rightMm: number;
  readonly topMm: number;
  readonly bottomMm: number;
}

/** A page, or a piece of a roll, with its marks. Boxes on it: origin at its lower left corner, y up, leading end up, mm. */
export interface LayoutPage extends SheetSize {
  readonly margins: Margins;
  readonly marks: MarkScheme;
}

/** Where the marks let things stand, and where not. */
export interface PageArea {
  /** What the printer can reach. */
  readonly printable: Box;
  /** Inside the marks' inset and the printable box; null where nothing is left. */
  readonly usable: Box | null;
  /** The printed marks themselves. */
  readonly marks: readonly Box[];
  /** Each mark with the room that must stay empty about it. */
  readonly keepOuts: readonly Box[];
}

const right = (box: Box): number => box.left + box.width;
const top = (box: Box): number => box.bottom + box.height;

/** The common part of two boxes; null where they have none. */
export function commonBox(a: Box, b: Box): Box | null {
  const left = Math.max(a.left, b.left);
  const bottom = Math.max(a.bottom, b.bottom);
  const width = Math.min(right(a), right(b)) - left;
  const height = Math.min(top(a), top(b)) - bottom;
  return width > 0 && height > 0 ? { left, bottom, width, height } : null;
}

export const grownBox = (box: Box, byMm: number): Box => ({
  left: box.left - byMm,
  bottom: box.bottom - byMm,
  width: box.width + 2 * byMm,
  height: box.height + 2 * byMm,
});

/** Boxes of a scheme's printed marks. A frame is four bars along its sides. */
export function markBoxes({
  marks,
  widthMm,
  lengthMm,
}: Pick<LayoutPage, 'marks' | 'widthMm' | 'lengthMm'>): readonly Box[] {
  const { kind, insetMm, sizeMm } = marks;
  if (kind === 'frame') {
    const width = widthMm - 2 * insetMm;
    const height = lengthMm - 2 * insetMm;
    const far = { x: widthMm - insetMm - sizeMm, y: lengthMm - insetMm - sizeMm };
    return [
      { left: insetMm, bottom: insetMm, width, height: sizeMm },
      { left: far.x, bottom: insetMm, width: sizeMm, height },
      { left: insetMm, bottom: far.y, width, height: sizeMm },
      { left: insetMm, bottom: insetMm, width: sizeMm, height },
    ];
  }
  return markPlaces(marks, { widthMm, lengthMm }).map((p) => ({
    left: p.x + widthMm / 2 - sizeMm / 2,
    bottom: p.y + lengthMm / 2 - sizeMm / 2,
    width: sizeMm,
    height: sizeMm,
  }));
}

/** What of a page can be used: inside the printable box and the marks' inset, outside the room about each mark. */
export function pageArea(page: LayoutPage): PageArea {
  const { margins, marks, widthMm, lengthMm } = page;
  const printable = {
    left: margins.leftMm,
    bottom: margins.bottomMm,
    width: widthMm - margins.leftMm - margins.rightMm,
    height: lengthMm - margins.topMm - margins.bottomMm,
  };
  const insetMm = marks.kind === 'none' ? 0 : marks.insetMm;
  const inside = grownBox({ left: 0, bottom: 0, width: widthMm, height: lengthMm }, -insetMm);
  const boxes = markBoxes(page);
  return {
    printable,
    usable: commonBox(printable, inside),
    marks: boxes,
    keepOuts: boxes.map((box) => grownBox(box, marks.keepOutMm)),
  };
}

/** Area covered by boxes, overlaps counted once: cut into strips at every edge. */
function coveredMm2(boxes: readonly Box[]): number {
  const edges = [...new Set(boxes.flatMap((b) => [b.bottom, top(b)]))].sort((a, b) => a - b);
  let sum = 0;
  for (const [i, from] of edges.entries()) {
    const to = edges[i + 1] ?? from;
    const across = boxes.filter((b) => b.bottom <= from && top(b) >= to && to > from).sort((a, b) => a.left - b.left);
    let reached = -Infinity;
    for (const b of across) {
      sum += Math.max(0, right(b) - Math.max(reached, b.left)) * (to - from);
      reached = Math.max(reached, right(b));
    }
  }
  return sum;
}

/** Usable area in mm2: the usable box without the rooms about the marks. */
export function usableMm2({ usable, keepOuts }: PageArea): number {
  if (!usable) return 0;
  const taken = keepOuts.flatMap((zone) => commonBox(zone, usable) ?? []);
  return usable.width * usable.height - coveredMm2(taken);
}

/** True where a box lies wholly in the usable box and in no mark's room; a micrometre is forgiven at the edges. */
export function isInArea(box: Box, { usable, keepOuts }: PageArea): boolean {
  if (!usable) return false;
  const EDGE_MM = 1e-3;
  const isInside =
    box.left >= usable.left - EDGE_MM &&
    box.bottom >= usable.bottom - EDGE_MM &&
    right(box) <= right(usable) + EDGE_MM &&
    top(box) <= top(usable) + EDGE_MM;
  const inner = grownBox(box, -EDGE_MM);
  return isInside && !keepOuts.some((zone) => boxesOverlap(inner, zone));
}
