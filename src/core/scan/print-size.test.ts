import fc from 'fast-check';
import type { Point } from '../geometry/affine';
import { seededRng, standardNormal } from '../math/random';
import { farthestApart, printScale, printShape, SCANNER_STRETCH_SD } from './print-size';
import type { ScanFigure } from './measured-figure';
import type { ScanResult } from './scan-result';
import { mustMeasure, scanned, sheetFigures } from './scan-trials.testing';

const FIGURES = sheetFigures('full');

interface Truth {
  readonly scaleAcross: number;
  readonly scaleAlong: number;
  readonly skewRad: number;
}

/** Where a print whose scales and skew are not the drawing's has a place. */
const printed = ({ scaleAcross, scaleAlong, skewRad }: Truth, { x, y }: Point): Point => ({
  x: scaleAcross * x + skewRad * y,
  y: scaleAlong * y,
});

/** A scan by formulas: the print turned on a glass whose picture has a stretch and a skew of its own. */
function scanOf(truth: Truth, turnRad: number, { noiseMm = 0, isMirrored = false, seed = 1 } = {}): ScanResult {
  const rng = seededRng(seed);
  const side = isMirrored ? -1 : 1;
  const perMm = 300 / 25.4;
  const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
  const see = (at: Point): Point => {
    const p = printed(truth, at);
    const [x, y] = [side * p.x + noiseMm * standardNormal(rng), p.y + noiseMm * standardNormal(rng)];
    const glass = { x: cos * x - sin * y, y: sin * x + cos * y };
    return { x: perMm * (1.004 * glass.x + 0.003 * glass.y), y: -perMm * glass.y };
  };
  const discs = FIGURES.map(({ key, centre }: ScanFigure) => ({
    ...({ key, state: 'good', cut: null, displacement: null } as const),
    view: { centre: see(centre), right: { x: perMm, y: 0 }, up: { x: 0, y: -perMm } },
    travel: { x: 0, y: -1 },
    print: { x: 0, y: 0, radiusMm: 4, inlierShare: 1 },
  }));
  const turnDeg = 0;
  return { kind: 'scan', discs, tiltRad: 0, isMirrored, isMixed: false, turnDeg, cutShape: 'hole', pixelsPerMm: perMm };
}

const TRUTH: Truth = { scaleAcross: 0.9985, scaleAlong: 0.9972, skewRad: 0.0008 };

describe('the shape of a print', () => {
  it('two scans a quarter turn apart tell print from scanner, also seen from behind', () => {
    for (const isMirrored of [false, true]) {
      const shape = printShape(
        [scanOf(TRUTH, 0.1, { isMirrored }), scanOf(TRUTH, 0.1 + Math.PI / 2, { isMirrored })],
        FIGURES,
      );
      expect(shape?.stretch.value).toBeCloseTo(0.0013, 5);
      expect(shape?.skewRad.value).toBeCloseTo(0.0008, 5);
      expect(shape?.scannerStretch.value).toBeCloseTo(0.004, 4);
      expect(shape?.scannerSkewRad.value).toBeCloseTo(0.003, 4);
    }
  });

  it('one scan, or two turned by half, leave what scanners usually do in doubt', () => {
    const one = printShape([scanOf(TRUTH, 0)], FIGURES);
    expect(one?.stretch.sd).toBeCloseTo(SCANNER_STRETCH_SD, 4);
    const half = printShape([scanOf(TRUTH, 0), scanOf(TRUTH, Math.PI)], FIGURES);
    expect(half?.stretch.sd).toBeCloseTo(SCANNER_STRETCH_SD, 4);
    expect(printShape([], FIGURES)).toBeNull();
    expect(printShape([{ ...scanOf(TRUTH, 0), kind: 'photo' }], FIGURES)).toBeNull();
  });

  it('at any turn the right angle between two scans is enough; the more it is a quarter, the better', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.3, max: 1.2, noNaN: true }),
        (turn, apart) => {
          const shape = printShape([scanOf(TRUTH, turn), scanOf(TRUTH, turn + apart)], FIGURES);
          expect(shape?.stretch.value).toBeCloseTo(0.0013, 4);
          expect(shape?.skewRad.value).toBeCloseTo(0.0008, 4);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('states what it does not know: error over stated uncertainty about 1 in 200 pairs with scatter', () => {
    const ratios = Array.from({ length: 200 }, (_, seed) => {
      const options = { noiseMm: 0.01, seed };
      const shape = printShape(
        [scanOf(TRUTH, 0, options), scanOf(TRUTH, Math.PI / 2, { ...options, seed: seed + 1000 })],
        FIGURES,
      );
      return shape
        ? [(shape.stretch.value - 0.0013) / shape.stretch.sd, (shape.skewRad.value - 0.0008) / shape.skewRad.sd]
        : [NaN];
    }).flat();
    const rms = Math.sqrt(ratios.reduce((sum, r) => sum + r * r, 0) / ratios.length);
    expect(rms).toBeGreaterThan(0.85);
    expect(rms).toBeLessThan(1.2);
  });

  it('from pictures: 0.13 % found to 0.01 % where the scanner has 1 % and 5 mrad of its own', () => {
    const stretched = FIGURES.map((f) => ({
      ...f,
      centre: printed({ scaleAcross: 1.0013, scaleAlong: 1, skewRad: 0 }, f.centre),
    }));
    const scans = [0.01, 0.01 + Math.PI / 2].map((turnRad) => {
      const { image } = scanned(stretched, 4, {
        dotsPerInch: 200,
        turnRad,
        scannerScaleX: 1.01,
        scannerSkewRad: 0.005,
      });
      return mustMeasure(image, FIGURES);
    });
    const shape = printShape(scans, FIGURES);
    expect(Math.abs((shape?.stretch.value ?? NaN) - 0.0013)).toBeLessThan(1e-4);
    expect(Math.abs((shape?.scannerStretch.value ?? NaN) - 0.01)).toBeLessThan(2e-4);
  }, 60_000);
});

