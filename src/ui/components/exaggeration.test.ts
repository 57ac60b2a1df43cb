import { exaggerationFor } from './exaggeration';

it.each([
  [0, 1],
  [0.5, 10],
  [0.09, 50],
  [2, 2],
  [4.4, 2],
  [4.9, 1],
  [500, 1],
])('a move of %s mm on a page of 297 mm is drawn %s times too large', (moveMm, wanted) => {
  expect(exaggerationFor(moveMm, 297)).toBe(wanted);
});
