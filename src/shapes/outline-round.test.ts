import fc from 'fast-check';
import { clustersOf } from './clusters';
import { areaOf, offsetOf, unionOf, type Ring } from './outline';
import { LEAST_HOLE_MM2, linesRound } from './outline-round';
import { isSimple } from './simple-ring';
import { unionInParts } from './union-in-parts';

const disc = (x: number, y: number, r: number, n = 60): Ring =>
  Array.from({ length: n }, (_, i) => ({
    x: x + r * Math.cos((2 * Math.PI * i) / n),
    y: y + r * Math.sin((2 * Math.PI * i) / n),
  }));
const at = fc.double({ min: 0, max: 80, noNaN: true });
const anyDiscs = fc.array(fc.tuple(at, at, fc.double({ min: 1, max: 8, noNaN: true })), {
  minLength: 1,
  maxLength: 40,
});

describe('boxes in clusters', () => {
  it('two that do not touch are never one, chains are (property: as pairwise joining finds it)', () => {
    const anyBoxes = fc.array(
      fc.record({
        left: at,
        bottom: at,
        width: fc.double({ min: 0.1, max: 15, noNaN: true }),
        height: fc.double({ min: 0.1, max: 15, noNaN: true }),
      }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(anyBoxes, (boxes) => {
        const group = boxes.map((_, i) => i);
        const meets = (i: number, j: number): boolean => {
          const [a, b] = [boxes[i]!, boxes[j]!];
          return (
            a.left <= b.left + b.width &&
            b.left <= a.left + a.width &&
            a.bottom <= b.bottom + b.height &&
            b.bottom <= a.bottom + a.height
          );
        };
        for (let pass = 0; pass < boxes.length; pass++)
          for (const i of group.keys())
            for (const j of group.keys()) if (meets(i, j)) group[i] = group[j] = Math.min(group[i]!, group[j]!);
        const wanted = [...new Set(group)].map((g) => group.flatMap((own, i) => (own === g ? [i] : [])));
        const sorted = (groups: readonly (readonly number[])[]) =>
          groups.map((g) => [...g].sort((a, b) => a - b).join()).sort();
        expect(sorted(clustersOf(boxes))).toEqual(sorted(wanted));
      }),
      { numRuns: 200 },
    );
  });
});

describe('a closed line that crosses itself nowhere', () => {
  it('is told from one that does, and from one that only touches itself', () => {
    const at = (...points: readonly (readonly [number, number])[]): Ring => points.map(([x, y]) => ({ x, y }));
    expect(isSimple(at([0, 0], [10, 0], [10, 10], [0, 10]))).toBe(true);
    expect(isSimple(at([0, 0], [10, 10], [10, 0], [0, 10]))).toBe(false);
    expect(isSimple(at([0, 0], [10, 0], [5, 5], [10, 10], [0, 10], [5, 5]))).toBe(false);
    expect(isSimple(disc(0, 0, 5))).toBe(true);
    expect(isSimple(disc(0, 0, 5, 500))).toBe(false);
  });
  it('needs no cleaning: the same line whichever way round it was drawn', () => {
    const line = (ring: Ring) => linesRound([[ring]], { offsetMm: 1, keepsHoles: true }).flatMap((r) => r.line);
    const ring = disc(3, 4, 5);
    expect(areaOf(line([...ring].reverse()))).toBeCloseTo(areaOf(line(ring)), 3);
    expect(areaOf(line(ring))).toBeCloseTo(areaOf(offsetOf(unionOf([ring]), 1)), 2);
  });
});

describe('a line round many shapes, cluster by cluster', () => {
  it('is the line round all of them in one (property)', () => {
    fc.assert(
      fc.property(anyDiscs, fc.double({ min: -1, max: 4, noNaN: true }), (discs, offsetMm) => {
        const shapes = discs.map(([x, y, r]) => [disc(x, y, r)]);
        const round = linesRound(shapes, { offsetMm, keepsHoles: true });
        const whole = unionOf(offsetOf(unionOf(shapes.flat()), offsetMm));
        const got = round.flatMap((r) => r.line);
        // Gaps under a square mm between discs are filled before the offset, not after it.
        expect(Math.abs(areaOf(got) - areaOf(whole))).toBeLessThan(0.5 + 1e-3 * areaOf(whole));
      }),
      { numRuns: 100 },
    );
  });
  it('holes under a square mm are gaps of the art and are closed (common practice, no published source)', () => {
    expect(LEAST_HOLE_MM2).toBe(1);
    const holed = (r: number) => [disc(0, 0, 10), [...disc(0, 0, r)].reverse()];
    const rings = (r: number) =>
      linesRound([holed(r)], { offsetMm: 0, keepsHoles: true }).flatMap((l) => l.line).length;
    expect([rings(0.5), rings(0.7)]).toEqual([1, 2]);
  });
  it('tells its progress', () => {
    const told: number[] = [];
    const shapes = Array.from({ length: 64 }, (_, i) => [disc(i * 20, 0, 5)]);
    const round = linesRound(shapes, { offsetMm: 1, keepsHoles: true, onProgress: (share) => told.push(share) });
    expect(round).toHaveLength(64);
    // Drawing the outlines, then joining those that met.
    expect(told.slice(0, 4).map((t) => Number(t.toFixed(3)))).toEqual([0, 0.175, 0.35, 0.525]);
    expect(told.slice(4).map((t) => Number(t.toFixed(3)))).toEqual([0.7, 0.775, 0.85, 0.925]);
  });
});

describe('a union in parts', () => {
  it('covers what one union of all covers, holes within islands within holes too (property)', () => {
    const anyTargets = fc.array(fc.tuple(at, at, fc.double({ min: 2, max: 40, noNaN: true })), {
      minLength: 0,
      maxLength: 24,
    });
    fc.assert(
      fc.property(anyTargets, (targets) => {
        const outlines = targets.map(([x, y, r]) => [
          disc(x, y, r),
          [...disc(x, y, 0.8 * r)].reverse(),
          disc(x, y, 0.5 * r),
          [...disc(x, y, 0.2 * r)].reverse(),
        ]);
        const parts = unionInParts(outlines);
        const whole = unionOf(outlines.flat());
        expect(Math.abs(areaOf(parts) - areaOf(whole))).toBeLessThan(1);
        // Clean as it is: cleaning it again changes nothing.
        expect(Math.abs(areaOf(unionOf(parts)) - areaOf(parts))).toBeLessThan(1);
      }),
      { numRuns: 150 },
    );
  });
});
