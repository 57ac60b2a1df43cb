/** The fixed words by which a shop's machines are described: one list for forms, actions and tables. */

export const ROUTES = ['A', 'B', 'C', 'D', 'E'] as const;
export type Route = (typeof ROUTES)[number];

/** Families of work, from a sheet cutter with its program to long runs; F1c has its offsets on the cutter's own display. */
export const FAMILIES = ['F1', 'F1c', 'F2', 'F3', 'F4', 'F5', 'F6', 'F7', 'F8', 'F9'] as const;
export type Family = (typeof FAMILIES)[number];

/** What a program can open. */
export const OPENS = ['svg', 'pdf', 'dxf', 'png'] as const;
export type Opens = (typeof OPENS)[number];

export const MARKS_PLACED_BY = ['program', 'cutter_panel', 'hand', 'none', 'mat'] as const;
export type MarksPlacedBy = (typeof MARKS_PLACED_BY)[number];

export const KNOWS_CUT_BY = ['colour', 'layer', 'spot_ink', 'tracing', 'picture_edge'] as const;
export type KnowsCutBy = (typeof KNOWS_CUT_BY)[number];

export const MARK_KINDS = ['corner_figures', 'four_corners', 'with_intermediates', 'frame', 'by_hand', 'none'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** What a machine makes of its marks. */
export const MARK_USES = [
  'unknown',
  'shift',
  'shift_rotation',
  'similarity',
  'two_scales',
  'affine',
  'piecewise',
] as const;
export type MarkUse = (typeof MARK_USES)[number];

export const MARK_USE_WORDS: Readonly<Record<MarkUse, string>> = {
  unknown: 'not known yet',
  shift: 'the shift alone',
  shift_rotation: 'shift and rotation',
  similarity: 'shift, rotation and one scale',
  two_scales: 'shift, rotation and two scales',
  affine: 'everything but bending',
  piecewise: 'everything, section by section',
};
