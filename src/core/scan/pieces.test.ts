import { seededRng, standardNormal } from '../math/random';
import type { Result } from '../result';
import type { SimulatedDisc } from '../simulate/disc-shade';
import { renderScan, type ScanOptions } from '../simulate/scan-image';
import type { RollStrip } from '../target/roll-strip';
import { placeOfCode } from '../target/station-disc';
import { combineScans } from './combine-scans';
import { fromPieceKey, inReadingOrder, measurePieces, pieceKey } from './measure-pieces';
import { placed, placeName, placesOf } from './placed-pieces';
import { stationFigures } from './station-figures';
import { errorsOf, rmsOf, type Trial } from './scan-trials.testing';
import type { ScanProblem, ScanResult } from './scan-result';

const STRIP: RollStrip = {
  ...{ widthMm: 300, spacingMm: 400, stations: 60, sides: ['left', 'right'], form: 'strip', hasDiscs: true },
};
const COPIED: RollStrip = { ...STRIP, form: 'piece' };
const PITCH_MM = 45;

interface Laid {
  readonly strip?: RollStrip;
  readonly options?: Partial<ScanOptions>;
  readonly fateOf?: (i: number) => SimulatedDisc['fate'];
}

/** Twelve pieces of stations 40 to 45 laid in three rows of four, each its own way, cut 0.5 and -0.3 mm off. */
function onGlass(seed: number, { strip = STRIP, options, fateOf = () => 'whole' }: Laid = {}): Trial {
  const rng = seededRng(seed);
  const figures = stationFigures(strip);
  const discs = Array.from({ length: 12 }, (_, i): SimulatedDisc => {
    const codeNo = strip.form === 'piece' ? i % 2 : (78 + i) % 84;
    const figure = figures.find((f) => f.codeNo === codeNo)!;
    return {
      ...figure,
      cutOff: { x: 0.5 + 0.2 * standardNormal(rng), y: -0.3 + 0.2 * standardNormal(rng) },
      fate: fateOf(i),
      lying: {
        at: { x: ((i % 4) - 1.5) * PITCH_MM + 6 * rng(), y: (1 - Math.floor(i / 4)) * PITCH_MM + 6 * rng() },
        turnRad: 2 * Math.PI * rng(),
        isMirrored: false,
      },
    };
  });
  const image = renderScan(discs, { dotsPerInch: 300, widthMm: 200, lengthMm: 150, inkGainMm: 0.03, ...options }, rng);
  return { image, discs };
}

