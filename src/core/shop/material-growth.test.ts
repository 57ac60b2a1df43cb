import { growthOf, growthWords } from './material-growth';

it('a metre of rigid PVC 10 K warmer: 0.5 to 1 mm by 5e-5 to 1e-4 per K (handbook range, from memory)', () => {
  expect(growthOf(5e-5, 10, 1000).mm).toBeCloseTo(0.5, 12);
  expect(growthOf(1e-4, 10, 1000).mm).toBeCloseTo(1, 12);
});

it('grows in proportion, with half of itself in doubt', () => {
  for (const [perUnit, units, lengthMm] of [
    [7e-5, 10, 1000],
    [2e-6, 30, 297],
    [0, 10, 1000],
  ] as const) {
    const g = growthOf(perUnit, units, lengthMm);
    expect(growthOf(perUnit, 2 * units, lengthMm).mm).toBeCloseTo(2 * g.mm, 12);
    expect(growthOf(perUnit, units, 3 * lengthMm).mm).toBeCloseTo(3 * g.mm, 12);
    expect(g.mostMm - g.mm).toBeCloseTo(g.mm - g.leastMm, 12);
    expect(g.mostMm).toBeCloseTo(3 * g.leastMm, 12);
  }
});

it('says it with its source, and nothing of what is not told', () => {
  const none = { thermalPerK: null, thermalSource: '', humidityPerPercent: null, humiditySource: '' };
  expect(growthWords(none)).toEqual([]);
  expect(growthWords({ ...none, thermalPerK: 7e-5, thermalSource: 'data sheet' })).toEqual([
    '10 K warmer, a metre of it grows by 0.70 mm, perhaps 0.35 to 1.05 (data sheet).',
  ]);
  expect(growthWords({ ...none, humidityPerPercent: 3e-6, humiditySource: '' })[0]).toMatch(
    /20 % damper.*0.060 mm, perhaps 0.030 to 0.090 \(no source told\)/,
  );
});
