import type { Point } from '../geometry/affine';

/** What shows the cut of a coded disc: the hole that was weeded out, or a line that a pen drew or that was rubbed into a slit. */
export const DISC_CUTS = ['hole', 'line'] as const;
export type DiscCut = (typeof DISC_CUTS)[number];

/**
 * A printed round figure in which a circle is cut. A dark disc whose middle is weeded: what is left of the ink is a wall all
 * round, and opposite walls tell the shift both ways in one look, by eye, by caliper or in a scan. Or a dark ring in which a
 * circle is drawn, or slit and rubbed in, for a scan alone.
 */
export interface DiscFigure {
  readonly kind: 'disc';
  readonly setNo: 1 | 2;
  readonly spotNo: number;
  readonly centre: Point;
  readonly radiusMm: number;
  readonly cut: DiscCut;
  readonly holeRadiusMm: number;
  /** Word of the code book that its ring of dots shows. */
  readonly codeNo: number;
}

/** The small disc beside a spot's wedges, and how much room it keeps free round its centre. */
export const SMALL_DISC_MM = 4;
export const SMALL_HOLE_MM = 2;
export const SMALL_DISC_ROOM_MM = 7;
/** The ring of code dots and a dot's size, as shares of the disc's radius: 7.9 and 0.75 for a disc of 6 mm. */
export const CODE_RING_SHARE = 7.9 / 6;
export const CODE_DOT_SHARE = 0.75 / 6;
/** Where the ink of a ring begins, as a share of its radius: 5 for a ring of 6 mm. */
const RING_INNER_SHARE = 5 / 6;

/** How far from its middle a disc's ink begins. */
export const inkFromMm = ({ cut, radiusMm }: Pick<DiscFigure, 'cut' | 'radiusMm'>): number =>
  cut === 'line' ? radiusMm * RING_INNER_SHARE : 0;

/** How far a disc's ink reaches from its middle: to the outside of its code dots. */
export const discExtentMm = ({ radiusMm }: Pick<DiscFigure, 'radiusMm'>): number =>
  radiusMm * (CODE_RING_SHARE + CODE_DOT_SHARE);

/** A wall thinner than this is not told from none. */
const LEAST_WALL_MM = 0.4;

/** Wall of ink that a hole in its place leaves, all round. */
export const wallOf = ({ radiusMm, holeRadiusMm }: Pick<DiscFigure, 'radiusMm' | 'holeRadiusMm'>): number =>
  radiusMm - holeRadiusMm;

/** Farthest shift whose walls can still be compared. */
export const discReachMm = (figure: Pick<DiscFigure, 'radiusMm' | 'holeRadiusMm'>): number =>
  wallOf(figure) - LEAST_WALL_MM;

/** Reach of the small disc. */
export const SMALL_DISC_REACH_MM = discReachMm({ radiusMm: SMALL_DISC_MM, holeRadiusMm: SMALL_HOLE_MM });
