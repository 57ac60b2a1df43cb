import { rimDisplacement } from '@/core/reading/observation';
import { TURNS } from '@/core/geometry/load';
import { clampRim, onSheet, rimKey, rimsSeen, type DiscView } from './rim-view';

const views: DiscView[] = TURNS.flatMap((turnDeg) =>
  [false, true].map((isSeenThrough) => ({ turnDeg, isSeenThrough })),
);

it.each(views)('turned $turnDeg, through the film $isSeenThrough: rims told give the displacement back', (view) => {
  const displacement = { x: 0.45, y: -0.3 };
  const rims = rimsSeen(view, displacement);
  const seen = { x: rimDisplacement(rims.left, rims.right), y: rimDisplacement(rims.near, rims.far) };
  const back = onSheet(view, seen);
  expect(back.x).toBeCloseTo(displacement.x, 12);
  expect(back.y).toBeCloseTo(displacement.y, 12);
});

it.each(views)('turned $turnDeg, through the film $isSeenThrough: the right arrow widens the right rim', (view) => {
  const moved = rimKey(view, 'ArrowRight', 0.05)!;
  expect(rimsSeen(view, moved).right).toBeCloseTo(2.05, 12);
  expect(rimsSeen(view, moved).left).toBeCloseTo(1.95, 12);
  expect(rimsSeen(view, rimKey(view, 'ArrowUp', 0.05)!).far).toBeCloseTo(2.05, 12);
});

it('other keys do nothing; values stay on the step and within the clear rim', () => {
  expect(rimKey(views[0]!, 'Enter', 1)).toBeNull();
  expect(clampRim(0.123)).toBe(0.1);
  expect(clampRim(-9)).toBe(-1.9);
});
