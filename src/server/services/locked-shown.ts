import 'server-only';
import type { Box } from '@/core/target/block';
import { pathWriter } from '@/shapes/picture-path';
import type { LockedContent } from './job-content';

/** An item as it was locked: where its art lies in its cell, and its lines as an SVG has them. */
export interface LockedItem {
  readonly artBox: Box;
  readonly cutPath: string;
  readonly scorePath: string;
}

/** A locked layout as a picture draws it: all as it was locked, whatever the machine's marks or the reckoning are by now. */
export interface LockedShown extends Pick<LockedContent, 'page' | 'placements' | 'markBoxes'> {
  readonly items: Readonly<Record<string, LockedItem>>;
}

export function lockedShown({ page, placements, markBoxes, items }: LockedContent): LockedShown {
  const shown = items.map(({ id, artBox, cuts, scores = [] }): readonly [string, LockedItem] => {
    const cell = placements.find((p) => p.itemId === id)?.box ?? artBox;
    const pathOf = pathWriter([cuts], Math.max(cell.width, cell.height));
    return [id, { artBox, cutPath: cuts.map(pathOf).join(''), scorePath: scores.map(pathOf).join('') }];
  });
  return { page, placements, markBoxes, items: Object.fromEntries(shown) };
}
