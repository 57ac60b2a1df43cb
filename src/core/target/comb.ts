import type { Point } from '../geometry/affine';
import { divisionOf, type ReadingScale } from './reading-scale';
import { ditherOf, type Axis } from './wedge';

/**
 * Comb: a vernier. Printed ticks at a pitch of whole printer dots (25 at 300 dpi), and ticks cut or drawn at a pitch one
 * step shorter (0.1 mm, or 4 thou); where the two run into one line, the shift is read. For a pen, and for a knife whose slits
 * are rubbed in.
 */
export const COMB_PITCH_MM = 127 / 60;
/** What a reading is entered to: a tick, or the half between two that look equally good. In thou 1.6 % more. */
export const COMB_STEP_MM = divisionOf('mm').combTickMm / 2;
/** Cut ticks to either side of the middle one; the outermost are never read, they only show that the next is worse. */
export const COMB_CUT_TICKS = 11;
export const COMB_PRINTED_TICKS = 12;
const READ_TICKS = COMB_CUT_TICKS - 1;
/** Whole printed pitches that a shift may amount to, either way. */
const WHOLE_PITCHES: readonly number[] = [-1, 0, 1];
/** Cut ticks start here, all the same way, and are read past the first 1.5 mm, where a swivelling blade still turns. */
const CUT_FROM_W = -5.5;
const CUT_TO_W = 1.2;
/** The middle tick starts further out, on a ruler that tells whole pitches apart. */
const POINTER_FROM_W = -8.4;
/** Where cut and printed ticks lie side by side and are compared. */
export const COMB_READ_W = 0.6;
const COMB_RULER_LINES = 3;
export const COMB_BOX_LENGTH_MM = 52;
export const COMB_BOX_WIDTH_MM = 16;
/** Box of a comb across its row: from below the ruler to above the numbers. */
export const COMB_BELOW_MM = 8.9;
/** Plotter units of 0.025 mm: each cut tick is put on one, and it is that place which is used. */
const PLOTTER_UNIT_MM = 0.025;

/** A place in a comb's own frame, right-handed seen from the ink: s along the row, which is the direction measured; w across it. */
export interface CombPoint {
  readonly s: number;
  readonly w: number;
}

export interface CombPlace {
  readonly spotNo: number;
  readonly axis: Axis;
  /** s = 0, w = 0: the middle of the printed row, sheet frame. */
  readonly centre: Point;
  /** Ticks are cut one after the other towards +s or towards -s: what is lost at a change of direction shows as a difference. */
  readonly approach: 1 | -1;
  /** Scale printed beside it; mm where absent. */
  readonly scale?: ReadingScale;
}

/** Across: s = +x, w = +y. Along: s = +y, w = -x. */
export function combToSheet({ axis, centre }: Pick<CombPlace, 'axis' | 'centre'>, { s, w }: CombPoint): Point {
  return axis === 'across' ? { x: centre.x + s, y: centre.y + w } : { x: centre.x - w, y: centre.y + s };
}

export const printedTickMm = (j: number): number => j * COMB_PITCH_MM;

/**
 * Where cut tick i is commanded, s in mm: a pitch one step short of the printed one, displaced by the spot's part of the
 * step so that rounding is independent from spot to spot, put on a whole plotter unit.
 */
export function cutTickMm(spotNo: number, i: number, scale?: ReadingScale): number {
  const { combTickMm } = divisionOf(scale);
  const wanted = i * (COMB_PITCH_MM - combTickMm) + ditherOf(spotNo, combTickMm / 2);
  return Math.round(wanted / PLOTTER_UNIT_MM) * PLOTTER_UNIT_MM;
}

/** One answer a comb can give: the shift, and where along the row it was commanded. */
export interface CombAnswer {
  readonly readingMm: number;
  readonly commandedMm: number;
}

const range = (from: number, to: number): readonly number[] =>
  Array.from({ length: to - from + 1 }, (_, k) => from + k);

