import fc from 'fast-check';
import { TURNS } from '@/core/geometry/load';
import { nearestWedgeReading } from '@/core/target/reading-scale';
import { figureTurn, keyStep, keysFor, readingFromTouch, tipOnScreen } from './wedge-view';

const KEYS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];
const ON_SCREEN: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

describe.each(['across', 'along'] as const)('a wedge that reads %s', (axis) => {
  it.each(TURNS)('turned %s: the cut goes the way the key points, and only two keys move it', (turnDeg) => {
    const turn = figureTurn(axis, turnDeg);
    const moving = KEYS.filter((k) => keyStep(k, turn) !== 0);
    expect(moving).toHaveLength(2);
    for (const key of moving) {
      const step = keyStep(key, turn);
      const [x, y] = ON_SCREEN[key]!;
      expect(step * turn.vx).toBeCloseTo(x, 12);
      expect(step * turn.vy).toBeCloseTo(y, 12);
    }
    // a turned picture is not a mirrored one: u x v keeps its sense (y down: clockwise)
    expect(turn.ux * turn.vy - turn.uy * turn.vx).toBeCloseTo(-1, 12);
    expect(keysFor(turn)).toHaveLength(2);
  });
  it('touching where the tips meet gives the reading back (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20, max: 20 }), fc.constantFrom(...TURNS), (steps, turnDeg) => {
        const turn = figureTurn(axis, turnDeg);
        const reading = steps / 20;
        expect(readingFromTouch(tipOnScreen(reading, turn, 16), turn, { halfLengthMm: 16 })).toBeCloseTo(reading, 9);
      }),
    );
  });
});

it('stays within the figure and on the step', () => {
  expect(nearestWedgeReading(3)).toBe(1);
  expect(nearestWedgeReading(-0.9876)).toBe(-1);
  expect(nearestWedgeReading(0.234)).toBe(0.25);
});
