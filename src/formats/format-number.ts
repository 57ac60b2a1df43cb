/** Fixed decimals without trailing zeros, exponent or "-0". Throws on what is not finite: a writer never guesses. */
export function formatNumber(value: number, decimals: number): string {
  if (!Number.isFinite(value)) throw new Error(`cannot write ${value}`);
  const text = value.toFixed(decimals);
  const trimmed = text.includes('.') ? text.replace(/0+$/, '').replace(/\.$/, '') : text;
  return trimmed === '-0' ? '0' : trimmed;
}
