import { fail, ok, type Result } from '../result';

/** Copies of one piece on a roll. */
export interface CopyOrder {
  readonly copies: number;
  /** Across and along the roll, mm. */
  readonly itemWidthMm: number;
  readonly itemLengthMm: number;
  readonly gapMm: number;
  /** What the printer can print of the roll's width, not the roll's own. */
  readonly printableWidthMm: number;
}

export type CopyProblem =
  | { readonly kind: 'too-wide'; readonly itemWidthMm: number; readonly printableWidthMm: number }
  | { readonly kind: 'longer-than-section'; readonly neededMm: number };

/** A run in sections of whole rows. */
export interface SectionRows {
  readonly copiesAcross: number;
  readonly rows: number;
  readonly rowsPerSection: number;
  readonly copiesPerSection: number;
  readonly sections: number;
  /** Copies in the last section, which may be fewer. */
  readonly lastCopies: number;
  /** What the rows of a section need at least, mm. */
  readonly neededMm: number;
  /** From here on the program would put one more row into it, mm. */
  readonly oneMoreMm: number;
  /** What is typed, mm. */
  readonly typedMm: number;
}

/** Lengths that come out of arithmetic are whole where they are within this, mm. */
const WHOLE_MM = 1e-6;
/** Lengths are typed in steps of so much where the rows leave room for it, mm. */
const TYPED_STEPS_MM = [5, 1, 0.1] as const;

const upTo = (mm: number, stepMm: number): number => Math.ceil((mm - WHOLE_MM) / stepMm) * stepMm;

/** Copies side by side: the last one needs no gap after it. */
export const copiesAcross = ({ itemWidthMm, gapMm, printableWidthMm }: CopyOrder): number =>
  Math.max(0, Math.floor((printableWidthMm + gapMm) / (itemWidthMm + gapMm) + WHOLE_MM));

/** What so many rows need, mm. */
export const rowsLengthMm = (
  { itemLengthMm, gapMm }: Pick<CopyOrder, 'itemLengthMm' | 'gapMm'>,
  rows: number,
): number => rows * itemLengthMm + (rows - 1) * gapMm;

/** Whole rows that fit a length, mm. */
export const rowsWithin = (
  { itemLengthMm, gapMm }: Pick<CopyOrder, 'itemLengthMm' | 'gapMm'>,
  lengthMm: number,
): number => Math.max(0, Math.floor((lengthMm + gapMm) / (itemLengthMm + gapMm) + WHOLE_MM));

/**
 * The length to type for so many rows: every row taken for a whole mm, the sum rounded up, and still less than one more row
 * needs; in finer steps where that leaves no room. Common practice, no published source.
 */
function typedLength(order: CopyOrder, rows: number): number {
  const generous = rowsLengthMm({ ...order, itemLengthMm: upTo(order.itemLengthMm, 1) }, rows);
  const oneMore = rowsLengthMm(order, rows + 1);
  for (const stepMm of TYPED_STEPS_MM)
    for (const length of [upTo(generous, stepMm), upTo(rowsLengthMm(order, rows), stepMm)])
      if (length < oneMore - WHOLE_MM) return Number(length.toFixed(6));
  return rowsLengthMm(order, rows);
}

/** A run cut into sections of so many rows. */
export function sectionsOfRows(order: CopyOrder, rowsPerSection: number): Result<SectionRows, CopyProblem> {
  const across = copiesAcross(order);
  if (across < 1)
    return fail({ kind: 'too-wide', itemWidthMm: order.itemWidthMm, printableWidthMm: order.printableWidthMm });
  const rows = Math.ceil(order.copies / across);
  const own = Math.min(rowsPerSection, rows);
  const copiesPerSection = across * own;
  const sections = Math.ceil(order.copies / copiesPerSection);
  return ok({
    ...{ copiesAcross: across, rows, rowsPerSection: own, copiesPerSection, sections },
    lastCopies: order.copies - (sections - 1) * copiesPerSection,
    neededMm: rowsLengthMm(order, own),
    oneMoreMm: rowsLengthMm(order, own + 1),
    typedMm: typedLength(order, own),
  });
}

/** A run cut into the longest sections of whole rows that are no longer than the drift allows. */
export function sectionsWithin(order: CopyOrder, longestMm: number): Result<SectionRows, CopyProblem> {
  const rows = rowsWithin(order, longestMm);
  if (rows < 1) return fail({ kind: 'longer-than-section', neededMm: order.itemLengthMm });
  return sectionsOfRows(order, rows);
}

/** What is wrong with a length that somebody typed for so many rows. */
export type TypedLength = 'breaks-a-row' | 'takes-one-more' | 'right';

export function judgeTyped({ neededMm, oneMoreMm }: SectionRows, typedMm: number): TypedLength {
  // Twice: what was rounded down to a whole by as much is right.
  if (typedMm < neededMm - 2 * WHOLE_MM) return 'breaks-a-row';
  return typedMm > oneMoreMm - WHOLE_MM ? 'takes-one-more' : 'right';
}

/** Pairs of marks between those at both ends of a run that is not split, so that none lie further apart than is held. */
export const marksBetween = (runMm: number, apartMm: number): number =>
  Math.max(0, Math.ceil(runMm / apartMm - WHOLE_MM) - 1);
