import type { Point } from '../geometry/affine';

/**
 * A printed dark disc in which a round hole is cut and weeded: what is left of the ink is a wall all round, and opposite
 * walls tell the shift both ways in one look, by eye or by caliper.
 */
export interface DiscFigure {
  readonly kind: 'disc';
  readonly setNo: 1 | 2;
  readonly spotNo: number;
  readonly centre: Point;
  readonly radiusMm: number;
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
