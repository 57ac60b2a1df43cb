import { SET_NUMBERS, type SetNo } from '../target/sheet-definition';

export interface DoneCut {
  readonly sheetNo: number;
  readonly setNo: SetNo;
  readonly loadNo: number;
  readonly purpose: 'before' | 'confirm' | 'settings_check' | 'which_way';
}

export interface NextCut {
  readonly sheetNo: number;
  readonly setNo: SetNo;
  readonly needsNewSheet: boolean;
}

/** The first set not cut yet on the latest sheet; a new sheet when all of its sets are spent. Whoever prints another means it. */
export function nextCut(done: readonly DoneCut[], sheets: number, sets: 1 | 2 = 2): NextCut {
  const open = SET_NUMBERS.slice(0, sets).find((setNo) => !done.some((d) => d.sheetNo === sheets && d.setNo === setNo));
  if (sheets > 0 && open !== undefined) return { sheetNo: sheets, setNo: open, needsNewSheet: false };
  return { sheetNo: sheets + 1, setNo: 1, needsNewSheet: true };
}

/** Loads are counted over the whole calibration: the same load keeps its number. */
export function loadNumber(done: readonly DoneCut[], isFreshLoad: boolean): number {
  const last = Math.max(0, ...done.map((d) => d.loadNo));
  return isFreshLoad || last === 0 ? last + 1 : last;
}
