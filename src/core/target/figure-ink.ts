import type { Point } from '../geometry/affine';
import { dotAngles } from './code-book';
import { combMarks, combNumbers, combToSheet } from './comb';
import { CODE_DOT_SHARE, CODE_RING_SHARE, inkFromMm, type DiscFigure } from './disc';
import {
  circleAbout,
  countingMarks,
  LIFT_OFF_DISC_MM,
  LIFT_OFF_MIDDLE_MM,
  LIFT_OFF_RING_INNER_MM,
  LIFT_OFF_RING_OUTER_MM,
  ringAbout,
  type LiftOffFigure,
} from './lift-off';
import { divisionOf } from './reading-scale';
import type { CombFigure, RoughFigure, WedgeFigure } from './sheet-definition';
import { figureToSheet, inkWedges, meetingPointMm, type FigurePoint } from './wedge';

/** What is printed or cut, in the sheet frame, mm. */
export type InkShape =
  | { readonly kind: 'fill'; readonly points: readonly Point[] }
  | { readonly kind: 'line'; readonly points: readonly Point[]; readonly widthMm: number }
  | InkText;

/** Text stands on `at` (its baseline's middle), turned counter-clockwise. Height is that of a capital. */
export interface InkText {
  readonly kind: 'text';
  readonly at: Point;
  readonly text: string;
  readonly heightMm: number;
  readonly turnDeg: 0 | 90 | 270;
}

/** The thinnest line that prints. */
export const HAIR_MM = 0.1;
const TICK_MM = 0.15;

/** A stroke of ink; as wide as a tick unless told. */
export const line = (points: readonly Point[], widthMm = TICK_MM): InkShape => ({ kind: 'line', points, widthMm });

/** Words of so high capitals, their middle on a place. */
export function text(at: Point, words: string, heightMm: number, turnDeg: 0 | 90 | 270 = 0): InkText {
  return { kind: 'text', at, text: words, heightMm, turnDeg };
}

/** Ink of one wedge: two wedges, ticks on both sides (never displaced), numbers on the side of the upper wedge's thin end. */
export function wedgeInk(figure: WedgeFigure): readonly InkShape[] {
  const at = (p: FigurePoint): Point => figureToSheet(figure, p);
  const h = figure.halfLengthMm;
  const fills: InkShape[] = inkWedges(h, figure.ditherMm).map((wedge) => ({ kind: 'fill', points: wedge.map(at) }));
  const { wedgeTicks } = divisionOf(figure.scale);
  const ticks = wedgeTicks.flatMap(({ valueMm, number }) => {
    const u = meetingPointMm(h, valueMm);
    const end = number === null ? 2.9 : 3.4;
    return [1, -1].map((side) => line([at({ u, v: side * 2.4 }), at({ u, v: side * end })]));
  });
  const numbers = wedgeTicks.flatMap(({ valueMm, number }) => {
    if (number === null) return [];
    const place = at({ u: meetingPointMm(h, valueMm), v: figure.axis === 'along' ? -4.9 : 3.6 });
    return [text(place, number, 1.2, figure.axis === 'along' ? 0 : 270)];
  });
  return [...fills, ...ticks, ...numbers];
}

/** Ink of one comb: the printed row, its numbers, and the ruler for whole pitches. */
export function combInk(figure: Pick<CombFigure, 'axis' | 'centre' | 'scale'>): readonly InkShape[] {
  const turnDeg = figure.axis === 'across' ? 0 : 90;
  return [
    ...combMarks(figure.scale).map((mark) =>
      line([combToSheet(figure, mark.from), combToSheet(figure, mark.to)], mark.widthMm),
    ),
    ...combNumbers(figure.scale).map(({ at, text: words }) => text(combToSheet(figure, at), words, 1.2, turnDeg)),
  ];
}

