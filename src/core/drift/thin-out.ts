/** A place of a chart: how far along, and how much. */
export interface ChartPoint {
  readonly atMm: number;
  readonly valueMm: number;
}

const PER_COLUMN = 2;

/** Index of the first point that lies at a place or beyond it. */
function firstFrom(points: readonly ChartPoint[], atMm: number): number {
  let [low, high] = [0, points.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (points[middle]!.atMm < atMm) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Those from one place to another, both counted. @param points the nearest first. */
export function pointsWithin<P extends ChartPoint>(points: readonly P[], fromMm: number, toMm: number): readonly P[] {
  const first = firstFrom(points, fromMm);
  let end = firstFrom(points, toMm);
  while (end < points.length && points[end]!.atMm <= toMm) end++;
  return points.slice(first, end);
}

/**
 * Fewer points that look the same: where there are more than two a column of a chart, only the least and the most of every
 * column are kept, in their order, so that no peak is lost however many stations there are.
 * @param points the nearest first. @param columns of the chart, a pixel or more each.
 */
export function thinnedOut<P extends ChartPoint>(
  points: readonly P[],
  { fromMm, toMm, columns }: { readonly fromMm: number; readonly toMm: number; readonly columns: number },
): readonly P[] {
  const inside = pointsWithin(points, fromMm, toMm);
  if (inside.length <= PER_COLUMN * columns) return inside;
  const least = new Int32Array(columns).fill(-1);
  const most = new Int32Array(columns).fill(-1);
  const perColumn = columns / (toMm - fromMm);
  inside.forEach(({ atMm, valueMm }, i) => {
    const k = Math.min(columns - 1, Math.floor((atMm - fromMm) * perColumn));
    if (least[k]! < 0 || valueMm < inside[least[k]!]!.valueMm) least[k] = i;
    if (most[k]! < 0 || valueMm > inside[most[k]!]!.valueMm) most[k] = i;
  });
  const kept: P[] = [];
  for (let k = 0; k < columns; k++) {
    if (least[k]! < 0) continue;
    const [first, second] = [Math.min(least[k]!, most[k]!), Math.max(least[k]!, most[k]!)];
    kept.push(inside[first]!);
    if (second !== first) kept.push(inside[second]!);
  }
  return kept;
}
