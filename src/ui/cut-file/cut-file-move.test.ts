import { apply, displacement, identity } from '@/core/geometry/affine';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import type { DrawnGroup, Survey } from '@/workers/cut-file.client';
import { farthestMm, likelyCentre, likelyRole, savedMove, typedMove, wholeBox } from './cut-file-move';
import { correctedName } from './MadeFile';

const group = (over: Partial<DrawnGroup>): DrawnGroup => ({
  by: 'layer',
  name: 'x',
  label: 'x',
  count: 1,
  box: { left: 10, bottom: 20, right: 30, top: 60 },
  ...over,
});
const survey = (over: Partial<Survey>): Survey => ({
  format: 'svg',
  widthMm: 210,
  heightMm: 297,
  groups: [group({})],
  lines: [],
  remarks: [],
  ...over,
});

describe('what a drawing\u2019s groups probably are', () => {
  it.each([
    ['Knife', 'cut'],
    ['CUT_1', 'cut'],
    ['kiss cut', 'cut'],
    ['Reg marks', 'marks'],
    ['Pictures', 'stays'],
  ])('layer %s: %s', (label, role) => {
    expect(likelyRole(group({ label }))).toBe(role);
  });
  it('pure red is probably cut, any other colour art', () => {
    expect(likelyRole(group({ by: 'colour', name: '#ff0000' }))).toBe('cut');
    expect(likelyRole(group({ by: 'colour', name: 'colour 1' }))).toBe('cut');
    expect(likelyRole(group({ by: 'colour', name: '#1d4f7c', label: 'knife' }))).toBe('stays');
  });
});

describe('where and how a file is moved', () => {
  it('about the middle of the marks, else of the page, else of all that is drawn', () => {
    const marks = [group({ box: { left: 0, bottom: 0, right: 100, top: 50 } })];
    expect(likelyCentre(survey({}), marks)).toEqual({ x: 50, y: 25 });
    expect(likelyCentre(survey({}), [])).toEqual({ x: 105, y: 148.5 });
    expect(likelyCentre(survey({ widthMm: null, heightMm: null }), [])).toEqual({ x: 20, y: 40 });
  });
  it('a drawing without anything in it has a box all the same', () => {
    expect(wholeBox(survey({ widthMm: null, heightMm: null, groups: [] }))).toEqual({
      left: 0,
      bottom: 0,
      right: 1,
      top: 1,
    });
  });
  it('a cut seen 0.4 mm to the right and 0.5 % too wide is moved left and made narrower about its middle', () => {
    const centre = { x: 100, y: 100 };
    const move = typedMove({ ...NO_ERROR, offsetAcrossMm: 0.4, scaleAcross: 0.005 }, centre);
    expect(displacement(move, centre).x).toBeCloseTo(-0.4 / 1.005, 9);
    const edge = apply(move, { x: 200, y: 100 });
    // Cut with the error it lands where it was drawn: 100 + 0.4 + 1.005 (x - 100) = 200.
    expect(100 + 0.4 + 1.005 * (edge.x - 100)).toBeCloseTo(200, 9);
  });
  it('a saved correction of nothing moves nothing, and the farthest corner says how far', () => {
    const none = savedMove(
      [1, 0, 0, 1, 0, 0],
      { kind: 'on-sheet', load: { turnDeg: 90, face: 'ink-up' } },
      { x: 5, y: 5 },
    );
    expect(farthestMm({ affine: none }, { left: 0, bottom: 0, right: 100, top: 100 })).toBeCloseTo(0, 12);
    expect(
      farthestMm({ affine: { ...identity<'page'>(), tx: 3, ty: 4 } }, { left: 0, bottom: 0, right: 1, top: 1 }),
    ).toBe(5);
  });
  it.each([
    ['discs.svg', 'discs corrected.svg'],
    ['a.b.dxf', 'a.b corrected.dxf'],
    ['noending', 'noending corrected'],
    ['.plt', '.plt corrected'],
  ])('%s comes back as %s', (name, wanted) => {
    expect(correctedName(name)).toBe(wanted);
  });
});
