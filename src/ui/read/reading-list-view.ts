import type { Axis } from '@/core/target/wedge';
import type { ReadingList } from '@/formats/csv/reading-list';

/** A parsed list held against the sheet: figures that it does not have, and values beyond what they show, are told. */
export function judgedList(
  list: ReadingList,
  figures: readonly { readonly spotNo: number; readonly axis: Axis }[],
  reachMm: number,
): ReadingList {
  const problems = list.readings.flatMap(({ line, spotNo, axis, readingMm }) => {
    if (!figures.some((f) => f.spotNo === spotNo && f.axis === axis))
      return [{ line, field: 'spot', words: `There is no figure ${spotNo} ${axis} in this cut.` }];
    if (Math.abs(readingMm) > reachMm) {
      const words = `${readingMm.toFixed(2)} mm is beyond the figure: it shows ${reachMm} mm to either side.`;
      return [{ line, field: axis, words }];
    }
    return [];
  });
  return { readings: list.readings, problems: [...list.problems, ...problems] };
}
