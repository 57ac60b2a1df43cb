import { utcFormat, type ScaleTime } from 'd3';

const YEAR_MS = 3e10;
const TWO_DAYS_MS = 2 * 86_400_000;

/** What a tick of a time axis says: the coarser, the longer the axis is. */
function wordsFor(lengthMs: number): (at: Date) => string {
  if (lengthMs > YEAR_MS) return utcFormat('%b %Y');
  return utcFormat(lengthMs > TWO_DAYS_MS ? '%d %b' : '%H:%M');
}

/** About so many ticks of a time axis, each with its words; of ticks that would say the same only the first. */
export function timeTicks(
  scale: ScaleTime<number, number>,
  count: number,
): readonly { readonly at: Date; readonly words: string }[] {
  const [from, to] = scale.domain() as [Date, Date];
  const words = wordsFor(to.getTime() - from.getTime());
  const ticks = scale.ticks(count).map((at) => ({ at, words: words(at) }));
  return ticks.filter((tick, i) => tick.words !== ticks[i - 1]?.words);
}
