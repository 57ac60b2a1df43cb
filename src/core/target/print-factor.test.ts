import { printFactor } from './print-factor';

it.each([
  [230, true, /actual size/],
  [229.2, true, /actual size/],
  [223.1, false, /fit to page/],
  [236.9, false, /borderless/],
  [306.7, false, /read at 72/],
  [172.5, false, /75 %/],
  [180, false, /Some scaling/],
])('a 230 mm line that measures %s mm (common practice, no published source)', (line, isRight, words) => {
  const told = printFactor(230, line);
  expect(told.isRight).toBe(isRight);
  expect(told.likely).toMatch(words);
  expect(told.factor).toBeCloseTo(line / 230, 12);
});
