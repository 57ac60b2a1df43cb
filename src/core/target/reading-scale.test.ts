import { blockNamed } from './block';
import { combAnswers, combNumbers, cutTickMm, nearestAnswer, printedTickMm } from './comb';
import { divisionOf, nearestWedgeReading, READING_SCALES } from './reading-scale';
import { defineSheet, scaleOf } from './sheet-definition';

const MM_PER = { mm: 1, thou: 0.0254 } as const;
const valueOf = (words: string): number => Number(words.replace('\u2212', '-'));

describe.each(READING_SCALES)('a scale in %s', (scale) => {
  const division = divisionOf(scale);
  it('a wedge\u2019s numbers are the readings at their ticks', () => {
    for (const { valueMm, number } of division.wedgeTicks)
      if (number !== null) expect(valueOf(number) * MM_PER[scale]).toBeCloseTo(valueMm, 9);
    expect(division.wedgeTicks.filter(({ number }) => number !== null).length).toBeGreaterThanOrEqual(5);
  });
  it('a comb\u2019s numbers are the shifts that bring those ticks into line, within a plotter unit and the spot\u2019s part', () => {
    combNumbers(scale)
      .slice(0, 5)
      .forEach(({ at, text }, i) => {
        const tick = 5 * (i - 2);
        expect(at.s).toBeCloseTo(printedTickMm(tick), 9);
        expect(printedTickMm(tick) - cutTickMm(5, tick, scale)).toBeCloseTo(valueOf(text) * MM_PER[scale], 1);
      });
  });
  it('answers of a comb rise without a gap', () => {
    const answers = combAnswers({ spotNo: 1, scale });
    const steps = answers.slice(1).map((a, i) => a.readingMm - answers[i]!.readingMm);
    expect(Math.min(...steps)).toBeGreaterThan(0.02);
    expect(Math.max(...steps)).toBeLessThan(0.085);
    expect(nearestAnswer(answers, 0.3).readingMm).toBeCloseTo(0.3, 1);
  });
  it('a wedge is read in whole steps within its reach', () => {
    for (const mm of [0.123, -0.4, 3, -3]) {
      const read = nearestWedgeReading(mm, scale);
      expect(Math.abs(read / division.wedgeStepMm - Math.round(read / division.wedgeStepMm))).toBeLessThan(1e-4);
      expect(Math.abs(read)).toBeLessThanOrEqual(division.wedgeReachMm + 1e-9);
    }
  });
});

it('a sheet in thou differs from one in mm by its scale alone, and one in mm says nothing of it', () => {
  const choice = { block: blockNamed('Letter'), checkKind: 'quick' } as const;
  const [mm, thou] = [defineSheet(choice), defineSheet({ ...choice, scale: 'thou' })];
  expect(JSON.stringify(mm)).not.toContain('"scale"');
  expect([scaleOf(mm), scaleOf(thou)]).toEqual(['mm', 'thou']);
  expect(JSON.parse(JSON.stringify(thou).replaceAll(',"scale":"thou"', ''))).toEqual(JSON.parse(JSON.stringify(mm)));
});
