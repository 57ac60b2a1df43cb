import { TURNS } from '@/core/geometry/load';
import type { DiscFigure } from '@/core/target/disc';
import type { LiftOffFigure } from '@/core/target/lift-off';
import { clampRound, edgeOf, edgesSeen, onSheet, roundKey, type DiscView } from './round-view';

const centre = { x: 0, y: 0 };
const lifted: LiftOffFigure = { kind: 'lift-off', setNo: 1, spotNo: 1, centre };
const disc: DiscFigure = {
  kind: 'disc',
  setNo: 1,
  spotNo: 1,
  centre,
  radiusMm: 4,
  cut: 'hole',
  holeRadiusMm: 2,
  codeNo: 0,
};
const [rim, wall] = [edgeOf(lifted), edgeOf(disc)];

const views: DiscView[] = TURNS.flatMap((turnDeg) =>
  [false, true].map((isSeenThrough) => ({ turnDeg, isSeenThrough })),
);

describe.each(views)('turned $turnDeg, through the film $isSeenThrough', (view) => {
  it.each([rim, wall])('edges told give the displacement back: $name', (edge) => {
    const displacement = { x: 0.45, y: -0.3 };
    const seen = edgesSeen(view, displacement, edge);
    const back = onSheet(view, {
      x: edge.displacement(seen.left, seen.right),
      y: edge.displacement(seen.near, seen.far),
    });
    expect(back.x).toBeCloseTo(displacement.x, 12);
    expect(back.y).toBeCloseTo(displacement.y, 12);
  });

  it('the right arrow widens the right rim, and thins the right wall', () => {
    const moved = roundKey(view, 'ArrowRight', 0.05)!;
    expect(edgesSeen(view, moved, rim).right).toBeCloseTo(2.05, 12);
    expect(edgesSeen(view, moved, rim).left).toBeCloseTo(1.95, 12);
    expect(edgesSeen(view, moved, wall).right).toBeCloseTo(1.95, 12);
    expect(edgesSeen(view, moved, wall).left).toBeCloseTo(2.05, 12);
    expect(edgesSeen(view, roundKey(view, 'ArrowUp', 0.05)!, rim).far).toBeCloseTo(2.05, 12);
  });
});

it('other keys do nothing; values stay on the step and within the reach', () => {
  expect(roundKey(views[0]!, 'Enter', 1)).toBeNull();
  expect(clampRound(0.123, rim.reachMm)).toBe(0.1);
  expect(clampRound(-9, rim.reachMm)).toBe(-1.9);
  expect(clampRound(9, wall.reachMm)).toBe(1.6);
});
