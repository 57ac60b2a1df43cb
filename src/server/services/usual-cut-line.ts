import type { CutLine } from '@/core/shop/cut-lines';

/** What is said of a material that decides whether its strips can be lifted out. */
export interface Weedable {
  readonly name: string;
  readonly finish: string;
  readonly carrier: string;
}

const NO_LINER = /\b(none|no liner|mat)\b/i;
const PAPER = /\b(paper|card|cardstock|cardboard)\b/i;
const ON_LINER = /\b(film|vinyl|sticker|label|adhesive|foil|liner|decal|transfer)s?\b/i;

/** How a cut in a material is best seen: strips come off a liner; plain paper or card without one is slit and rubbed in. */
export function usualCutLine({ name, finish, carrier }: Weedable): CutLine {
  if (carrier.trim() !== '') return NO_LINER.test(carrier) ? 'rubbed' : 'weeded';
  const words = `${name} ${finish}`;
  return PAPER.test(words) && !ON_LINER.test(words) ? 'rubbed' : 'weeded';
}
