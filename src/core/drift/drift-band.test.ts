import { translation } from '../geometry/affine';
import { seededRng } from '../math/random';
import { standInReadings, type RollTruth } from '../simulate/simulated-roll';
import { stripFigures, type RollStrip } from '../target/roll-strip';
import { driftBand, type BandPlace } from './drift-band';
import { rollDrift } from './roll-drift';

const STRIP: RollStrip = {
  widthMm: 300,
  spacingMm: 400,
  stations: 24,
  sides: ['left', 'right'],
  form: 'piece',
  hasDiscs: true,
};
/** No slip, so that the truth of every place is known. */
const TRUTH: RollTruth = {
  ...{ shiftAcrossMm: 0.1, shiftAlongMm: -0.2, feedMmPerMetre: 0.3, walkMmPerMetre: 0, bow: 0, turnRad: 0 },
  ...{ slipMm: 0, rewindMm: 0, readingMm: 0.04, scatterMm: 0 },
};

function bandOf(seed: number, endMm: number): readonly BandPlace[] {
  const figures = stripFigures(STRIP);
  const values = standInReadings(figures, TRUTH, translation(0, 0), seededRng(seed));
  const drift = rollDrift(
    figures.map(({ axis, middle }, i) => ({ axis, atMm: middle.y, asideMm: middle.x, valueMm: values[i] ?? NaN })),
  );
  if (!drift.ok) throw new Error(drift.error.kind);
  return driftBand(drift.value.along, endMm);
}

describe('the band of a chart', () => {
  it('goes on from what was read to what is foretold without a jump, and widens', () => {
    const band = bandOf(1, 15_000);
    const lastRead = band.findIndex((p) => p.atMm > 9378.5) - 1;
    const widths = band.map((p) => p.highMm - p.lowMm);
    expect(band[lastRead]?.atMm).toBeCloseTo(9378, 6);
    expect(Math.abs((band[lastRead + 1]?.meanMm ?? 0) - (band[lastRead]?.meanMm ?? 9))).toBeLessThan(0.06);
    expect(Math.abs((widths[lastRead + 1] ?? 0) / (widths[lastRead] ?? 1) - 1)).toBeLessThan(0.35);
    for (let i = lastRead + 1; i < widths.length; i++) expect(widths[i]).toBeGreaterThan(widths[i - 1] ?? 0);
  });

  it('holds the truth nearly everywhere, within the strip and beyond', () => {
    const places = Array.from({ length: 20 }, (_, seed) => bandOf(seed + 1, 12_000)).flat();
    const held = places.filter(({ atMm, lowMm, highMm }) => {
      const truth = TRUTH.shiftAlongMm + (TRUTH.feedMmPerMetre * atMm) / 1000;
      return lowMm <= truth && truth <= highMm;
    });
    expect(held.length / places.length).toBeGreaterThan(0.9);
  });

  it('ends with the readings where nothing is asked beyond them', () => {
    expect(bandOf(2, 0).at(-1)?.atMm).toBeCloseTo(9378, 6);
  });
});
