import type { Box } from '../target/block';
import type { LineFinding } from './line-checks';

/** Something about an item that is told before it is locked. Boxes are in the item's own cell. */
export type ItemFinding =
  | (LineFinding & { readonly of: 'lines' })
  | { readonly of: 'sliver'; readonly box: Box; readonly amount: number }
  | { readonly of: 'lost'; readonly box: Box }
  | { readonly of: 'text-cut'; readonly places: readonly string[] }
  | { readonly of: 'text-art'; readonly places: readonly string[] }
  | { readonly of: 'beyond'; readonly names: readonly string[]; readonly places: readonly string[] }
  | { readonly of: 'no-cut' }
  | { readonly of: 'no-art' }
  | { readonly of: 'stretched'; readonly share: number }
  | { readonly of: 'soft'; readonly dpi: number };

/** A finding in words: what is wrong, and what to do. stop: it cannot be locked so; look: it may be meant. */
export interface FindingWords {
  readonly severity: 'stop' | 'look';
  readonly words: string;
  readonly todo: string;
}

const mm = (value: number): string => `${Number(value.toFixed(2))} mm`;
const list = (places: readonly string[]): string => places.join('; ');

function lineWords(finding: LineFinding): FindingWords {
  const { kind, amount, places } = finding;
  switch (kind) {
    case 'doubled':
      return {
        severity: 'look',
        words: `${mm(amount)} of a cut line lie on another one: both would be cut (${list(places)}).`,
        todo: 'Delete one of them in the drawing.',
      };
    case 'original-under-offset':
      return {
        severity: 'look',
        words: `A cut line runs ${mm(amount)} inside another all the way round (${list(places)}): an original left under its offset?`,
        todo: 'Delete the inner one, unless it is a hole that is wanted.',
      };
    case 'off-art':
      return {
        severity: 'look',
        words: `A cut line of ${mm(amount)} touches none of the art (${list(places)}).`,
        todo: 'Move it back to its art, or delete it.',
      };
    case 'speck':
      return {
        severity: 'look',
        words: `A cut line only ${mm(amount)} across (${list(places)}).`,
        todo: 'Delete it: the knife cannot follow it, and nothing would lift.',
      };
    case 'lettering':
      return {
        severity: 'look',
        words: `${amount} small closed lines side by side look like lettering that was set to cut (${list(places)}).`,
        todo: 'Set the text to no cut in the drawing, unless the letters themselves are the piece.',
      };
  }
}

/** A finding about an item in words. */
export function itemFindingWords(finding: ItemFinding): FindingWords {
  switch (finding.of) {
    case 'lines':
      return lineWords(finding);
    case 'sliver':
      return {
        severity: 'look',
        words: `A part thinner than half a millimetre, ${finding.amount.toFixed(2)} mm\u00b2.`,
        todo: 'It tears when it is weeded: make it wider or take it away.',
      };
    case 'lost':
      return {
        severity: 'look',
        words: `A part of ${mm(finding.box.width)} x ${mm(finding.box.height)} is lost: it is narrower than twice the bleed.`,
        todo: 'Use less bleed, or make the part larger.',
      };
    case 'text-cut':
      return {
        severity: 'stop',
        words: `Text is set to cut (${list(finding.places)}).`,
        todo: 'Set it to no cut, or turn it into outlines if the letters are the piece.',
      };
    case 'text-art':
      return {
        severity: 'stop',
        words: `Text is still text (${list(finding.places)}): its letters depend on fonts that a print file does not have.`,
        todo: 'Turn it into outlines in the drawing program, and place the drawing again.',
      };
    case 'beyond':
      return {
        severity: 'stop',
        words: `The drawing uses ${finding.names.join(', ')} (${list(finding.places)}): the print file here would not carry that truly.`,
        todo: 'Save the art as a picture at 300 dots to the inch and place that, or let your own program lay the job out.',
      };
    case 'no-cut':
      return { severity: 'stop', words: 'No cut line is left.', todo: 'Say which lines are cut, or use less bleed.' };
    case 'no-art':
      return {
        severity: 'stop',
        words: 'It has no art to print.',
        todo: 'Place a drawing or a picture, or let your own program lay the job out.',
      };
    case 'stretched':
      return {
        severity: 'look',
        words: `The art is ${Math.abs(finding.share * 100).toFixed(1)} % too ${finding.share > 0 ? 'wide' : 'narrow'} for its own proportion.`,
        todo: 'Type one side and keep the proportion for the other.',
      };
    case 'soft':
      return {
        severity: 'look',
        words: `The picture has only ${Math.floor(finding.dpi)} dots to the inch at this size: it will look soft.`,
        todo: 'Use the full-size original, or print it smaller.',
      };
  }
}
