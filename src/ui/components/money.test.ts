import { moneyUnit, moneyWords } from './money';

// No-break spaces stand between code and figure.
const plain = (text: string): string => text.replaceAll('\u00a0', ' ');

it.each([
  [12.5, null, '12.50'],
  [1234567.891, null, '1,234,567.89'],
  [12.5, 'EUR', 'EUR 12.50'],
  // ISO 4217: no decimals in yen, three in dinars.
  [1250000, 'JPY', 'JPY 1,250,000'],
  [12.5, 'KWD', 'KWD 12.500'],
])('%s in %s is written as %s', (amount, currency, words) => {
  expect(plain(moneyWords(amount, currency))).toBe(words);
});

it("the unit of a field is the currency, or says that it is the shop's own", () => {
  expect([moneyUnit('NOK'), moneyUnit(null)]).toEqual(['NOK', 'in your money']);
});
