import { layGang, type Gang, type GangProblem, type WantedItem } from './gang';
import { pageArea, type LayoutPage } from './page-area';

/** Equal pieces of a roll: how long each is between its printed ends, and what stands on it. */
export interface RollPieces {
  readonly lengthMm: number;
  readonly gang: Gang;
}

/**
 * The fewest pieces of a roll that make the quantities, then the shortest such pieces, in whole mm.
 * @param page as wide as the roll, its length the most that one piece may have.
 */
export function layRoll(page: LayoutPage, items: readonly WantedItem[], gapMm: number): RollPieces | GangProblem {
  const at = (lengthMm: number, wanted: readonly WantedItem[]) =>
    layGang(pageArea({ ...page, lengthMm }), wanted, gapMm);
  const longest = at(page.lengthMm, items);
  if ('kind' in longest) return longest;
  const each = items.map((item) => ({ ...item, quantity: Math.ceil(item.quantity / Math.max(1, longest.sheets)) }));
  const holds = (lengthMm: number): Gang | null => {
    const gang = at(lengthMm, each);
    return !('kind' in gang) && gang.sheets === 1 ? gang : null;
  };
  let low = 1;
  let best: RollPieces = { lengthMm: page.lengthMm, gang: longest };
  let high = Math.floor(page.lengthMm);
  while (low <= high) {
    const middle = Math.floor((low + high) / 2);
    const gang = holds(middle);
    if (gang) {
      best = { lengthMm: middle, gang: { ...gang, sheets: longest.sheets } };
      high = middle - 1;
    } else low = middle + 1;
  }
  return best;
}
