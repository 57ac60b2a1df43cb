import type { Point } from '../geometry/affine';
import type { ReadingScale } from './reading-scale';
import type { WedgeFigure } from './sheet-definition';
import { ditherOf, SHORT_HALF_LENGTH_MM, type Axis } from './wedge';

/** Where a station's figures stand across the roll. */
export const STRIP_SIDES = ['left', 'centre', 'right'] as const;
export type StripSide = (typeof STRIP_SIDES)[number];

/** Whether stations differ: numbered on a strip, or one small piece that the program itself copies. */
export const STRIP_FORMS = ['strip', 'piece'] as const;
export type StripForm = (typeof STRIP_FORMS)[number];

/**
 * Test figures along a roll. Strip frame: origin at the middle of the leading edge, x to the right, y away from the leading
 * edge, printed face towards you, mm. Stations are counted from the leading edge, from 1.
 */
export interface RollStrip {
  readonly widthMm: number;
  readonly spacingMm: number;
  readonly stations: number;
  readonly sides: readonly StripSide[];
  readonly form: StripForm;
  /** A coded disc at every place as well, which a scan measures. */
  readonly hasDiscs: boolean;
  /** Unit of the numbers printed at its wedges; mm where absent. */
  readonly scale?: ReadingScale;
}

export interface StripFigure extends WedgeFigure {
  readonly stationNo: number;
  readonly side: StripSide;
  /** Middle of the figure: way from the leading edge, and sideways from the middle. */
  readonly middle: Point;
}

/** Name of one figure's place on a roll. */
export const slotName = ({
  stationNo,
  side,
  axis,
}: {
  readonly stationNo: number;
  readonly side: StripSide;
  readonly axis: Axis;
}): string => `${stationNo} ${side} ${axis}`;

/** A station needs so much along the roll, and so much across for each of its sides. */
export const LEAST_SPACING_MM = 70;
export const SIDE_WIDTH_MM = 40;
/** From a station's edge to the outermost ink. */
const EDGE_MM = 2;
/** Middles of a station's two figures from its own middle, along the roll. */
const ALONG_FROM_MIDDLE_MM = -22;
const ACROSS_FROM_MIDDLE_MM = 4;

export const leastWidthMm = (sides: readonly StripSide[]): number => sides.length * SIDE_WIDTH_MM;

/** Way of a station's middle from the leading edge, mm. */
export const stationAtMm = (strip: Pick<RollStrip, 'spacingMm'>, stationNo: number): number =>
  (stationNo - 0.5) * strip.spacingMm;

const SIDE_SIGN: Readonly<Record<StripSide, number>> = { left: -1, centre: 0, right: 1 };

/** How far from the middle a side's figures stand, right positive. */
export const sideAtMm = ({ widthMm }: Pick<RollStrip, 'widthMm'>, side: StripSide): number =>
  SIDE_SIGN[side] * (widthMm / 2 - SIDE_WIDTH_MM / 2 - EDGE_MM / 2);

function figureOf(strip: RollStrip, stationNo: number, side: StripSide, axis: Axis): StripFigure {
  const h = SHORT_HALF_LENGTH_MM;
  const x = sideAtMm(strip, side);
  const y = stationAtMm(strip, stationNo) + (axis === 'along' ? ALONG_FROM_MIDDLE_MM : ACROSS_FROM_MIDDLE_MM);
  return {
    ...{ kind: 'wedge', setNo: 1, spotNo: stationNo, stationNo, side, axis, halfLengthMm: h },
    ...(strip.scale && { scale: strip.scale }),
    middle: { x, y },
    origin: axis === 'along' ? { x: x - h, y } : { x, y: y + h },
    // A piece that is copied is the same every time.
    ditherMm: strip.form === 'piece' ? 0 : ditherOf(((stationNo - 1) % 9) + 1),
  };
}

/** A station's figures, side by side from the left: one that reads along, one across. */
export const stationFigures = (strip: RollStrip, stationNo: number): readonly StripFigure[] =>
  strip.sides.flatMap((side) => (['along', 'across'] as const).map((axis) => figureOf(strip, stationNo, side, axis)));

/** All figures of a strip, the nearest to the leading edge first. */
export const stripFigures = (strip: RollStrip): readonly StripFigure[] =>
  Array.from({ length: strip.stations }, (_, i) => stationFigures(strip, i + 1))
    .flat()
    .sort((a, b) => a.middle.y - b.middle.y);

export const stripFigureOf = (
  strip: RollStrip,
  { stationNo, side, axis }: Pick<StripFigure, 'stationNo' | 'side' | 'axis'>,
): StripFigure | undefined =>
  strip.sides.includes(side) && stationNo >= 1 && stationNo <= strip.stations
    ? figureOf(strip, stationNo, side, axis)
    : undefined;
