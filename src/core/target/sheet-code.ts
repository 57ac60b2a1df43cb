/** Digits and capitals without I, L, O, U: hard to misread on a sheet and hard to spell anything with. */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/** Short code printed on the sheet, from the first 25 bits of its content's hash: two characters, a dash, three. */
export function sheetCodeOf(hash: Uint8Array): string {
  const bits = (hash[0]! << 17) | (hash[1]! << 9) | (hash[2]! << 1) | (hash[3]! >> 7);
  const letters = [20, 15, 10, 5, 0].map((shift) => LETTERS[(bits >> shift) & 31]!).join('');
  return `${letters.slice(0, 2)}-${letters.slice(2)}`;
}
