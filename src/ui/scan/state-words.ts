import type { DiscState } from '@/core/scan/disc-measure';
import type { CutShape } from '@/core/target/coded-figure';

export interface StateWords {
  readonly name: string;
  readonly todo: string;
}

/** What a coded figure is called. */
export const figureWord = (cutShape: CutShape = 'hole'): 'disc' | 'ring' => (cutShape === 'line' ? 'ring' : 'disc');

const COMMON = {
  good: { name: 'good', todo: '' },
  partial: { name: 'partial', todo: 'Part of an edge is hidden: it counts with a larger doubt of its own.' },
} as const;

const WORDS: Readonly<Record<CutShape, Readonly<Record<DiscState, StateWords>>>> = {
  hole: {
    ...COMMON,
    'not-weeded': {
      name: 'not weeded',
      todo: 'Lift the round piece out, or lay white card behind, and scan again.',
    },
    'bad-cut': {
      name: 'bad cut',
      todo: 'The hole is not round or not whole: look at the blade and its offset.',
    },
    missing: { name: 'missing', todo: 'Not in the picture, torn or covered: scan it again, or leave it.' },
  },
  line: {
    ...COMMON,
    'not-weeded': {
      name: 'no line',
      todo: 'Nothing drawn or rubbed in is seen inside it: rub a soft pencil into the slit, or see whether the pen wrote. Where the cut is more than 1 mm off, read the combs instead.',
    },
    'bad-cut': {
      name: 'bad line',
      todo: 'The circle is not round or not whole, or lies far off: look at pen or blade, or read the rough position first.',
    },
    missing: { name: 'missing', todo: 'Not in the picture, torn or covered: scan it again, or leave it.' },
  },
  edge: {
    ...COMMON,
    'not-weeded': {
      name: 'not lifted',
      todo: 'Lift it out, lay it apart from the others with dark card over it, and scan again.',
    },
    'bad-cut': {
      name: 'bad cut',
      todo: 'Its edge is not round or not whole, or another piece touches it: lay it apart, and look at the blade.',
    },
    missing: {
      name: 'missing',
      todo: 'Not in the picture, or its dots cannot be read: lay it ink towards the scanner\u2019s lamp and scan again, or leave it.',
    },
  },
};

/** What was found of a figure, and what to do about it. */
export const stateWords = (state: DiscState, cutShape: CutShape): StateWords => WORDS[cutShape][state];