/** Dots of a word in a ring round a disc of some radius. */
function codeDots({ x, y }: Point, radiusMm: number, codeNo: number): readonly InkShape[] {
  const ring = radiusMm * CODE_RING_SHARE;
  return dotAngles(codeNo).map((angle): InkShape => {
    const dot = { x: x + ring * Math.cos(angle), y: y + ring * Math.sin(angle) };
    return { kind: 'fill', points: circleAbout(dot, radiusMm * CODE_DOT_SHARE, 24) };
  });
}

/** Ink of one disc: a solid round or a ring, the ring of dots that says which it is, and outside it a pointer that shows which way is up. */
export function discInk(figure: Omit<DiscFigure, 'setNo' | 'spotNo'>): readonly InkShape[] {
  const { centre, radiusMm, codeNo } = figure;
  const { x, y } = centre;
  const tip = radiusMm + 2.95;
  const pointer = [
    { x, y: y + tip },
    { x: x - 0.8, y: y + tip - 0.9 },
    { x: x + 0.8, y: y + tip - 0.9 },
  ];
  const innerMm = inkFromMm(figure);
  const points = innerMm > 0 ? ringAbout(centre, innerMm, radiusMm) : circleAbout(centre, radiusMm);
  return [{ kind: 'fill', points }, ...codeDots(centre, radiusMm, codeNo), { kind: 'fill', points: pointer }];
}

/** One printed grid with its zero lines, for the rough position. */
export function roughInk(rough: RoughFigure): readonly InkShape[] {
  const { x, y } = rough.centre;
  const shapes: InkShape[] = [];
  const { gridLineMm, gridThickEvery } = divisionOf(rough.scale);
  const lines = Math.floor(rough.reachMm / gridLineMm + 1e-9);
  const reach = lines * gridLineMm;
  for (let i = -lines; i <= lines; i++) {
    const width = gridLineWidth(i, gridThickEvery);
    const at = i * gridLineMm;
    shapes.push(
      line(
        [
          { x: x + at, y: y - reach },
          { x: x + at, y: y + reach },
        ],
        width,
      ),
    );
    shapes.push(
      line(
        [
          { x: x - reach, y: y + at },
          { x: x + reach, y: y + at },
        ],
        width,
      ),
    );
  }
  return shapes;
}

function gridLineWidth(i: number, thickEvery: number): number {
  if (i === 0) return 0.35;
  return i % thickEvery === 0 ? 0.2 : HAIR_MM;
}

const NUMBER_HEIGHT_MM = 2.4;

/** A lift-off disc's number in its light middle, underlined so that up is told. */
function middleNumber({ x, y }: Point, spotNo: number): readonly InkShape[] {
  const base = y - 0.85;
  return [
    text({ x, y: base }, String(spotNo), NUMBER_HEIGHT_MM),
    line(
      [
        { x: x - 1.1, y: base - 0.7 },
        { x: x + 1.1, y: base - 0.7 },
      ],
      0.3,
    ),
  ];
}

/** The dark disc of a lift-off figure and what says which it is: its number and a ring of dots, or on older sheets counting dots. */
function liftOffFace(figure: LiftOffFigure): readonly InkShape[] {
  const { centre, spotNo, codeNo } = figure;
  if (codeNo === undefined)
    return [circleAbout(centre, LIFT_OFF_DISC_MM), ...countingMarks(figure)].map((points): InkShape => ({
      kind: 'fill',
      points,
    }));
  return [
    { kind: 'fill', points: ringAbout(centre, LIFT_OFF_MIDDLE_MM, LIFT_OFF_DISC_MM) },
    ...middleNumber(centre, spotNo),
    ...codeDots(centre, LIFT_OFF_DISC_MM, codeNo),
  ];
}

/** Ink of one lift-off disc: its face, and the closed ring that a program traces. */
export function liftOffInk(figure: LiftOffFigure): readonly InkShape[] {
  const middle = (LIFT_OFF_RING_INNER_MM + LIFT_OFF_RING_OUTER_MM) / 2;
  return [
    ...liftOffFace(figure),
    line(circleAbout(figure.centre, middle), LIFT_OFF_RING_OUTER_MM - LIFT_OFF_RING_INNER_MM),
  ];
}
