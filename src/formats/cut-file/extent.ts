import type { Point } from '@/core/geometry/affine';
import { FARTHEST_MM, type Box, type DrawnGroup, type DrawnLine, type GroupBy, type Remark } from './cut-file';

/** A box that holds the points too. One box is made for all of them: drawings have millions. */
export function growBox(box: Box | null, points: readonly Point<'page'>[]): Box | null {
  if (points.length === 0) return box;
  const first = points[0] ?? { x: 0, y: 0 };
  let { left, bottom, right, top } = box ?? { left: first.x, bottom: first.y, right: first.x, top: first.y };
  for (const { x, y } of points) {
    left = Math.min(left, x);
    right = Math.max(right, x);
    bottom = Math.min(bottom, y);
    top = Math.max(top, y);
  }
  return { left, bottom, right, top };
}

export const joinBoxes = (a: Box | null, b: Box | null): Box | null =>
  b
    ? growBox(a, [
        { x: b.left, y: b.bottom },
        { x: b.right, y: b.top },
      ])
    : a;

export interface Drawn {
  readonly colour: string;
  readonly layer: string;
  readonly box: Box | null;
  /** Its lines for a picture, made only when they are shown. */
  readonly lines: () => readonly (readonly Point<'page'>[])[];
}

/** Shares of a curve at which it is looked at for its box and its picture. */
export const EIGHTHS: readonly number[] = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];

/** More a browser draws slowly, and nobody sees. */
const MOST_SHOWN_POINTS = 40_000;

/** Lines of a drawing for its picture, until there are enough. */
export function linesOf(items: Iterable<Drawn>): readonly DrawnLine[] {
  const lines: DrawnLine[] = [];
  let left = MOST_SHOWN_POINTS;
  for (const { colour, layer, lines: own } of items) {
    if (left <= 0) break;
    for (const points of own()) {
      lines.push({ colour, layer, points });
      left -= points.length;
    }
  }
  return lines;
}

/** A name out of a file read byte by byte, as its writer meant it: UTF-8 where it is that. */
export function labelOf(name: string): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Uint8Array.from(name, (c) => c.charCodeAt(0)));
  } catch {
    return name;
  }
}

/** What is drawn, gathered by colour and by layer, in the order of first use. */
export function groupsOf(items: Iterable<Drawn>): readonly DrawnGroup[] {
  const found = new Map<string, { by: GroupBy; name: string; label: string; count: number; box: Box | null }>();
  for (const item of items) {
    for (const [by, name] of [
      ['colour', item.colour],
      ['layer', item.layer],
    ] as const) {
      const key = `${by} ${name}`;
      const group = found.get(key) ?? { by, name, label: labelOf(name), count: 0, box: null };
      group.count += 1;
      group.box = joinBoxes(group.box, item.box);
      found.set(key, group);
    }
  }
  return [...found.values()].sort((a, b) => a.by.localeCompare(b.by));
}

/** How far the outer box's lower left corner and size change, mm. */
export function boxChange(before: Box | null, after: Box | null): number {
  if (!before || !after) return 0;
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

/** False when any place lies beyond every machine, or nowhere. */
export const isNear = (points: readonly Point<'page'>[]): boolean =>
  points.every((p) => Math.abs(p.x) <= FARTHEST_MM && Math.abs(p.y) <= FARTHEST_MM);
