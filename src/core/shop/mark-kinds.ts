import type { MarkScheme } from './marks';
import type { MarkKind } from './words';

/** Usual figures of each generic kind of marks. Common practice, no published source. */
export interface MarkKindWords extends Omit<MarkScheme, 'kind'> {
  readonly title: string;
  readonly words: string;
  readonly leadingMark: string;
  readonly readingOrder: string;
}

export const MARK_KIND_WORDS: Readonly<Record<MarkKind, MarkKindWords>> = {
  corner_figures: {
    title: 'Figures in three corners',
    words: 'Printed by the program; no mark in the fourth corner.',
    insetMm: 15.9,
    sizeMm: 14,
    keepOutMm: 5,
    edgeMinMm: 10,
    leadingMark: 'the filled figure',
    readingOrder: 'filled figure, along the feed, across',
  },
  four_corners: {
    title: 'Four corners',
    words: 'One mark in each corner.',
    insetMm: 15.9,
    sizeMm: 10,
    keepOutMm: 5,
    edgeMinMm: 10,
    leadingMark: 'the mark with a bar',
    readingOrder: 'two leading, two trailing',
  },
  with_intermediates: {
    title: 'Four corners and between',
    words: 'For long pieces: marks along the edges too.',
    insetMm: 15.9,
    sizeMm: 10,
    keepOutMm: 5,
    edgeMinMm: 10,
    leadingMark: 'the mark with a bar',
    readingOrder: 'pairs, leading to trailing',
  },
  frame: {
    title: 'A frame round the work',
    words: 'A printed line all round.',
    insetMm: 15.9,
    sizeMm: 1,
    keepOutMm: 5,
    edgeMinMm: 10,
    leadingMark: '',
    readingOrder: 'side by side',
  },
  by_hand: {
    title: 'By hand',
    words: 'The tool is driven over two targets.',
    insetMm: 15.9,
    sizeMm: 8,
    keepOutMm: 3,
    edgeMinMm: 0,
    leadingMark: 'the lower left target',
    readingOrder: 'lower left, upper left',
  },
  none: {
    title: 'No marks',
    words: 'The material never leaves the machine, or a camera looks.',
    insetMm: 5,
    sizeMm: 0,
    keepOutMm: 0,
    edgeMinMm: 0,
    leadingMark: '',
    readingOrder: '',
  },
};
