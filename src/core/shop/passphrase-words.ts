/** 128 short words that are easy to say across a shop and to type on a phone: seven bits each. */
export const PASSPHRASE_WORDS: readonly string[] = (
  'acorn alder anvil apple arrow aspen badge basin beach berry birch board bolt bower brass bread brick bridge brook broom ' +
  'brush bucket buoy cabin canoe cedar chalk cherry clay cliff clover coast copper coral cork cotton crane creek crown delta ' +
  'dingle dock dune eagle elder elm fern ferry field finch flint foam ford forge fox frost gate glade gorse grain gravel grove ' +
  'gull harbor hazel heath hedge heron hill holly honey island ivory jetty kettle lamp lantern larch lark ledge lemon lever lime ' +
  'linen lock maple marsh meadow mill mint moss nettle oak oar olive osier otter paddle pearl pebble pier pine plank plover plum ' +
  'pond poplar quarry raft rail reed ridge river robin rope rowan rush sand shale shell shore sickle slate spade ' +
  'spring staff stone thistle'
).split(' ');

const WORDS = 5;

/** How many random bytes a passphrase is made from. */
export const PASSPHRASE_BYTES = WORDS;

/**
 * A passphrase of five words, 35 bits: years of guessing at the few tries an hour that the door takes.
 * @param random five bytes from a cryptographic source; the low seven bits of each choose a word.
 */
export function makePassphrase(random: Uint8Array): string {
  return Array.from(random.slice(0, WORDS), (byte) => PASSPHRASE_WORDS[byte & 127]).join(' ');
}