function measured({ image }: Trial, strip: RollStrip): Result<ScanResult, ScanProblem> {
  const work = measurePieces(image, stationFigures(strip));
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

function mustMeasure(trial: Trial, strip: RollStrip = STRIP): ScanResult {
  const result = measured(trial, strip);
  if (!result.ok) throw new Error(result.error.kind);
  return result.value;
}

describe('pieces of a roll on the glass', () => {
  it.each([
    [200, 0.0032],
    [300, 0.003],
    [600, 0.003],
  ])('%i dpi: each in the frame that its own ring tells', (dotsPerInch, wantedMm) => {
    const trials = [1, 2, 3, 4].map((seed) => onGlass(seed, { options: { dotsPerInch } }));
    const told = trials.map((trial) => {
      const result = mustMeasure(trial);
      expect(result.discs.map((d) => fromPieceKey(d.key))).toEqual(
        trial.discs.map((d, i) => ({ codeNo: d.codeNo, orderNo: i + 1 })),
      );
      expect(result.discs.map((d) => d.state)).toEqual(trial.discs.map(() => 'good'));
      return errorsOf(result, trial);
    });
    expect(rmsOf(told.flatMap((t) => t.errors))).toBeLessThan(wantedMm);
    const ratio = rmsOf(told.flatMap((t) => t.ratios));
    expect(ratio).toBeGreaterThan(0.75);
    expect(ratio).toBeLessThan(1.3);
  });

  it('words that begin again on a long strip are told by where the pieces come from', () => {
    const { discs } = mustMeasure(onGlass(5));
    const places = discs.map(({ key }) => placeOfCode(STRIP, fromPieceKey(key).codeNo, 40));
    expect(places.map((p) => `${p?.stationNo} ${p?.side}`)).toEqual(
      [40, 41, 42, 43, 44, 45].flatMap((no) => [`${no} left`, `${no} right`]),
    );
  });

  it('copied pieces show the same words again and again: all are measured, in reading order', () => {
    const trial = onGlass(6, { strip: COPIED });
    const result = mustMeasure(trial, COPIED);
    expect(result.discs.map((d) => fromPieceKey(d.key).codeNo)).toEqual(trial.discs.map((d) => d.codeNo));
    expect(rmsOf(errorsOf(result, trial).errors)).toBeLessThan(0.004);
  });

  it('a scanner with scales and a skew of its own, dust, and a round that was not weeded', () => {
    const options = { scannerScaleX: 1.01, scannerSkewRad: 0.005, specks: 300, hairs: 3 };
    const trial = onGlass(7, { options, fateOf: (i) => (i === 4 ? 'not-weeded' : 'whole') });
    const result = mustMeasure(trial);
    const found = trial.discs.flatMap((truth) => {
      const disc = result.discs.find(({ key }) => fromPieceKey(key).codeNo === truth.codeNo);
      return disc ? [{ disc, truth }] : [];
    });
    // A hair may hide a ring's dots: such a piece is not measured, never taken for another one.
    expect(found.length).toBe(result.discs.length);
    expect(found.length).toBeGreaterThan(9);
    const open = found.find(({ truth }) => truth.fate === 'not-weeded');
    expect(open?.disc).toMatchObject({ state: 'not-weeded', displacement: null });
    const told = { ...result, discs: found.map(({ disc }) => disc) };
    const errors = errorsOf(told, { ...trial, discs: found.map(({ truth }) => truth) }).errors;
    expect(errors.length).toBeGreaterThan(16);
    expect(rmsOf(errors)).toBeLessThan(0.006);
  });

  it('another strip\u2019s pieces, and an empty glass', () => {
    expect(measured(onGlass(8), COPIED)).toMatchObject({ ok: false, error: { kind: 'other-pieces' } });
    const bare = { width: 800, height: 600, data: new Uint8Array(480_000).fill(230) };
    expect(measured({ image: bare, discs: [] }, STRIP)).toMatchObject({ ok: false, error: { kind: 'no-discs' } });
  });

  it('reads rows from the top, each from the left, also where they are not quite straight', () => {
    const places = [
      { x: 300, y: 118 },
      { x: 10, y: 420 },
      { x: 20, y: 100 },
      { x: 150, y: 90 },
      { x: 200, y: 405 },
    ];
    expect(inReadingOrder(places, (p) => p, 100).map((p) => p.x)).toEqual([20, 150, 300, 10, 200]);
  });

  it('copied pieces get their stations by their order, side by side; what lies beyond the roll has none', () => {
    const keys = [0, 1, 0, 1, 0].map((codeNo, i) => pieceKey(codeNo, i + 1));
    const named = placesOf({ ...COPIED, stations: 9 }, keys, { firstNo: 4, every: 3 }).map((p) => p && placeName(p));
    expect(named).toEqual(['4 left', '4 right', '7 left', '7 right', null]);
  });

  it('two scans of the same pieces, turned by half, are free of the shadow in the holes', () => {
    const from = { firstNo: 40, every: 1 };
    const shadow = { shadow: 0.55, wobbleMm: 0.006 };
    const still = [0, Math.PI].map((turnRad) => {
      // The same pieces, cut alike, lying straight: only the scan's own turn differs.
      const trial = onGlass(9, { options: shadow });
      const discs = trial.discs.map((d) => ({ ...d, lying: { ...d.lying!, turnRad } }));
      const image = renderScan(discs, { dotsPerInch: 300, widthMm: 200, lengthMm: 150, ...shadow }, seededRng(10));
      return { discs, result: placed(STRIP, mustMeasure({ image, discs }), from) };
    });
    const truth = still[0]!.discs;
    const offsetOf = (results: readonly ScanResult[]): number => {
      const { discs } = combineScans(results);
      const errors = discs.map((disc, at) => disc.alongMm - truth[at]!.cutOff.y);
      return errors.reduce((sum, e) => sum + e, 0) / errors.length;
    };
    const [one, both] = [offsetOf([still[0]!.result]), offsetOf(still.map((s) => s.result))];
    expect(Math.abs(one)).toBeGreaterThan(0.005);
    expect(Math.abs(both)).toBeLessThan(0.0015);
  });
});
