import { apply, identity, point, then } from './affine';
import { sheetToMachine } from './load';

it('a point or map of the wrong frame does not compile', () => {
  const load = sheetToMachine({ turnDeg: 0, face: 'ink-up' });
  // @ts-expect-error wrong frame: a machine point is not a sheet point
  expect(apply(load, point<'machine'>(1, 2))).toBeDefined();
  // @ts-expect-error wrong order: machine comes out of the first map, sheet goes into the second
  expect(then(load, load)).toBeDefined();
  expect(then(load, identity<'machine'>())).toEqual(load);
});
