import { apply, cornersOf, identity, type Affine, type Point } from '../geometry/affine';
import { fromParameters, NO_ERROR, toParameters } from '../geometry/error-parameters';
import { seededRng, standardNormal } from '../math/random';
import { fitMeasured } from './rule-fit';
import {
  changeOn,
  DISTANCE_IDS,
  endsOf,
  MARGIN_IDS,
  measuredOn,
  SHEET_LENGTHS,
  type SheetLengthId,
} from './sheet-lengths';

const frame = { widthMm: 176, lengthMm: 236 };
const page = { widthMm: 210, lengthMm: 297 };
const corners = cornersOf(frame.widthMm, frame.lengthMm);

describe('lengths of a printed frame', () => {
  it('are four margins and six distances', () => {
    expect([...MARGIN_IDS, ...DISTANCE_IDS].sort()).toEqual(SHEET_LENGTHS.map((l) => l.id).sort());
  });
  it('off-centre on a custom page, by hand: 3 mm to the right and 2 mm low', () => {
    const lengths = { 'left-top': 20, 'left-bottom': 20, 'bottom-left': 28.5, 'bottom-right': 28.5 };
    const fit = fitMeasured(measuredOn(lengths, { frame, page }, 0.3), corners);
    if (!fit.ok) throw new Error(fit.error.kind);
    expect([fit.value.map.tx, fit.value.map.ty]).toEqual([expect.closeTo(3, 9), expect.closeTo(-2, 9)]);
    expect(Math.atan2(fit.value.map.yx, fit.value.map.xx)).toBeCloseTo(0, 9);
  });
  it('of a print turned and stretched come back as what was done', () => {
    const done = { ...NO_ERROR, offsetAcrossMm: 1, rotationRad: 0.003, scaleAcross: 0.002, scaleAlong: -0.001 };
    const map = fromParameters(done);
    const [lowerLeft, lowerRight, , upperLeft] = corners.map((p) => apply(map, p)) as [Point, Point, Point, Point];
    const lengths: Partial<Record<SheetLengthId, number>> = {
      'left-top': upperLeft.x + 105,
      'left-bottom': lowerLeft.x + 105,
      'bottom-left': lowerLeft.y + 148.5,
      'bottom-right': lowerRight.y + 148.5,
    };
    for (const id of DISTANCE_IDS) {
      const [a, b] = endsOf(id, frame)!.map((p) => apply(map, p)) as [Point, Point];
      lengths[id] = Math.hypot(a.x - b.x, a.y - b.y);
    }
    const fit = fitMeasured(measuredOn(lengths, { frame, page }, 0.3), corners);
    const told = fit.ok ? toParameters(fit.value.map) : fit;
    if (!told.ok) throw new Error('no fit');
    for (const [name, value] of Object.entries(done) as [keyof typeof done, number][])
      expect(told.value[name]).toBeCloseTo(value, 8);
  });
  it('before and after lamination: 0.2 % longer, nothing else, by hand', () => {
    const before = { 'width-top': 176.3, 'length-left': 236.1, 'diagonal-up': 294.5, 'diagonal-down': 294.5 };
    const after = {
      'width-top': 176.3,
      'length-left': 236.1 * 1.002,
      'diagonal-up': Math.hypot(176.1, 236.0 * 1.002),
      'diagonal-down': Math.hypot(176.1, 236.0 * 1.002),
    };
    const fit = fitMeasured(changeOn(before, after, frame, 0.05), corners);
    const told = fit.ok ? toParameters(fit.value.map) : fit;
    if (!told.ok) throw new Error('no fit');
    expect(told.value.scaleAlong).toBeCloseTo(0.002, 3);
    expect(Math.abs(told.value.scaleAcross)).toBeLessThan(3e-4);
    expect(Math.abs(told.value.squareness)).toBeLessThan(1e-9);
    expect(fit.ok && fit.value.untold).toEqual(['shift', 'rotation']);
  });
});

it('two-point distances on print and cut: 95 % intervals of scales and squareness cover, 2,000 trials', () => {
  const rng = seededRng(43);
  const sdMm = 0.05;
  const truth = fromParameters({ ...NO_ERROR, scaleAcross: 0.003, scaleAlong: -0.002, squareness: 0.002 });
  const wanted = [truth.xx - 1, truth.xy + truth.yx, truth.yy - 1];
  const hits = [0, 0, 0];
  for (let trial = 0; trial < 2000; trial++) {
    const lengths = (map: Affine): Partial<Record<SheetLengthId, number>> =>
      Object.fromEntries(
        DISTANCE_IDS.map((id) => {
          const [a, b] = endsOf(id, frame)!.map((p) => apply(map, p)) as [Point, Point];
          return [id, Math.hypot(b.x - a.x, b.y - a.y) + sdMm * standardNormal(rng)];
        }),
      );
    const fit = fitMeasured(changeOn(lengths(identity()), lengths(truth), frame, sdMm), corners);
    if (!fit.ok) throw new Error(fit.error.kind);
    const { map, covariance: c } = fit.value;
    const shear = Math.sqrt(c[21]! + c[28]! + 2 * c[22]!);
    const got = [map.xx - 1, map.xy + map.yx, map.yy - 1];
    const doubts = [Math.sqrt(c[14]!), shear, Math.sqrt(c[35]!)];
    got.forEach((b, i) => {
      if (Math.abs(b - wanted[i]!) <= 1.959964 * doubts[i]!) hits[i]!++;
    });
  }
  for (const h of hits) {
    expect(h / 2000).toBeGreaterThanOrEqual(0.93);
    expect(h / 2000).toBeLessThanOrEqual(0.97);
  }
});
