import { decideRoute, type ProgramAnswers } from './decide-route';
import { FAMILIES } from './words';

const vector: ProgramAnswers = {
  opens: ['svg', 'png'],
  marksPlacedBy: 'program',
  knowsCutBy: 'colour',
  canCutAgain: true,
};

it.each([
  ['a program that opens vectors and knows lines by colour', vector, 'F1', 'A', 'wedge', 2],
  ['the same, refusing a second cut', { ...vector, canCutAgain: false }, 'F1', 'A', 'wedge', 1],
  ['pictures only', { ...vector, opens: ['png'], knowsCutBy: 'tracing' }, 'F1', 'B', 'lift-off', 1],
  ['vectors, but cuts only what it traced', { ...vector, knowsCutBy: 'tracing' }, 'F1', 'B', 'lift-off', 1],
  ['cuts the picture\u2019s edge', { ...vector, opens: ['png'], knowsCutBy: 'picture_edge' }, 'F1', 'B', 'lift-off', 1],
  ['a print queue with a spot ink', { ...vector, opens: ['pdf'], knowsCutBy: 'spot_ink' }, 'F3', 'C', 'wedge', 2],
  ['the same in one pass', { ...vector, opens: ['pdf'], knowsCutBy: 'spot_ink' }, 'F2', 'C', 'wedge', 1],
  ['seen through the film', { ...vector, knowsCutBy: 'layer' }, 'F5', 'A', 'lift-off', 1],
  ['no program', null, 'F8', 'D', 'wedge', 2],
  ['a camera over a mat', { ...vector, opens: ['png'], marksPlacedBy: 'mat' }, 'F7', 'E', 'lift-off', 1],
] as const)('%s', (_, program, family, ...wanted) => {
  const { route, style, sets } = decideRoute(program, family);
  expect([route, style, sets]).toEqual(wanted);
});

it('every family has a route with and without a program', () => {
  for (const family of FAMILIES)
    for (const program of [vector, null]) expect(decideRoute(program, family).sets).toBeGreaterThan(0);
});
