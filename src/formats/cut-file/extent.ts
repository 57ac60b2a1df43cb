import type { Point } from '@/core/geometry/affine';
import { movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { FARTHEST_MM, type Box, type DrawnGroup, type DrawnLine, type GroupBy, type Remark } from './cut-file';

type At = Point<'page'>;

/** A box being found, page frame, mm. Drawings have millions of points: it is changed in place. */
export interface Extent {
  left: number;
  bottom: number;
  right: number;
  top: number;
}

export const emptyExtent = (): Extent => ({ left: Infinity, bottom: Infinity, right: -Infinity, top: -Infinity });

/** Makes the extent hold the point. */
export function growTo(extent: Extent, { x, y }: At): void {
  extent.left = Math.min(extent.left, x);
  extent.right = Math.max(extent.right, x);
  extent.bottom = Math.min(extent.bottom, y);
  extent.top = Math.max(extent.top, y);
}

const isEmpty = ({ left, right }: Extent): boolean => left > right;

/** Makes the extent hold another one. */
export function growBy(extent: Extent, other: Extent): void {
  if (isEmpty(other)) return;
  growTo(extent, { x: other.left, y: other.bottom });
  growTo(extent, { x: other.right, y: other.top });
}

export const boxOf = (extent: Extent): Box | null => (isEmpty(extent) ? null : { ...extent });

/** False when a part of it lies beyond every machine, or nowhere. */
export const isNear = (extent: Extent): boolean =>
  isEmpty(extent) || [extent.left, extent.bottom, extent.right, extent.top].every((mm) => Math.abs(mm) <= FARTHEST_MM);

/** Calls for each place of a line that its box must hold. */
export type EachPlace = (visit: (place: At) => void) => void;

export function extentOf(each: EachPlace): Extent {
  const extent = emptyExtent();
  each((place) => {
    growTo(extent, place);
  });
  return extent;
}

/** Boxes of all lines, before a move and after it. */
export interface OuterBoxes {
  readonly before: Extent;
  readonly after: Extent;
}

export const noBoxes = (): OuterBoxes => ({ before: emptyExtent(), after: emptyExtent() });

/** Takes a line into the outer boxes; `move` is null for one that stays. @returns its own box before. */
export function measureLine(outer: OuterBoxes, each: EachPlace, move: PlaneMove | null): Extent {
  const own = emptyExtent();
  const moved = move ? emptyExtent() : own;
  each((place) => {
    growTo(own, place);
    if (move) growTo(moved, movePoint(move, place));
  });
  growBy(outer.before, own);
  growBy(outer.after, moved);
  return own;
}

export interface Drawn {
  readonly colour: string;
  readonly layer: string;
  /** How many lines this stands for. */
  readonly count: number;
  readonly extent: Extent;
  /** Its lines for a picture, made only when they are shown. */
  readonly lines: () => readonly (readonly At[])[];
}

/** Shares of a curve at which it is looked at for its box and its picture. */
export const EIGHTHS: readonly number[] = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];

/** More a browser draws slowly, and nobody sees. */
const MOST_SHOWN_POINTS = 40_000;

interface Gathered {
  readonly groups: readonly DrawnGroup[];
  readonly lines: readonly DrawnLine[];
}

/** Gathers what is drawn, one by one: by colour and by layer in the order of first use, and lines for a picture. */
export function gatherer(): { readonly take: (drawn: Drawn) => void; readonly gathered: () => Gathered } {
  const found: Readonly<Record<GroupBy, Map<string, { count: number; readonly extent: Extent }>>> = {
    colour: new Map(),
    layer: new Map(),
  };
  const lines: DrawnLine[] = [];
  let left = MOST_SHOWN_POINTS;
  const count = (by: GroupBy, drawn: Drawn): void => {
    const group = found[by].get(drawn[by]) ?? { count: 0, extent: emptyExtent() };
    group.count += drawn.count;
    growBy(group.extent, drawn.extent);
    found[by].set(drawn[by], group);
  };
  const show = ({ colour, layer, lines: own }: Drawn): void => {
    for (const points of own()) {
      if (left <= 0) return;
      lines.push({ colour, layer, points: points.slice(0, left) });
      left -= points.length;
    }
  };
  const groupsBy = (by: GroupBy): readonly DrawnGroup[] =>
    [...found[by]].map(([name, { count: lineCount, extent }]) => ({
      by,
      name,
      label: labelOf(name),
      count: lineCount,
      box: boxOf(extent),
    }));
  return {
    take: (drawn) => {
      count('colour', drawn);
      count('layer', drawn);
      if (left > 0) show(drawn);
    },
    gathered: () => ({ groups: [...groupsBy('colour'), ...groupsBy('layer')], lines }),
  };
}

/** A name out of a file read byte by byte, as its writer meant it: UTF-8 where it is that. */
export function labelOf(name: string): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Uint8Array.from(name, (c) => c.charCodeAt(0)));
  } catch {
    return name;
  }
}

/** How far the outer box's lower left corner and size change, mm. */
export function boxChange({ before, after }: OuterBoxes): number {
  if (isEmpty(before) || isEmpty(after)) return 0;
  return Math.max(
    Math.abs(after.left - before.left),
    Math.abs(after.bottom - before.bottom),
    Math.abs(after.right - before.right),
    Math.abs(after.top - before.top),
  );
}

/** Below this a moved box is the rounding of its numbers. */
const UNMOVED_MM = 0.002;

/** Programs that place a drawing by its outer box would undo a part of the correction: said, never left to be found out. */
export function extentRemark(changeMm: number): readonly Remark[] {
  if (changeMm <= UNMOVED_MM) return [];
  return [
    {
      kind: 'extent-moves',
      words: `The outer box of all lines changes by ${changeMm.toFixed(2)} mm. A program that places a drawing by its outer box would undo that much: keep a frame that does not move round everything, or place it by the page.`,
    },
  ];
}
