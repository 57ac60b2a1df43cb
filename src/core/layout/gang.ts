import { boxesOverlap, type Box } from '../target/block';
import { fillPage, type LayoutItem, type Placement } from './fill-page';
import type { PageArea } from './page-area';
import { freeSpans, placesIn } from './rows';

/** An item with the number of good pieces that are wanted. */
export interface WantedItem extends LayoutItem {
  readonly quantity: number;
}

/** How many of each item one page holds, and how many pages make the quantity. */
export interface Gang {
  readonly sheets: number;
  readonly placements: readonly Placement[];
}

export type GangProblem = { readonly kind: 'does-not-fit'; readonly itemId: string };

interface Left {
  readonly item: WantedItem;
  count: number;
}

/** Puts as many of the items, tallest first, as fit between two ends of a row. */
function fillSpan(span: { from: number; to: number }, row: Box, left: readonly Left[], gapMm: number): Placement[] {
  const placements: Placement[] = [];
  let from = span.from;
  for (const wanted of left) {
    const { cell, id } = wanted.item;
    if (cell.lengthMm > row.height + 1e-9) continue;
    const count = Math.min(wanted.count, placesIn(span.to - from, cell.widthMm, gapMm));
    for (let k = 0; k < count; k++) {
      const box = {
        left: from,
        bottom: row.bottom + row.height - cell.lengthMm,
        width: cell.widthMm,
        height: cell.lengthMm,
      };
      placements.push({ itemId: id, box, turnDeg: 0 });
      from += cell.widthMm + gapMm;
    }
    wanted.count -= count;
  }
  return placements;
}

/**
 * Rows from the leading end, each as high as the tallest item that is left; the rest of a row is filled with what is no
 * taller (first fit by falling height). Null where not all of them find a place.
 */
function packRows(area: PageArea, items: readonly WantedItem[], counts: readonly number[], gapMm: number) {
  const { usable, keepOuts } = area;
  if (!usable) return null;
  const left = items
    .map((item, i): Left => ({ item, count: counts[i] ?? 0 }))
    .sort((a, b) => b.item.cell.lengthMm - a.item.cell.lengthMm);
  const placements: Placement[] = [];
  let topMm = usable.bottom + usable.height;
  for (;;) {
    const tallest = left.find((l) => l.count > 0);
    if (!tallest) return placements;
    const height = tallest.item.cell.lengthMm;
    const row = { left: usable.left, bottom: topMm - height, width: usable.width, height };
    if (row.bottom < usable.bottom - 1e-6) return null;
    const before = placements.length;
    for (const span of freeSpans(usable, keepOuts, row.bottom, height))
      placements.push(...fillSpan(span, row, left, gapMm));
    if (placements.length > before) topMm = row.bottom - gapMm;
    else {
      // Nothing fits beside the rooms of these marks: go on below the nearest of them.
      const below = keepOuts.filter((zone) => boxesOverlap(zone, row)).map((zone) => zone.bottom);
      topMm = Math.max(-Infinity, ...below.filter((y) => y < topMm));
    }
  }
}

/**
 * The fewest equal pages on which every item gets its quantity, each page holding the same number of it. One item alone
 * fills the page (what is beyond the quantity is spare); several stand in rows, so many of each as the pages need.
 * @param items quantities whole, 1 and more.
 */
export function layGang(area: PageArea, items: readonly WantedItem[], gapMm: number): Gang | GangProblem {
  for (const item of items)
    if (fillPage(area, item, gapMm).length === 0) return { kind: 'does-not-fit', itemId: item.id };
  const [only] = items;
  if (!only) return { sheets: 0, placements: [] };
  if (items.length === 1) {
    const placements = fillPage(area, only, gapMm);
    return { sheets: Math.ceil(only.quantity / placements.length), placements };
  }
  const at = (sheets: number): readonly Placement[] | null =>
    packRows(
      area,
      items,
      items.map((item) => Math.ceil(item.quantity / sheets)),
      gapMm,
    );
  const most = Math.max(...items.map((item) => item.quantity));
  let sheets = 1;
  while (sheets < most && !at(sheets)) sheets = Math.min(most, sheets * 2);
  const placed = at(sheets);
  if (!placed) {
    const largest = items.reduce((a, b) =>
      b.cell.lengthMm * b.cell.widthMm > a.cell.lengthMm * a.cell.widthMm ? b : a,
    );
    return { kind: 'does-not-fit', itemId: largest.id };
  }
  return fewestBetween(Math.ceil(sheets / 2), { sheets, placements: placed }, at);
}

/** Halves the doubt between pages that may be too few and pages that were enough. */
function fewestBetween(tooFew: number, enough: Gang, at: (sheets: number) => readonly Placement[] | null): Gang {
  let low = tooFew;
  let best = enough;
  while (low < best.sheets) {
    const middle = Math.floor((low + best.sheets) / 2);
    const placements = at(middle);
    if (placements) best = { sheets: middle, placements };
    else low = middle + 1;
  }
  return best;
}

/** Of each item: places on all pages, and those beyond the quantity. */
export function leftOver(gang: Gang, items: readonly WantedItem[]) {
  return items.map(({ id, quantity }) => {
    const perSheet = gang.placements.filter((p) => p.itemId === id).length;
    const made = perSheet * gang.sheets;
    return { itemId: id, perSheet, made, beyond: made - quantity };
  });
}
