import type { Point } from '../geometry/affine';
import { CODE_WORDS } from './code-book';
import { SMALL_DISC_MM, SMALL_DISC_ROOM_MM, SMALL_HOLE_MM, type DiscFigure } from './disc';

/** The two small discs that a job's template keeps beside the work: one near the end that goes first, one far from it. */
export const TEMPLATE_DISC_NOS = [1, 2] as const;
export type TemplateDiscNo = (typeof TEMPLATE_DISC_NOS)[number];

/** Room that a disc and its pointer keep free, as wide as long. */
export const TEMPLATE_DISC_ROOM_MM = 2 * SMALL_DISC_ROOM_MM;

/** Words of their own: the last two of the book, which no check sheet needs. */
export const templateCodeNo = (discNo: TemplateDiscNo): number => CODE_WORDS.length - 3 + discNo;

/** Which disc a word says, null where it is none of the two. */
export const templateDiscOf = (codeNo: number): TemplateDiscNo | null =>
  TEMPLATE_DISC_NOS.find((discNo) => templateCodeNo(discNo) === codeNo) ?? null;

export const templateDisc = (discNo: TemplateDiscNo, centre: Point): Omit<DiscFigure, 'setNo' | 'spotNo'> => ({
  ...{ kind: 'disc', centre, radiusMm: SMALL_DISC_MM, cut: 'hole', holeRadiusMm: SMALL_HOLE_MM },
  codeNo: templateCodeNo(discNo),
});

/** Colour of their cut lines in drawings: how a job knows them. */
export const TEMPLATE_CUT_COLOUR = '#c4162a';
