import { seededRng, standardNormal } from '../math/random';
import { renderScan, type ScanOptions } from '../simulate/scan-image';
import type { DiscFate, SimulatedDisc } from '../simulate/disc-shade';
import { combineScans } from './combine-scans';
import { printShape } from './print-size';
import { errorsOf, measured, mustMeasure, rmsOf, sheetFigures, type Trial } from './scan-trials.testing';

const FIGURES = sheetFigures('full', 'lift-off');
const PITCH_MM = 34;

interface Laid {
  readonly options?: Partial<ScanOptions>;
  readonly fateOf?: (i: number) => DiscFate;
  /** One of so many lies face down; 0: none. */
  readonly mirroredOf?: number;
}

/** Lifted discs laid on dark card in rows, each its own way, cut 0.6 and -0.4 mm off with 0.2 mm of their own. */
function onCard(seed: number, { options, fateOf = () => 'whole', mirroredOf = 0 }: Laid = {}): Trial {
  const rng = seededRng(seed);
  const discs = FIGURES.map((figure, i): SimulatedDisc => ({
    ...figure,
    cutOff: { x: 0.6 + 0.2 * standardNormal(rng), y: -0.4 + 0.2 * standardNormal(rng) },
    fate: fateOf(i),
    lying: {
      at: { x: ((i % 4) - 1.5) * PITCH_MM + 2 * rng(), y: (1.5 - Math.floor(i / 4)) * PITCH_MM + 2 * rng() },
      turnRad: 2 * Math.PI * rng(),
      isMirrored: mirroredOf > 0 && i % mirroredOf === 0,
    },
  }));
  const image = renderScan(discs, { dotsPerInch: 300, widthMm: 150, lengthMm: 150, inkGainMm: 0.03, ...options }, rng);
  return { image, discs };
}

