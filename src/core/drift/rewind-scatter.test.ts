import { seededRng, standardNormal } from '../math/random';
import { rewindScatter } from './rewind-scatter';

describe('what a rewind does to the origin', () => {
  it('by hand: 0.1, 0.2, 0.3, 0.4 mm', () => {
    const told = rewindScatter([0.1, 0.2, 0.3, 0.4]);
    if (!told.ok) throw new Error(told.error.kind);
    expect(told.value.meanMm).toBeCloseTo(0.25, 12);
    // Root of 0.05 / 3; chi-square of three degrees at 5 % is 0.352, Student's t at 97.5 % 3.182: usual tables.
    expect(told.value.sdMm).toBeCloseTo(0.1291, 4);
    expect(told.value.sdUpperMm).toBeCloseTo(0.1291 * Math.sqrt(3 / 0.3518), 3);
    expect(told.value.nextSdMm).toBeCloseTo((0.1291 * Math.sqrt(1.25) * 3.1824) / 1.96, 3);
    expect(rewindScatter([0.1, 0.2, 0.3])).toMatchObject({ ok: false, error: { needed: 4 } });
  });

  it('of many shops that measured five rewinds, 95 % find the sixth within what was foretold', () => {
    const rng = seededRng(11);
    const shops = 4000;
    let held = 0;
    for (let shop = 0; shop < shops; shop++) {
      const shifts = Array.from({ length: 6 }, () => 0.3 + 0.08 * standardNormal(rng));
      const told = rewindScatter(shifts.slice(0, 5));
      if (!told.ok) throw new Error(told.error.kind);
      if (Math.abs((shifts[5] ?? 9) - told.value.meanMm) < 1.959964 * told.value.nextSdMm) held++;
    }
    // Three standard deviations of so many shops.
    expect(Math.abs(held / shops - 0.95)).toBeLessThan(3 * Math.sqrt((0.95 * 0.05) / shops));
  });
});
