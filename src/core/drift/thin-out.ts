/** A place of a chart: how far along, and how much. */
export interface ChartPoint {
  readonly atMm: number;
  readonly valueMm: number;
}

/**
 * Fewer points that look the same: of every column of a chart the least and the most are kept, in their order, so that no
 * peak is lost however many stations there are.
 * @param points the nearest first. @param columns of the chart, a pixel or more each.
 */
export function thinnedOut<P extends ChartPoint>(
  points: readonly P[],
  { fromMm, toMm, columns }: { readonly fromMm: number; readonly toMm: number; readonly columns: number },
): readonly P[] {
  const least = new Int32Array(columns).fill(-1);
  const most = new Int32Array(columns).fill(-1);
  const perColumn = columns / (toMm - fromMm);
  points.forEach(({ atMm, valueMm }, i) => {
    const column = Math.floor((atMm - fromMm) * perColumn);
    if (column < 0 || column > columns || Number.isNaN(column)) return;
    const k = Math.min(columns - 1, column);
    if (least[k]! < 0 || valueMm < points[least[k]!]!.valueMm) least[k] = i;
    if (most[k]! < 0 || valueMm > points[most[k]!]!.valueMm) most[k] = i;
  });
  const kept: P[] = [];
  for (let k = 0; k < columns; k++) {
    if (least[k]! < 0) continue;
    const [first, second] = [Math.min(least[k]!, most[k]!), Math.max(least[k]!, most[k]!)];
    kept.push(points[first]!);
    if (second !== first) kept.push(points[second]!);
  }
  return kept;
}
