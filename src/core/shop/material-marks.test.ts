import { materialMarkAdvice } from './material-marks';

// Common practice, no published source: clear, black, dark and foil stock need a filled patch or another level of the eye.
it.each([
  [{ colour: 'white', transparency: 'opaque', finish: 'matt' }, 'will show', 0],
  [{ colour: 'white', transparency: 'opaque', finish: 'gloss white' }, 'may not show', 2],
  [{ colour: 'white', transparency: 'opaque', finish: 'matt, laminated' }, 'will show', 0],
  [{ colour: 'dark', transparency: 'opaque', finish: 'matt' }, 'will not show', 2],
  [{ colour: 'metallic', transparency: 'opaque', finish: 'foil' }, 'will not show', 3],
  [{ colour: 'white', transparency: 'clear', finish: 'gloss' }, 'will not show', 4],
  [{ colour: 'light', transparency: 'translucent', finish: 'matt' }, 'may not show', 1],
] as const)('%j: %s', (ground, verdict, todo) => {
  const advice = materialMarkAdvice(ground);
  expect([advice.verdict, advice.todo.length]).toEqual([verdict, todo]);
});
