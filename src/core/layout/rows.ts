import { boxesOverlap, type Box } from '../target/block';

/** Size of one place of a layout: the art and its cut line together. */
export interface CellSize {
  readonly widthMm: number;
  readonly lengthMm: number;
}

interface Span {
  readonly from: number;
  readonly to: number;
}

/** How much short of a whole place still counts as one: sums of tenths of mm are not exact. */
const ROUNDING_MM = 1e-6;

/** Places in a row that is so long: n widths and n - 1 gaps. */
export function placesIn(lengthMm: number, sizeMm: number, gapMm: number): number {
  return Math.max(0, Math.floor((lengthMm + gapMm + ROUNDING_MM) / (sizeMm + gapMm)));
}

/** What of a box is free over the full height of a band, left to right. */
export function freeSpans(area: Box, keepOuts: readonly Box[], bottom: number, height: number): readonly Span[] {
  const band = { left: area.left, bottom, width: area.width, height };
  const inTheWay = keepOuts.filter((zone) => boxesOverlap(zone, band)).sort((a, b) => a.left - b.left);
  const spans: Span[] = [];
  let from = area.left;
  for (const zone of inTheWay) {
    if (zone.left > from) spans.push({ from, to: zone.left });
    from = Math.max(from, zone.left + zone.width);
  }
  if (area.left + area.width > from) spans.push({ from, to: area.left + area.width });
  return spans;
}

export interface RowRequest {
  readonly area: Box;
  readonly keepOuts: readonly Box[];
  readonly cell: CellSize;
  readonly gapMm: number;
}

/** Upper ends at which a row can be worth to begin: the area's, and below each zone, each with any number of rows above it. */
function rowTops({ area, keepOuts, cell, gapMm }: RowRequest): readonly number[] {
  const pitch = cell.lengthMm + gapMm;
  const last = area.bottom + cell.lengthMm;
  const first = area.bottom + area.height;
  const starts = [first, ...keepOuts.map((zone) => zone.bottom)].filter((y) => y <= first);
  const tops = starts.flatMap((y) => {
    const rows = placesIn(y - area.bottom, cell.lengthMm, gapMm);
    return Array.from({ length: rows }, (_, k) => y - k * pitch);
  });
  return [...new Set(tops)].filter((y) => y >= last - ROUNDING_MM).sort((a, b) => a - b);
}

const countAt = ({ area, keepOuts, cell, gapMm }: RowRequest, topMm: number): number =>
  freeSpans(area, keepOuts, topMm - cell.lengthMm, cell.lengthMm).reduce(
    (sum, span) => sum + placesIn(span.to - span.from, cell.widthMm, gapMm),
    0,
  );

/**
 * The most places in straight rows, by dynamic programming over where rows can begin. Any arrangement in rows can be pushed
 * up, row by row, until each row touches the one above, the area's end or the lower edge of a mark's room, without losing a
 * place: those are the only beginnings that need be tried, so the number is the largest there is for straight rows.
 * @returns upper ends of the rows, leading end first.
 */
export function bestRowTops(request: RowRequest): readonly number[] {
  const tops = rowTops(request);
  const pitch = request.cell.lengthMm + request.gapMm;
  // most[i]: places with the first row at tops[i] or lower; tops ascend.
  const most: number[] = [];
  const take: boolean[] = [];
  const below: number[] = [];
  let next = -1;
  for (const [i, y] of tops.entries()) {
    while ((tops[next + 1] ?? Infinity) <= y - pitch + ROUNDING_MM) next += 1;
    const places = countAt(request, y);
    const own = places + (most[next] ?? 0);
    const without = most[i - 1] ?? 0;
    take.push(places > 0 && own >= without);
    most.push(Math.max(own, without));
    below.push(next);
  }
  const chosen: number[] = [];
  for (let i = tops.length - 1; i >= 0;) {
    if (take[i]) chosen.push(tops[i]!);
    i = take[i] ? below[i]! : i - 1;
  }
  return chosen;
}

/** Places of one row, each span's in its middle. */
export function rowPlaces(request: RowRequest, topMm: number, most = Infinity): readonly Box[] {
  const { area, keepOuts, cell, gapMm } = request;
  const bottom = topMm - cell.lengthMm;
  const places: Box[] = [];
  for (const span of freeSpans(area, keepOuts, bottom, cell.lengthMm)) {
    const count = Math.min(placesIn(span.to - span.from, cell.widthMm, gapMm), most - places.length);
    const spare = span.to - span.from - count * (cell.widthMm + gapMm) + gapMm;
    for (let k = 0; k < count; k++) {
      const left = span.from + Math.max(0, spare) / 2 + k * (cell.widthMm + gapMm);
      places.push({ left, bottom, width: cell.widthMm, height: cell.lengthMm });
    }
  }
  return places;
}

/** All places of one kind of item in straight rows, the most that fit. */
export const fillRows = (request: RowRequest): readonly Box[] =>
  bestRowTops(request).flatMap((topMm) => rowPlaces(request, topMm));
