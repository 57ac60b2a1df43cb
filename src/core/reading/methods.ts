/** What a person looks at: a wedge, a comb, the walls of a disc, the rims of a lifted one or of its back, or a rough grid. */
export const METHODS_BY_HAND = ['wedge', 'comb', 'wall', 'rim', 'rim_back', 'rough'] as const;

/** All ways to a reading: by hand, or a disc measured in a scan, or its back. */
export const READING_METHODS = [...METHODS_BY_HAND, 'scan', 'scan_back'] as const;
export type ReadingMethod = (typeof READING_METHODS)[number];

/** Methods whose readings make the error map. */
export const FINE_METHODS = ['wedge', 'comb', 'wall', 'rim', 'scan'] as const;
export type FineMethod = (typeof FINE_METHODS)[number];

export const isFine = (method: ReadingMethod): method is FineMethod => FINE_METHODS.some((fine) => fine === method);

/** What may be answered to a figure. */
export const ANSWERS = ['read', 'skipped', 'unreadable'] as const;
export type ReadingAnswerState = (typeof ANSWERS)[number];

/** Answers, and the one that takes an answer back: the figure is open again. */
export const READING_STATES = [...ANSWERS, 'withdrawn'] as const;

/** Whether a row still answers its figure. */
export const isStanding = <R extends { readonly state: (typeof READING_STATES)[number] }>(
  row: R,
): row is R & { readonly state: ReadingAnswerState } => row.state !== 'withdrawn';
