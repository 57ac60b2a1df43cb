import { isoA } from '../units/sheet-size';
import { loadModelOf, markPlaces, markPowers, markProblems, markSpaceOf, type MarkScheme } from './marks';
import { MARK_KINDS, MARK_USES } from './words';

const scheme: MarkScheme = { kind: 'four_corners', insetMm: 15.9, sizeMm: 14, keepOutMm: 5, edgeMinMm: 10 };

it.each([
  ['corner_figures', 3],
  ['four_corners', 4],
  ['with_intermediates', 6],
  ['frame', 4],
  ['by_hand', 2],
  ['none', 0],
] as const)('%s: %d marks, all on the page, inset to their outer edge', (kind, count) => {
  const page = isoA(4);
  const marks = markPlaces({ ...scheme, kind }, page);
  expect(marks).toHaveLength(count);
  for (const p of marks) {
    expect(Math.abs(p.x)).toBeCloseTo(105 - 15.9 - 7, 9);
    expect(Math.abs(p.y)).toBeLessThanOrEqual(148.5 - 15.9 - 7 + 1e-9);
  }
  expect(new Set(marks.map((p) => `${p.x} ${p.y}`)).size).toBe(count);
});

it('every use of every kind has a load model, and never one that its marks cannot carry', () => {
  for (const use of MARK_USES) {
    expect(loadModelOf(use, 1)).toBe('shift');
    expect(['shift', 'rigid', 'similarity']).toContain(loadModelOf(use, 2));
  }
  expect(loadModelOf('unknown', 4)).toBe('affine');
});

it('what marks put right and what remains is everything, once', () => {
  for (const use of MARK_USES) {
    const { putsRight, remains } = markPowers(use);
    expect([...putsRight, ...remains]).toHaveLength(5);
  }
  expect(markPowers('shift_rotation').remains).toEqual(['scale across', 'scale along', 'out of square']);
});

it('marks cut off, too near the edge, or told differently are named', () => {
  const kinds = (s: Partial<MarkScheme>, machine: Parameters<typeof markProblems>[2] = null) =>
    markProblems({ ...scheme, ...s }, 6, machine).map((p) => p.kind);
  expect(kinds({})).toEqual([]);
  expect(kinds({ insetMm: 8 })).toEqual(['too-near-edge']);
  expect(kinds({ insetMm: 4 })).toEqual(['clipped', 'too-near-edge']);
  expect(kinds({}, { kind: 'frame', insetMm: 15.9 })).toEqual(['kinds-differ']);
  expect(kinds({}, { kind: 'four_corners', insetMm: 10 })).toEqual(['inset-differs']);
  expect(kinds({ kind: 'none', insetMm: 0 })).toEqual([]);
});

it('no marks take no room but the edge', () => {
  expect(markSpaceOf({ kind: 'none', insetMm: 0, sizeMm: 14 })).toEqual({ insetMm: 5, sizeMm: 0 });
  for (const kind of MARK_KINDS) expect(markSpaceOf({ ...scheme, kind }).insetMm).toBeGreaterThan(4);
});
