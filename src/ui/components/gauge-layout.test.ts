import { gaugeLayout } from './gauge-layout';

describe('plumb gauge', () => {
  it('hangs straight when nothing is out, touches the wedge at the tolerance, leaves it beyond', () => {
    expect(gaugeLayout(0, 0.3).leanDeg).toBe(0);
    expect(gaugeLayout(0.3, 0.3).leanDeg).toBe(22);
    expect(gaugeLayout(0.4, 0.3).leanDeg).toBeGreaterThan(22);
    expect(gaugeLayout(9, 0.3).leanDeg).toBe(38);
  });
  it('has no string when nothing is known, and says so', () => {
    expect(gaugeLayout(null, 0.3)).toMatchObject({ bob: null, words: 'nothing measured yet' });
  });
});
