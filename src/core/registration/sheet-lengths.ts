import { cornersOf, type Point } from '../geometry/affine';
import type { Measured } from './rule-fit';

/** Everything on a printed frame and round it that a rule can measure; of most sheets a few are enough. */
export const SHEET_LENGTHS = [
  { id: 'left-top', words: 'left margin, at the top' },
  { id: 'left-bottom', words: 'left margin, at the bottom' },
  { id: 'bottom-left', words: 'bottom margin, on the left' },
  { id: 'bottom-right', words: 'bottom margin, on the right' },
  { id: 'diagonal-up', words: 'diagonal, lower left to upper right' },
  { id: 'diagonal-down', words: 'diagonal, upper left to lower right' },
  { id: 'width-top', words: 'width, at the top' },
  { id: 'width-bottom', words: 'width, at the bottom' },
  { id: 'length-left', words: 'length, on the left' },
  { id: 'length-right', words: 'length, on the right' },
] as const;
export type SheetLengthId = (typeof SHEET_LENGTHS)[number]['id'];
export const MARGIN_IDS: readonly SheetLengthId[] = ['left-top', 'left-bottom', 'bottom-left', 'bottom-right'];
export const DISTANCE_IDS: readonly SheetLengthId[] = SHEET_LENGTHS.map((l) => l.id).filter(
  (id) => !MARGIN_IDS.includes(id),
);

interface Size {
  readonly widthMm: number;
  readonly lengthMm: number;
}

type Ends = readonly [Point, Point];

/** Ends of each length across the frame, about its middle. */
export function endsOf(id: SheetLengthId, frame: Size): Ends | null {
  const [lowerLeft, lowerRight, upperRight, upperLeft] = cornersOf(frame.widthMm, frame.lengthMm) as [
    Point,
    Point,
    Point,
    Point,
  ];
  const ends: Readonly<Partial<Record<SheetLengthId, Ends>>> = {
    'diagonal-up': [lowerLeft, upperRight],
    'diagonal-down': [upperLeft, lowerRight],
    'width-top': [upperLeft, upperRight],
    'width-bottom': [lowerLeft, lowerRight],
    'length-left': [lowerLeft, upperLeft],
    'length-right': [lowerRight, upperRight],
  };
  return ends[id] ?? null;
}

/** A margin as the place of a frame's corner about the page's middle. */
function marginOf(
  id: SheetLengthId,
  frame: Size,
  page: Size,
): { readonly axis: 'across' | 'along'; readonly at: Point; readonly fromMm: number } {
  const [lowerLeft, lowerRight, , upperLeft] = cornersOf(frame.widthMm, frame.lengthMm) as [Point, Point, Point, Point];
  const isAcross = id.startsWith('left');
  const corner = id === 'left-top' ? upperLeft : id === 'bottom-right' ? lowerRight : lowerLeft;
  return {
    axis: isAcross ? 'across' : 'along',
    at: corner,
    fromMm: isAcross ? -page.widthMm / 2 : -page.lengthMm / 2,
  };
}

/** What was measured on a frame printed in the middle of a page, as the fit takes it. Lengths not measured are left out. */
export function measuredOn(
  lengths: Readonly<Partial<Record<SheetLengthId, number>>>,
  { frame, page }: { readonly frame: Size; readonly page: Size },
  standardUncertaintyMm: number,
): readonly Measured[] {
  return SHEET_LENGTHS.flatMap(({ id, words }): readonly Measured[] => {
    const valueMm = lengths[id];
    if (valueMm === undefined) return [];
    const ends = endsOf(id, frame);
    if (ends) return [{ kind: 'distance', name: words, from: ends[0], to: ends[1], valueMm, standardUncertaintyMm }];
    const { axis, at, fromMm } = marginOf(id, frame, page);
    return [{ kind: 'place', name: words, axis, at, valueMm: fromMm + valueMm, standardUncertaintyMm }];
  });
}

/**
 * The same lengths before and after lamination or backing, as the fit takes them: each length against what it was, with
 * the doubt of both.
 */
export function changeOn(
  before: Readonly<Partial<Record<SheetLengthId, number>>>,
  after: Readonly<Partial<Record<SheetLengthId, number>>>,
  frame: Size,
  standardUncertaintyMm: number,
): readonly Measured[] {
  return SHEET_LENGTHS.flatMap(({ id, words }): readonly Measured[] => {
    const ends = endsOf(id, frame);
    const was = before[id];
    const is = after[id];
    if (!ends || was === undefined || is === undefined || was <= 0) return [];
    const [from, to] = ends;
    const nominal = Math.hypot(to.x - from.x, to.y - from.y);
    const grown = was / nominal;
    const at = (p: Point): Point => ({ x: grown * p.x, y: grown * p.y });
    const u = standardUncertaintyMm * Math.SQRT2;
    return [{ kind: 'distance', name: words, from: at(from), to: at(to), valueMm: is, standardUncertaintyMm: u }];
  });
}
