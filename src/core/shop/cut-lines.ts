import type { FigureStyle } from '../target/sheet-definition';

/** How a check sheet's cut lines are made visible: strips weeded out, slits rubbed in, or drawn with a pen. */
export const CUT_LINES = ['weeded', 'rubbed', 'pen'] as const;
export type CutLine = (typeof CUT_LINES)[number];

export const CUT_LINE_WORDS: Readonly<Record<CutLine, { readonly title: string; readonly words: string }>> = {
  weeded: {
    title: 'Knife, strips lifted out',
    words: 'For material that comes off a liner. Sharpest to read, and two cuts fit on one sheet.',
  },
  rubbed: {
    title: 'Knife, slits rubbed in',
    words: 'For paper and card that is not weeded: soft pencil or marker goes into the slits, the rest is wiped off.',
  },
  pen: {
    title: 'A pen in the holder',
    words:
      'On any paper, nothing to weed. Tells scale, rotation and squareness; the knife\u2019s own shift only where knife against pen is known.',
  },
};

/** Figures that show a line of this kind; a program that only traces leaves no choice. */
export function styleFor(line: CutLine, routeStyle: FigureStyle): FigureStyle {
  if (routeStyle !== 'wedge') return routeStyle;
  return line === 'weeded' ? 'wedge' : 'comb';
}
