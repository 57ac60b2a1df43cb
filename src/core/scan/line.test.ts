import { DISC_FATES, type DiscFate } from '../simulate/disc-shade';
import { seededRng } from '../math/random';
import { renderScan, type ScanOptions } from '../simulate/scan-image';
import { combineScans } from './combine-scans';
import { errorsOf, mustMeasure, rmsOf, scanned, sheetFigures } from './scan-trials.testing';

const FIGURES = sheetFigures('full', 'comb');

function told(seeds: readonly number[], options: Partial<ScanOptions>) {
  const trials = seeds.map((seed) => {
    const trial = scanned(FIGURES, seed, { turnRad: 0.9 * seed, isMirrored: seed % 2 === 0, ...options });
    const result = mustMeasure(trial.image, FIGURES);
    expect(result.discs.map((d) => d.state)).toEqual(FIGURES.map(() => 'good'));
    return errorsOf(result, trial);
  });
  return { um: 1000 * rmsOf(trials.flatMap((t) => t.errors)), ratio: rmsOf(trials.flatMap((t) => t.ratios)) };
}

describe('rings with a line in them', () => {
  it.each([
    ['a pen of 0.3 mm', 200, 0.3, 3.2],
    ['a pen of 0.3 mm', 300, 0.3, 3.2],
    ['a pen of 0.5 mm', 300, 0.5, 3.2],
    ['a pen of 0.3 mm', 600, 0.3, 3.2],
    ['a slit rubbed in, 0.05 mm', 300, 0.05, 3.2],
    ['a slit rubbed in, 0.05 mm', 600, 0.05, 3.2],
  ])('%s at %i dpi', (_name, dotsPerInch, lineWidthMm, wantedUm) => {
    const { um, ratio } = told([1, 2, 3], { dotsPerInch, lineWidthMm });
    expect(um).toBeLessThan(wantedUm);
    expect(ratio).toBeGreaterThan(0.75);
    expect(ratio).toBeLessThan(1.35);
  });

  it('nothing drawn, half drawn, torn, covered, missing, in dust and hairs: no false "good"', () => {
    const may: Readonly<Record<DiscFate, readonly string[]>> = {
      whole: ['good', 'partial'],
      'half-weeded': ['partial', 'bad-cut', 'not-weeded'],
      'not-weeded': ['not-weeded'],
      torn: ['partial', 'missing', 'bad-cut', 'not-weeded'],
      missing: ['missing'],
      covered: ['partial', 'missing', 'bad-cut', 'not-weeded'],
    };
    for (const seed of [4, 5, 6, 7]) {
      const fates = FIGURES.map((_, i) => (i % 2 === 0 ? 'whole' : DISC_FATES[1 + ((seed + (i - 1) / 2) % 5)]!));
      const trial = scanned(FIGURES, seed, { dotsPerInch: 300, specks: 1500, hairs: 30 }, (i) => fates[i]!);
      const result = mustMeasure(trial.image, FIGURES);
      const wrong = result.discs.filter((d, i) => !may[fates[i]!].includes(d.state));
      expect(
        wrong.map((d) => `${seed} ${d.key} ${fates[FIGURES.findIndex((f) => f.key === d.key)]} ${d.state}`),
      ).toEqual([]);
    }
  });

  it('a line casts no shadow: one scan shares no doubt', () => {
    const { image } = scanned(FIGURES, 8, { dotsPerInch: 300 });
    const one = combineScans([mustMeasure(image, FIGURES)]);
    expect(one.shadowSdMm).toBe(0);
    expect(one.discs.every((d) => d.acrossSharedMm === 0 && d.alongSharedMm === 0)).toBe(true);
  });

  it.each([0.5, 0.8, 1, 1.1])('a cut %d mm off is measured', (offMm) => {
    const trial = scanned(FIGURES, 9, { dotsPerInch: 300 });
    const discs = trial.discs.map((d, i) => ({
      ...d,
      cutOff: { x: offMm * Math.cos(i), y: offMm * Math.sin(i) },
    }));
    const image = renderScan(discs, { dotsPerInch: 300, widthMm: 210, lengthMm: 297 }, seededRng(1));
    const result = mustMeasure(image, FIGURES);
    expect(result.discs.every((d) => d.state === 'good')).toBe(true);
    expect(rmsOf(errorsOf(result, { image, discs }).errors)).toBeLessThan(0.0032);
  });
});