describe('lifted discs that lie loose on dark card', () => {
  it.each([
    [150, 0.0024],
    [200, 0.002],
    [300, 0.0018],
    [600, 0.0018],
  ])('%i dpi: each in the frame that its own ring tells', (dotsPerInch, wantedMm) => {
    const trials = [1, 2, 3].map((seed) => onCard(seed, { options: { dotsPerInch } }));
    const told = trials.map((trial) => {
      const result = mustMeasure(trial.image, FIGURES);
      expect(result.discs.map((d) => d.state)).toEqual(FIGURES.map(() => 'good'));
      expect(result).toMatchObject({ turnDeg: null, isMirrored: false, cutShape: 'edge' });
      expect(result.pixelsPerMm * 25.4).toBeCloseTo(dotsPerInch, -0.3);
      return errorsOf(result, trial);
    });
    const errors = told.flatMap((t) => t.errors);
    expect(rmsOf(errors)).toBeLessThan(wantedMm);
    const ratio = rmsOf(told.flatMap((t) => t.ratios));
    expect(ratio).toBeGreaterThan(0.8);
    expect(ratio).toBeLessThan(1.3);
  });

  it('a scanner with scales and a skew of its own, and pieces seen from behind among the others', () => {
    const trial = onCard(4, { options: { scannerScaleX: 1.01, scannerSkewRad: 0.005, turnRad: 0.4 }, mirroredOf: 3 });
    const result = mustMeasure(trial.image, FIGURES);
    expect(result.discs.map((d) => d.state)).toEqual(FIGURES.map(() => 'good'));
    expect([result.isMirrored, result.isMixed]).toEqual([false, true]);
    expect(rmsOf(errorsOf(result, trial).errors)).toBeLessThan(0.0025);
    // Pieces tell nothing of the print as a whole.
    expect(printShape([result], FIGURES)).toBeNull();
  });

  it('dust and hairs, torn, covered, not lifted, missing: no false "good"', () => {
    const fates: readonly DiscFate[] = ['whole', 'torn', 'not-weeded', 'whole', 'missing', 'covered', 'half-weeded'];
    const fateOf = (i: number): DiscFate => fates[i % fates.length]!;
    for (const seed of [5, 6, 7]) {
      const trial = onCard(seed, { options: { dotsPerInch: 200, specks: 700, hairs: 14 }, fateOf });
      const result = mustMeasure(trial.image, FIGURES);
      const told = result.discs.map((d, i) => `${fateOf(i)}: ${d.state}`);
      const may: Readonly<Record<DiscFate, readonly string[]>> = {
        // A hair from the card across the rim joins a disc to it, and nothing else says where that piece is.
        whole: ['good', 'partial', 'missing'],
        torn: ['partial', 'missing', 'bad-cut'],
        'not-weeded': ['not-weeded'],
        missing: ['missing'],
        covered: ['partial', 'missing', 'bad-cut'],
        'half-weeded': ['partial', 'bad-cut', 'not-weeded'],
      };
      expect(told.filter((_, i) => !may[fateOf(i)].includes(result.discs[i]!.state))).toEqual([]);
      expect(told.filter((t) => t === 'whole: good' || t === 'whole: partial').length).toBeGreaterThanOrEqual(2);
      expect(rmsOf(errorsOf(result, trial).errors)).toBeLessThan(0.006);
      expect(result.discs.find((d) => d.state === 'missing')).toMatchObject({ view: null, displacement: null });
    }
  });

  it('another check\u2019s disc among them, one of them twice, or only others', () => {
    const { discs } = onCard(8);
    const all = { dotsPerInch: 200, widthMm: 150, lengthMm: 150 };
    const other = FIGURES.length + 3;
    const swapped = discs.map((d, i) => (i === 2 ? { ...d, codeNo: other } : d));
    expect(measured(renderScan(swapped, all, seededRng(1)), FIGURES)).toMatchObject({
      error: { kind: 'other-pieces' },
    });
    const twice = discs.map((d, i) => (i === 2 ? { ...d, codeNo: discs[1]!.codeNo } : d));
    expect(measured(renderScan(twice, all, seededRng(1)), FIGURES)).toMatchObject({ error: { kind: 'two-sheets' } });
    const others = discs.map((d, i) => ({ ...d, codeNo: other + i }));
    expect(measured(renderScan(others, all, seededRng(1)), FIGURES)).toMatchObject({ error: { kind: 'other-pieces' } });
  });

  it('a photograph of loose pieces is refused, and so is a coarse scan', () => {
    const { discs } = onCard(9);
    const camera = { tiltRad: 0.15, towardsRad: 1, radial: 0 };
    const photo = renderScan(discs, { dotsPerInch: 260, widthMm: 150, lengthMm: 150, camera }, seededRng(1));
    expect(measured(photo, FIGURES)).toMatchObject({ error: { kind: 'pieces-aslant' } });
    expect(measured(onCard(9, { options: { dotsPerInch: 120 } }).image, FIGURES)).toMatchObject({
      error: { kind: 'too-coarse' },
    });
  });

  it('two scans, the card turned by half: each piece\u2019s way of the travel is its own, and all agree', () => {
    const trial = onCard(10);
    const again = renderScan(
      trial.discs,
      { dotsPerInch: 300, widthMm: 150, lengthMm: 150, turnRad: Math.PI, inkGainMm: 0.03 },
      seededRng(2),
    );
    const [one, other] = [mustMeasure(trial.image, FIGURES), mustMeasure(again, FIGURES)];
    one.discs.forEach(({ travel }, i) => {
      expect(Math.hypot(travel.x + other.discs[i]!.travel.x, travel.y + other.discs[i]!.travel.y)).toBeLessThan(0.02);
    });
    const pair = combineScans([one, other]);
    expect(pair.atOdds).toBeNull();
    expect(pair.shadowSdMm).toBeLessThan(0.004);
  });

  it.each([1, 1.5, 1.8, 1.9])('a cut %d mm off is measured', (offMm) => {
    const { discs } = onCard(11);
    const moved = discs.map((d, i) => ({ ...d, cutOff: { x: offMm * Math.cos(i), y: offMm * Math.sin(i) } }));
    const image = renderScan(moved, { dotsPerInch: 300, widthMm: 150, lengthMm: 150 }, seededRng(1));
    const result = mustMeasure(image, FIGURES);
    expect(result.discs.every((d) => d.state === 'good')).toBe(true);
    expect(rmsOf(errorsOf(result, { image, discs: moved }).errors)).toBeLessThan(0.004);
  });
});
