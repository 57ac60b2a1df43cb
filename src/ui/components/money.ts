const formats = new Map<string, Intl.NumberFormat>();

function formatOf(currency: string): Intl.NumberFormat {
  const known = formats.get(currency);
  if (known) return known;
  const made = new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'code' });
  formats.set(currency, made);
  return made;
}

/** An amount with its currency and that currency's own decimals; a plain number with two where the shop has said none. */
export const moneyWords = (amount: number, currency: string | null): string =>
  currency === null
    ? amount.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })
    : formatOf(currency).format(amount);

/** The unit beside a field that takes an amount. */
export const moneyUnit = (currency: string | null): string => currency ?? 'in your money';
