/** Fixed decimals without trailing zeros, exponent or "-0". Throws on what is not finite: a writer never guesses. */
export function formatNumber(value: number, decimals: number): string {
  if (!Number.isFinite(value)) throw new Error(`cannot write ${value}`);
  const text = value.toFixed(decimals);
  const trimmed = text.includes('.') ? withoutZeros(text) : text;
  return trimmed === '-0' ? '0' : trimmed;
}

/** A pattern would try every run of noughts within the number: this is written millions of times. */
function withoutZeros(text: string): string {
  let end = text.length;
  while (text.endsWith('0', end)) end -= 1;
  return text.slice(0, text.endsWith('.', end) ? end - 1 : end);
}
