import type { PathCommand } from '@/formats/vector-drawing';
import { coarsePath, exactPath } from './picture-path';

const wavy = (n: number): readonly PathCommand<'page'>[] => [
  ...Array.from({ length: n }, (_, i): PathCommand<'page'> => {
    const turn = (2 * Math.PI * i) / n;
    return { op: i === 0 ? 'M' : 'L', points: [{ x: 40 * Math.cos(turn), y: 40 * Math.sin(turn) }] };
  }),
  { op: 'Z', points: [] },
];
const pointsOf = (d: string): { x: number; y: number }[] =>
  d
    .replace(/[MZ]/g, '')
    .split('L')
    .map((pair) => {
      const [x = NaN, y = NaN] = pair.split(' ').map(Number);
      return { x, y };
    });

describe('path data for a picture', () => {
  it('as it is: every command, a micrometre exact', () => {
    const cubic = [
      { x: 1, y: 2 },
      { x: 3, y: 4 },
      { x: 5.00049, y: 6 },
    ];
    expect(
      exactPath([
        { op: 'M', points: [{ x: 0, y: 0 }] },
        { op: 'C', points: cubic },
        { op: 'Z', points: [] },
      ]),
    ).toBe('M0 0C1 2 3 4 5 6Z');
  });
  it('coarse: far fewer points, none farther from the line than told', () => {
    const points = pointsOf(coarsePath(wavy(2000), 0.3));
    expect(points.length).toBeLessThan(60);
    for (const [i, p] of points.entries()) {
      const q = points[(i + 1) % points.length]!;
      expect(40 - Math.hypot((p.x + q.x) / 2, (p.y + q.y) / 2)).toBeLessThan(0.45);
    }
  });
});
