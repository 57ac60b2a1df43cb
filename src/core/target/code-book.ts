/** Dots round a disc: each printed or left out. */
export const CODE_BITS = 18;

/**
 * Words of 18 bits, five to thirteen of them set, each at least four bits away from every turn and mirror image of every
 * word, its own included: one ring of dots tells which disc it is, which way up and whether it is seen from behind, with
 * one bit put right. In ascending order, each the first that fits those before it; the test finds the same list anew.
 * Fixed for good: what is printed must be known again. A longer or another book is another version.
 */
export const CODE_WORDS: readonly number[] = [
  0x00097, 0x00135, 0x00227, 0x0031f, 0x0047b, 0x004a3, 0x00543, 0x005bf, 0x0088b, 0x0093b, 0x009a7, 0x009d5, 0x00a4f,
  0x00a73, 0x00c37, 0x00cdf, 0x01047, 0x010af, 0x0119b, 0x011f7, 0x0125b, 0x012d5, 0x0132d, 0x0143d, 0x014cd, 0x0155f,
  0x01633, 0x016eb, 0x017d3, 0x018d3, 0x01a9f, 0x01e7f, 0x0216b, 0x02257, 0x02365, 0x0245d, 0x02517, 0x025cf, 0x025f3,
  0x026af, 0x0270d, 0x0277f, 0x0279b, 0x027b5, 0x02aeb, 0x02b8f, 0x02d9d, 0x03153, 0x0326f, 0x033df, 0x037e7, 0x038b7,
  0x0452b, 0x045e7, 0x0474f, 0x04953, 0x04bcb, 0x04ceb, 0x04e9d, 0x04fc5, 0x052ff, 0x054b7, 0x0559d, 0x05657, 0x0577b,
  0x05a6b, 0x05b5f, 0x05d77, 0x05daf, 0x05ee7, 0x05f9b, 0x064bb, 0x067eb, 0x095fb, 0x09a67, 0x09baf, 0x0a697, 0x0abe7,
  0x0acfb, 0x0afbf, 0x0b3bb, 0x0b577, 0x0bf7b, 0x0eb7f,
];

/** Words of the second set follow those that the first may use. */
const WORDS_PER_SET = 42;

/** The word that stands round the disc of one spot and set, as its place in the book. */
export function codeNoOf(setNo: 1 | 2, spotNo: number): number {
  if (!(spotNo >= 1 && spotNo <= WORDS_PER_SET)) throw new Error(`no code for spot ${spotNo}`);
  return (setNo - 1) * WORDS_PER_SET + spotNo - 1;
}

/** Angles of a word's dots in the sheet frame, counter-clockwise from the right: bit b at 360 b / 18 degrees. */
export function dotAngles(codeNo: number): readonly number[] {
  const word = CODE_WORDS[codeNo];
  if (word === undefined) throw new Error(`no code ${codeNo}`);
  return Array.from({ length: CODE_BITS }, (_, bit) => bit)
    .filter((bit) => (word >> bit) % 2 === 1)
    .map((bit) => (2 * Math.PI * bit) / CODE_BITS);
}
