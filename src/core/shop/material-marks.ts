/** What of a material decides whether an eye sees marks printed on it. */
export interface MarkGround {
  readonly colour: 'white' | 'light' | 'dark' | 'metallic';
  readonly transparency: 'opaque' | 'translucent' | 'clear';
  readonly finish: string;
}

export interface MarkAdvice {
  readonly verdict: 'will show' | 'may not show' | 'will not show';
  readonly todo: readonly string[];
}

const isGlossy = ({ finish }: MarkGround): boolean => /gloss|shiny|laminat/i.test(finish) && !/matt/i.test(finish);
const isHidden = ({ colour, transparency }: MarkGround): boolean =>
  colour === 'dark' || colour === 'metallic' || transparency === 'clear';
const isDoubtful = (ground: MarkGround): boolean =>
  isGlossy(ground) || ground.transparency === 'translucent' || ground.colour === 'light';

/** In the order to try them. */
const REMEDIES: readonly { readonly when: (ground: MarkGround) => boolean; readonly words: string }[] = [
  {
    when: isHidden,
    words: 'Print a filled patch behind the marks, white under dark ink where the printer can.',
  },
  {
    when: (ground) => ground.colour === 'metallic' || isGlossy(ground),
    words: 'Lay matt tape over the marks, edges pressed down, away from the head\u2019s way.',
  },
  {
    when: (ground) => ground.transparency === 'clear',
    words: 'Lay white paper under the marks, on the far side of the carrier.',
  },
  {
    when: (ground) => isHidden(ground) || isDoubtful(ground),
    words: 'Set the eye\u2019s sensitivity for this material, as the machine\u2019s manual says.',
  },
];

/**
 * Whether marks show on a material, and what to try when they do not, one change at a time.
 * Common practice, no published source.
 */
export function materialMarkAdvice(ground: MarkGround): MarkAdvice {
  const todo = REMEDIES.filter((r) => r.when(ground)).map((r) => r.words);
  if (isHidden(ground)) return { verdict: 'will not show', todo };
  return { verdict: isDoubtful(ground) ? 'may not show' : 'will show', todo };
}
