import { fitErrorMap } from '../fit/fit-error-map';
import type { Observation } from '../reading/observation';
import { seededRng } from '../math/random';
import type { SimulatedDisc } from '../simulate/disc-shade';
import { renderScan } from '../simulate/scan-image';
import { combineScans, SHADOW_SD_MM, type CombinedScans } from './combine-scans';
import { mustMeasure, rmsOf, scanned, sheetFigures } from './scan-trials.testing';

const FIGURES = sheetFigures('quick');
/** Dark enough to shift the middle of a hole by about 20 um. */
const SHADOW = { shadow: 0.55, wobbleMm: 0.006 };

const { discs } = scanned(FIGURES, 11);
const scanAt = (turnRad: number, seed: number) =>
  mustMeasure(
    renderScan(discs, { dotsPerInch: 200, widthMm: 210, lengthMm: 297, turnRad, ...SHADOW }, seededRng(seed)),
    FIGURES,
  );
const upright = scanAt(0, 1);
const turnedByHalf = scanAt(Math.PI, 2);
const turnedByQuarter = scanAt(Math.PI / 2, 3);

const truthOf = (key: string): SimulatedDisc => discs[FIGURES.findIndex((f) => f.key === key)]!;
const mean = (values: readonly number[]): number => values.reduce((total, v) => total + v, 0) / values.length;
const alongErrors = ({ discs: found }: CombinedScans): readonly number[] =>
  found.map((d) => d.alongMm - truthOf(d.key).cutOff.y);
const acrossErrors = ({ discs: found }: CombinedScans): readonly number[] =>
  found.map((d) => d.acrossMm - truthOf(d.key).cutOff.x);

describe('several scans of one sheet', () => {
  it('one alone is off by its lamp\u2019s shadow, along the travel and nowhere else, and says that it may be', () => {
    const one = combineScans([upright]);
    expect(Math.abs(mean(alongErrors(one)))).toBeGreaterThan(0.008);
    expect(Math.abs(mean(acrossErrors(one)))).toBeLessThan(0.003);
    expect(one.shadowSdMm).toBeCloseTo(SHADOW_SD_MM, 6);
    for (const d of one.discs) {
      expect(Math.abs(d.alongSharedMm)).toBeCloseTo(SHADOW_SD_MM, 4);
      expect(Math.abs(d.acrossSharedMm)).toBeLessThan(0.001);
      expect(Math.abs(d.alongMm - truthOf(d.key).cutOff.y)).toBeLessThan(3 * Math.hypot(d.alongSdMm, d.alongSharedMm));
    }
  });

  it('turned by half: the shadow changes sides and falls out', () => {
    const pair = combineScans([upright, turnedByHalf]);
    expect(Math.abs(mean(alongErrors(pair)))).toBeLessThan(0.004);
    expect(pair.shadowSdMm).toBeLessThan(0.003);
    expect(pair.discs.every((d) => Math.abs(d.alongSharedMm) < 0.001)).toBe(true);
  });

  it('turned by a quarter: each component along the sensor, free of shadow and wobble', () => {
    const pair = combineScans([upright, turnedByQuarter]);
    expect(Math.abs(mean(alongErrors(pair)))).toBeLessThan(0.003);
    expect(rmsOf([...alongErrors(pair), ...acrossErrors(pair)])).toBeLessThan(0.0045);
  });

  it('scans that differ by more than their doubt are told, with the disc that differs most, and the doubt grows', () => {
    expect(combineScans([upright]).atOdds).toBeNull();
    const pair = combineScans([upright, turnedByQuarter]);
    expect(pair.atOdds).toBeNull();
    const [first, second, ...others] = turnedByQuarter.discs;
    const shifted = second!.displacement && { ...second!.displacement, acrossMm: second!.displacement.acrossMm + 0.06 };
    const odd = combineScans([
      upright,
      { ...turnedByQuarter, discs: [first!, { ...second!, displacement: shifted }, ...others] },
    ]);
    expect(odd.atOdds?.key).toBe(second!.key);
    expect(odd.atOdds?.factor).toBeGreaterThan(1.5);
    const growth = odd.discs[0]!.acrossSdMm / pair.discs[0]!.acrossSdMm;
    expect(growth).toBeCloseTo(odd.atOdds!.factor, 6);
  });

  it('errors over stated uncertainty lie where they should, pair after pair', () => {
    const pair = combineScans([upright, turnedByQuarter]);
    const ratios = pair.discs.flatMap((d, i) => [
      acrossErrors(pair)[i]! / Math.hypot(d.acrossSdMm, d.acrossSharedMm),
      alongErrors(pair)[i]! / Math.hypot(d.alongSdMm, d.alongSharedMm),
    ]);
    expect(rmsOf(ratios)).toBeGreaterThan(0.5);
    expect(rmsOf(ratios)).toBeLessThan(1.4);
  });
});

describe('what discs share stays in the fit', () => {
  const observations = combineScans([upright]).discs.flatMap((d, i): Observation[] => {
    const at = FIGURES[i]!.centre;
    const own = { at, loadKey: 'one' };
    return [
      {
        ...own,
        id: `${i} x`,
        axis: 'across',
        valueMm: d.acrossMm,
        standardUncertaintyMm: d.acrossSdMm,
        shared: { key: 's', mm: d.acrossSharedMm },
      },
      {
        ...own,
        id: `${i} y`,
        axis: 'along',
        valueMm: d.alongMm,
        standardUncertaintyMm: d.alongSdMm,
        shared: { key: 's', mm: d.alongSharedMm },
      },
    ];
  });
  it('ten discs of a few um do not average away a shadow of fourteen', () => {
    const fit = fitErrorMap(observations);
    const bare = fitErrorMap(observations.map((o) => ({ ...o, shared: { key: 's', mm: 0 } })));
    if (!fit.ok || !bare.ok) throw new Error('no fit');
    const added = (i: number): number => fit.value.covariance[7 * i]! - bare.value.covariance[7 * i]!;
    expect(Math.sqrt(added(1))).toBeCloseTo(SHADOW_SD_MM, 4);
    expect(Math.sqrt(Math.max(0, added(0)))).toBeLessThan(0.001);
    // A shift common to all is neither scale nor turn.
    for (const i of [2, 3, 4, 5]) expect(added(i)).toBeLessThan(1e-12);
    expect(fit.value.beta).toEqual(bare.value.beta);
  });
});
