import { rowsLengthMm, type CopyOrder } from './section-rows';

/** What work on a section takes, and what it is worth; money in the shop's own. */
export interface SectionPrices {
  /** Loading, marks and whatever else comes before a section's cut. */
  readonly setUpMinutes: number;
  readonly printMetresPerHour: number;
  readonly cutMetresPerHour: number;
  /** Weeding, lamination, packing of one section. */
  readonly finishMinutes: number;
  /** Left blank at each end of a section. */
  readonly endWasteMm: number;
  readonly hourCost: number;
  readonly metreCost: number;
  readonly pieceCost: number;
}

export interface WorkSpan {
  readonly fromHours: number;
  readonly toHours: number;
}

/** When a section is printed, cut (with its set-up) and finished. */
export interface SectionTimes {
  readonly rows: number;
  readonly print: WorkSpan;
  readonly cut: WorkSpan;
  readonly finish: WorkSpan;
}

const MINUTES_PER_HOUR = 60;
const MM_PER_METRE = 1000;

type Rows = Pick<CopyOrder, 'itemLengthMm' | 'gapMm'>;

/** Length of roll that a section takes, with what is left blank at its ends, m. */
const sectionMetres = (order: Rows, prices: SectionPrices, rows: number): number =>
  (rowsLengthMm(order, rows) + 2 * prices.endWasteMm) / MM_PER_METRE;

/** How long a section of so many rows is printed, cut (with its set-up) and finished, hours. */
export interface SectionHours {
  readonly print: number;
  readonly cut: number;
  readonly finish: number;
}

export function sectionHours(order: Rows, prices: SectionPrices, rows: number): SectionHours {
  const metres = sectionMetres(order, prices, rows);
  return {
    print: metres / prices.printMetresPerHour,
    cut: prices.setUpMinutes / MINUTES_PER_HOUR + metres / prices.cutMetresPerHour,
    finish: prices.finishMinutes / MINUTES_PER_HOUR,
  };
}

/**
 * Printing, cutting and finishing side by side: a section is cut once it is printed and the one before it is cut, and
 * finished likewise.
 * @param sections rows of each section, in the order of printing.
 */
export function sectionTimes(order: Rows, prices: SectionPrices, sections: readonly number[]): readonly SectionTimes[] {
  let [printed, cutDone, finished] = [0, 0, 0];
  return sections.map((rows) => {
    const hours = sectionHours(order, prices, rows);
    const print = { fromHours: printed, toHours: printed + hours.print };
    const cutFrom = Math.max(print.toHours, cutDone);
    const cut = { fromHours: cutFrom, toHours: cutFrom + hours.cut };
    const finishFrom = Math.max(cut.toHours, finished);
    const finish = { fromHours: finishFrom, toHours: finishFrom + hours.finish };
    [printed, cutDone, finished] = [print.toHours, cut.toHours, finish.toHours];
    return { rows, print, cut, finish };
  });
}

/**
 * Pieces that are to be expected out of sections of 0, 1, 2 ... rows. Where a section is registered at its beginning, every
 * row after the place where it leaves the tolerance is lost; between marks it may leave it anywhere and come back, so that
 * all of its rows are counted as lost: rather too many than too few.
 * @param outShare how likely a section of so many mm leaves the tolerance. @returns one number for every count of rows.
 */
export function spoiltPieces(
  order: Rows & { readonly copiesAcross: number; readonly isBetweenMarks: boolean },
  mostRows: number,
  outShare: (lengthMm: number) => number,
): readonly number[] {
  const spoilt = [0];
  for (let rows = 1; rows <= mostRows; rows++) {
    const lost = order.copiesAcross * outShare(rowsLengthMm(order, rows));
    spoilt.push(order.isBetweenMarks ? rows * lost : spoilt[rows - 1]! + lost);
  }
  return spoilt;
}

export interface SectionCost {
  readonly setUp: number;
  readonly waste: number;
  readonly spoilt: number;
  readonly total: number;
}

/** What a section of so many rows costs beyond what the work itself takes: its set-up, the ends left blank, pieces lost. */
export function sectionCost(prices: SectionPrices, spoilt: number): SectionCost {
  const setUp = ((prices.setUpMinutes + prices.finishMinutes) / MINUTES_PER_HOUR) * prices.hourCost;
  const waste = ((2 * prices.endWasteMm) / MM_PER_METRE) * prices.metreCost;
  const lost = spoilt * prices.pieceCost;
  return { setUp, waste, spoilt: lost, total: setUp + waste + lost };
}

/** A time in words, to the minute. */
export const hoursWords = (hours: number): string => {
  const minutes = Math.round(MINUTES_PER_HOUR * hours);
  if (minutes < MINUTES_PER_HOUR) return `${minutes} min`;
  return `${Math.floor(minutes / MINUTES_PER_HOUR)} h ${String(minutes % MINUTES_PER_HOUR).padStart(2, '0')} min`;
};
