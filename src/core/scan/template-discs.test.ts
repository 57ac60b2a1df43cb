import { seededRng, standardNormal } from '../math/random';
import { meanDisc, readDiscs, type DiscShift } from '../reading/disc-check';
import type { DiscFate, SimulatedDisc } from '../simulate/disc-shade';
import { renderScan, type ScanOptions } from '../simulate/scan-image';
import { templateDiscOf, type TemplateDiscNo } from '../target/template-discs';
import type { GrayImage } from './gray';
import { discShifts, measureTemplateDiscs, templateFigures } from './measure-template-discs';
import { rmsOf, sheetFigures } from './scan-trials.testing';

const PLACES = [
  { x: -90, y: 130 },
  { x: 88, y: -128 },
];
const SHIFT = { x: 0.31, y: -0.22 };

/** A job's sheet with its two discs at opposite corners, cut off by the shift and turned a little about the middle. */
function sheet(seed: number, options: Partial<ScanOptions>, turnRad = 0, fate: DiscFate = 'whole'): GrayImage {
  const discs = templateFigures.map((figure, i): SimulatedDisc => {
    const centre = PLACES[i]!;
    const cutOff = { x: SHIFT.x - turnRad * centre.y, y: SHIFT.y + turnRad * centre.x };
    return { ...figure, centre, cutOff, fate };
  });
  return renderScan(discs, { dotsPerInch: 300, widthMm: 210, lengthMm: 297, ...options }, seededRng(seed));
}

function measured(image: GrayImage) {
  const work = measureTemplateDiscs(image, templateFigures);
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

function shifts(image: GrayImage): readonly DiscShift[] {
  const told = measured(image);
  if (!told.ok) throw new Error(told.error.kind);
  return discShifts(told.value);
}

const byNo = (all: readonly DiscShift[], discNo: TemplateDiscNo): DiscShift => {
  const found = meanDisc(
    discNo,
    all.filter((s) => s.discNo === discNo),
  );
  if (!found) throw new Error(`disc ${discNo} was not seen`);
  return found;
};

describe('two small discs of a job template', () => {
  it.each([
    ['a scan', 300, undefined, 0.004],
    ['a coarse scan', 200, undefined, 0.005],
    ['a photograph, tilted by 10 degrees', 240, 0.17, 0.02],
  ] as const)('%s', (_name, dotsPerInch, tiltRad, wantedMm) => {
    const errors = [1, 2, 3].flatMap((seed) => {
      const camera = tiltRad === undefined ? {} : { camera: { tiltRad, towardsRad: seed, radial: 0.02 } };
      const found = shifts(sheet(seed, { dotsPerInch, turnRad: tiltRad ? 0.03 * seed : 0.4 * seed, ...camera }));
      expect(found.map((s) => s.discNo).toSorted()).toEqual([1, 2]);
      const { shift, apartMm } = readDiscs(byNo(found, 1), byNo(found, 2));
      expect(apartMm).toBeLessThan(2 * wantedMm);
      return [shift.x - SHIFT.x, shift.y - SHIFT.y];
    });
    expect(rmsOf(errors)).toBeLessThan(wantedMm);
  });

  it('a cut turned about the middle falls out of their mean, and is seen in their difference', () => {
    const found = shifts(sheet(4, {}, 0.001));
    const { shift, apartMm } = readDiscs(byNo(found, 1), byNo(found, 2));
    expect(Math.hypot(shift.x - SHIFT.x, shift.y - SHIFT.y)).toBeLessThan(0.005);
    expect(apartMm).toBeCloseTo(0.001 * Math.hypot(178, 258), 2);
  });

  it('discs that are not weeded tell no shift, and other discs are passed over', () => {
    expect(shifts(sheet(5, {}, 0, 'not-weeded'))).toEqual([]);
    const others = sheetFigures('full').slice(0, 4);
    const rng = seededRng(6);
    const discs = others.map((f): SimulatedDisc => ({ ...f, cutOff: { x: standardNormal(rng), y: 0 }, fate: 'whole' }));
    const image = renderScan(discs, { dotsPerInch: 200, widthMm: 210, lengthMm: 297 }, rng);
    expect(measured(image)).toMatchObject({ error: { kind: 'other-pieces' } });
    const blank = { width: 600, height: 800, data: new Uint8Array(480_000).fill(230) };
    expect(measured(blank)).toMatchObject({ error: { kind: 'no-discs' } });
    expect(measured(sheet(7, { dotsPerInch: 110 }))).toMatchObject({ ok: false });
  });

  it('no check sheet shows their words', () => {
    for (const kind of ['quick', 'full'] as const)
      for (const style of ['wedge', 'comb', 'lift-off'] as const)
        expect(sheetFigures(kind, style).filter((f) => templateDiscOf(f.codeNo) !== null)).toEqual([]);
  });
});
