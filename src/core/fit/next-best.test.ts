import fc from 'fast-check';
import { cornersOf } from '../geometry/affine';
import type { Observation } from '../reading/observation';
import { AXES } from '../target/wedge';
import { fitErrorMap } from './fit-error-map';
import { loadCovariance } from './load-noise';
import { nextBest, vagueCovariance } from './next-best';
import { covarianceAt, largestSd } from './point-covariance';

const corners = cornersOf(180, 260);
const PLACES = [-75, 0, 75].flatMap((x) => [-115, 0, 115].map((y) => ({ x, y })));
const u = 0.05;

const observation = (axis: Observation['axis'], at: Observation['at'], i: number): Observation => ({
  id: `${axis} ${i}`,
  axis,
  at,
  valueMm: 0,
  standardUncertaintyMm: u,
  loadKey: 'load 1',
});
const some = (isRead: (axis: string, i: number) => boolean): Observation[] =>
  AXES.flatMap((axis) => PLACES.flatMap((at, i) => (isRead(axis, i) ? [observation(axis, at, i)] : [])));

function fitted(observations: readonly Observation[]) {
  const options = { corners, loadCovariance: loadCovariance(corners, 0.03, 'affine') };
  const fit = fitErrorMap(observations, options);
  if (!fit.ok) throw new Error(fit.error.kind);
  return fit.value;
}
const worstSd = (observations: readonly Observation[]): number =>
  Math.max(...corners.map((p) => largestSd(covarianceAt(fitted(observations).covariance, p))));
/** Both components of one spot. */
const spotAt = (i: number) => ({
  i,
  readings: AXES.map((axis) => ({ axis, at: PLACES[i] ?? { x: 0, y: 0 }, varianceMm2: u * u })),
});

describe('the next best spot', () => {
  it('is the one that a fit with each of them in turn finds best (property)', () => {
    const most = fc.uniqueArray(fc.integer({ min: 0, max: 8 }), { minLength: 5, maxLength: 8 });
    fc.assert(
      fc.property(most, (chosen) => {
        const read = some((_axis, i) => chosen.includes(i));
        const open = PLACES.flatMap((_, i) => (chosen.includes(i) ? [] : [spotAt(i)]));
        const fit = fitted(read);
        fc.pre(fit.model === 'affine');
        const found = nextBest(fit, open, corners);
        if (!found) throw new Error('something is left to be read');
        const tried = open.map(({ i }) => worstSd(some((_axis, k) => k === i || chosen.includes(k))));
        expect(found.beforeMm).toBeCloseTo(worstSd(read), 9);
        expect(found.afterMm).toBeCloseTo(Math.min(...tried), 9);
        expect(found.afterMm).toBeLessThan(found.beforeMm);
      }),
      { numRuns: 40 },
    );
  });
  it('while two spots carry a shift alone, the next is a corner that with them spans the sheet', () => {
    const read = some((_axis, i) => i === 0 || i === 3);
    expect(fitted(read).model).not.toBe('affine');
    const known = read.map(({ axis, at }) => ({ axis, at, varianceMm2: u * u }));
    const vague = vagueCovariance(known);
    const open = PLACES.flatMap((_, i) => (i === 0 || i === 3 ? [] : [spotAt(i)]));
    const found = nextBest({ covariance: vague, readingCovariance: vague }, open, corners);
    expect([2, 5, 8]).toContain(found?.candidate.i);
    expect(found?.afterMm).toBeLessThan(0.7 * (found?.beforeMm ?? 0));
  });
  it('a guess as vague as that leaves what many readings tell as good as alone', () => {
    const read = some(() => true);
    const vague = vagueCovariance(read.map(({ axis, at }) => ({ axis, at, varianceMm2: u * u })));
    const own = fitted(read).readingCovariance;
    for (let i = 0; i < 6; i++) expect(vague[7 * i]! / own[7 * i]!).toBeCloseTo(1, 2);
  });
  it('of a sheet whose one corner was not read, it is that corner and not the middle', () => {
    const read = some((_axis, i) => i !== 8 && i !== 4);
    expect(nextBest(fitted(read), [spotAt(4), spotAt(8)], corners)?.candidate.i).toBe(8);
  });
  it('of nothing there is none', () => {
    expect(nextBest(fitted(some(() => true)), [], corners)).toBeNull();
  });
});