function answersOf(spotNo: number, scale: ReadingScale): readonly CombAnswer[] {
  const whole = WHOLE_PITCHES.flatMap((k) =>
    range(-READ_TICKS, READ_TICKS).map((i): CombAnswer => {
      const commandedMm = cutTickMm(spotNo, i, scale);
      return { readingMm: printedTickMm(i + k) - commandedMm, commandedMm };
    }),
  );
  return whole.flatMap((answer, n) => {
    const next = whole[n + 1];
    if (!next) return [answer];
    // From the last tick of one round to the first of the next, the half lies beyond the last.
    const isRoundEnd = next.commandedMm < answer.commandedMm;
    const commandedMm = isRoundEnd
      ? answer.commandedMm + COMB_PITCH_MM / 2
      : (answer.commandedMm + next.commandedMm) / 2;
    return [answer, { readingMm: (answer.readingMm + next.readingMm) / 2, commandedMm }];
  });
}

/** Spots repeat their part of the step after nine. */
const PARTS = 9;
const answersOfAll = (scale: ReadingScale): readonly (readonly CombAnswer[])[] =>
  range(1, PARTS).map((spotNo) => answersOf(spotNo, scale));
const ANSWERS: Readonly<Record<ReadingScale, readonly (readonly CombAnswer[])[]>> = {
  mm: answersOfAll('mm'),
  thou: answersOfAll('thou'),
};

/**
 * Every answer of a comb, least first: cut tick i in line with printed tick j is a shift of j P - c_i; between two
 * neighbours, which look equally good, half of each.
 */
export const combAnswers = ({ spotNo, scale = 'mm' }: Pick<CombPlace, 'spotNo' | 'scale'>): readonly CombAnswer[] =>
  ANSWERS[scale][(spotNo - 1) % PARTS]!;

/** Farthest shift that a comb tells, either way. */
export const COMB_REACH_MM = 3.1;

/** The answer nearest to a shift. */
export function nearestAnswer(answers: readonly CombAnswer[], shiftMm: number): CombAnswer {
  const off = (a: CombAnswer): number => Math.abs(a.readingMm - shiftMm);
  return answers.reduce((best, a) => (off(a) < off(best) ? a : best));
}

/** The cut ticks as two-point strokes in the order and direction of cutting. */
export function combCuts(place: CombPlace): readonly (readonly Point[])[] {
  const order = range(-COMB_CUT_TICKS, COMB_CUT_TICKS).map((i) => i * place.approach);
  return order.map((i) => {
    const s = cutTickMm(place.spotNo, i, place.scale);
    const from = i === 0 ? POINTER_FROM_W : CUT_FROM_W;
    return [combToSheet(place, { s, w: from }), combToSheet(place, { s, w: CUT_TO_W })];
  });
}

export interface CombMark {
  readonly from: CombPoint;
  readonly to: CombPoint;
  readonly widthMm: number;
}

/** Printed ticks, longer at every fifth, and the ruler under the middle one. */
export function combMarks(scale?: ReadingScale): readonly CombMark[] {
  const { rulerLineMm } = divisionOf(scale);
  return [
    ...range(-COMB_PRINTED_TICKS, COMB_PRINTED_TICKS).map((j) => {
      const s = printedTickMm(j);
      return { from: { s, w: 0 }, to: { s, w: j % 5 === 0 ? 4.6 : 3.6 }, widthMm: 0.25 };
    }),
    ...range(-COMB_RULER_LINES, COMB_RULER_LINES).map((i) => ({
      from: { s: i * rulerLineMm, w: -8.6 },
      to: { s: i * rulerLineMm, w: i === 0 ? -6.4 : -7.2 },
      widthMm: 0.15,
    })),
  ];
}

/** Numbers at the printed ticks, and at the ruler's ends. */
export function combNumbers(scale?: ReadingScale): readonly { readonly at: CombPoint; readonly text: string }[] {
  const { combNumbers: words, rulerEnd } = divisionOf(scale);
  return [
    ...words.map((text, i) => ({ at: { s: printedTickMm(5 * (i - 2)), w: 5.2 }, text })),
    { at: { s: -5.2, w: -8.4 }, text: `\u2212${rulerEnd}` },
    { at: { s: 5.2, w: -8.4 }, text: `+${rulerEnd}` },
  ];
}