describe('the size of a print from one length on it', () => {
  const shape = printShape([scanOf(TRUTH, 0), scanOf(TRUTH, Math.PI / 2)], FIGURES);
  if (!shape) throw new Error('no shape');

  it('any two discs tell both scales, whichever way they lie', () => {
    fc.assert(
      fc.property(fc.nat({ max: FIGURES.length - 1 }), fc.nat({ max: FIGURES.length - 1 }), (i, k) => {
        const [from, to] = [FIGURES[i]!.centre, FIGURES[k]!.centre];
        fc.pre(Math.hypot(from.x - to.x, from.y - to.y) > 20);
        const [a, b] = [printed(TRUTH, from), printed(TRUTH, to)];
        const lengthMm = Math.hypot(a.x - b.x, a.y - b.y);
        const scale = printScale(shape, { from, to, lengthMm, standardUncertaintyMm: 0.03 });
        if (!scale.ok) throw new Error(scale.error.kind);
        expect(scale.value.across.value).toBeCloseTo(TRUTH.scaleAcross, 5);
        expect(scale.value.along.value).toBeCloseTo(TRUTH.scaleAlong, 5);
        expect(scale.value.across.sd).toBeGreaterThanOrEqual(0.029 / Math.hypot(from.x - to.x, from.y - to.y));
      }),
    );
  });

  it('without a quarter turn only the way that was measured is known', () => {
    const one = printShape([scanOf(TRUTH, 0)], FIGURES);
    const [from, to] = [
      { x: -80, y: 0 },
      { x: 80, y: 0 },
    ];
    const scale = one && printScale(one, { from, to, lengthMm: 160 * 0.9985, standardUncertaintyMm: 0.03 });
    if (!scale?.ok) throw new Error('no scale');
    expect(scale.value.across).toEqual({
      value: expect.closeTo(0.9985, 6) as number,
      sd: expect.closeTo(0.03 / 160, 5) as number,
    });
    expect(scale.value.along.sd).toBeGreaterThan(0.005);
  });

  it('a length in another unit, or between other discs, is not taken', () => {
    const [from, to] = [
      { x: -80, y: 0 },
      { x: 80, y: 0 },
    ];
    expect(printScale(shape, { from, to, lengthMm: 6.3, standardUncertaintyMm: 0.03 })).toEqual({
      ok: false,
      error: { kind: 'too-far-off', nominalMm: 160 },
    });
  });

  it('is best measured between the two farthest discs in a row or column', () => {
    const at = (x: number, y: number) => ({ centre: { x, y } });
    expect(farthestApart([at(0, 0)])).toBeNull();
    expect(farthestApart([at(0, 0), at(50, 3), at(0, 70)])).toEqual([at(0, 0), at(0, 70)]);
    expect(farthestApart([at(0, 0), at(50, 30), at(-20, 70)])).toEqual([at(50, 30), at(-20, 70)]);
  });
});
