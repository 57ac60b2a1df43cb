import { seedFrom } from '../math/random';
import { CODE_WORDS } from './code-book';
import type { SheetDefinition } from './sheet-definition';

/** From this generator on, words round the discs are moved on, check by check and later sheet by sheet. */
const OWN_WORDS_SINCE = 4;

/** A number of words to move on by, from whatever something is known by. One pair in 84 shares it. */
export function wordShiftOf(key: string): number {
  const count = CODE_WORDS.length;
  return ((seedFrom(key, 'words') % count) + count) % count;
}

/**
 * The sheet with the words that its own discs carry: the same places as every other sheet of its definition, but all words
 * moved on, so that a scan of another sheet is known for what it is.
 * @param shift by how many words.
 */
export function withWordsMoved(definition: SheetDefinition, shift: number): SheetDefinition {
  if (definition.generatorVersion < OWN_WORDS_SINCE) return definition;
  const count = CODE_WORDS.length;
  const moved = (codeNo: number): number => (codeNo + shift) % count;
  return {
    ...definition,
    discs: definition.discs.map((d) => ({ ...d, codeNo: moved(d.codeNo) })),
    liftOffs: definition.liftOffs.map((f) => (f.codeNo === undefined ? f : { ...f, codeNo: moved(f.codeNo) })),
  };
}
