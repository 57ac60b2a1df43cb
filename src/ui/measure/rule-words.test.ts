import { cornersOf } from '@/core/geometry/affine';
import { fitMeasured, type Measured } from '@/core/registration/rule-fit';
import { measuredOn } from '@/core/registration/sheet-lengths';
import { ruleParts, ruleProblemWords } from './rule-words';

const frame = { widthMm: 176, lengthMm: 236 };
const page = { widthMm: 210, lengthMm: 297 };

function words(measured: readonly Measured[]) {
  const fit = fitMeasured(measured, cornersOf(frame.widthMm, frame.lengthMm));
  if (!fit.ok) throw new Error(fit.error.kind);
  return ruleParts(fit.value, frame, 'mm').map((p) => [p.name, p.words.replaceAll('\u00a0', ' '), p.isClear]);
}

it('a print 3 mm to the right and 2 mm low, in trade words with its doubt', () => {
  const lengths = { 'left-top': 20, 'left-bottom': 20, 'bottom-left': 28.5, 'bottom-right': 28.5 };
  expect(words(measuredOn(lengths, { frame, page }, 0.3))).toEqual([
    ['across', expect.stringMatching(/^3\.00 mm to the right \(\u00b1 0\.\d\d mm\)$/), true],
    ['along', expect.stringMatching(/^2\.00 mm low \(\u00b1 0\.\d\d mm\)$/), true],
    ['turned', expect.stringMatching(/^0\.00 mm over its length/), false],
    ['out of square', expect.stringMatching(/^its top lies 0\.00 mm to the right/), false],
  ]);
});

it('parts that the lengths cannot tell are not listed; sizes are told in percent', () => {
  const told = words(measuredOn({ 'width-top': 177.76, 'length-left': 236 }, { frame, page }, 0.3));
  expect(told.map(([name]) => name)).toEqual(['width', 'length']);
  expect(told[0]?.[1]).toMatch(/^1\.00 % too wide/);
  expect(told[0]?.[2]).toBe(true);
  expect(told[1]?.[2]).toBe(false);
});

it.each(['nothing-measured', 'too-few', 'not-finite', 'coincident'] as const)(
  '%s has words that say what to do',
  (kind) => {
    expect(ruleProblemWords(kind).length).toBeGreaterThan(20);
  },
);
