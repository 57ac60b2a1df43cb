import { preflight, type PreflightFacts } from './preflight';
import { FAMILIES } from './words';

const FACTS: PreflightFacts = {
  family: 'F1',
  route: 'A',
  page: { name: 'A4', widthMm: 210 },
  block: { widthMm: 176, lengthMm: 236 },
  mode: 'rear tray, best',
  isBorderless: false,
  marks: { kind: 'corner_figures', insetMm: 15.9 },
  leadingMark: 'the filled figure',
  markProblems: [],
  material: { verdict: 'will show', todo: [] },
  program: { bleedDefaultMm: 0, largestWidthMm: null, largestLengthMm: null, holdsCutData: false },
  spareFrontMm: 0,
  spareRearMm: 0,
  dryInHours: 0,
};

const looksOf = (over: Partial<PreflightFacts>, moment: 'print' | 'cut'): string =>
  preflight({ ...FACTS, ...over }, moment).looks.join('\n');
const warningsOf = (over: Partial<PreflightFacts>, moment: 'print' | 'cut'): string =>
  preflight({ ...FACTS, ...over }, moment).warnings.join('\n');

describe('looks, common practice, no published source', () => {
  it.each(FAMILIES)('%s: a few at each step, none twice, nothing known to be wrong', (family) => {
    for (const moment of ['print', 'cut'] as const) {
      const { looks, warnings } = preflight({ ...FACTS, family }, moment);
      expect(looks.length).toBeGreaterThanOrEqual(2);
      expect(looks.length).toBeLessThanOrEqual(9);
      expect(new Set(looks).size).toBe(looks.length);
      expect(warnings).toEqual([]);
    }
  });
  it.each([
    ['F1', 'print', /tray is A4.*rear tray, best/],
    ['F3', 'print', /printable width of at least 210 mm/],
    ['F5', 'print', /preview reads backwards/],
    ['F6', 'print', /inset is the same on both pages/],
    ['F1', 'cut', /mat is clean and sticky/],
    ['F3', 'cut', /This end leads: the filled figure/],
    ['F4', 'cut', /laminate is pressed down/],
    ['F5', 'cut', /Every mark is bare/],
    ['F6', 'cut', /side with the marks is up/],
    ['F7', 'cut', /Light falls evenly/],
    ['F9', 'cut', /counted from the leading edge/],
  ] as const)('%s before the %s', (family, moment, words) => {
    expect(looksOf({ family }, moment)).toMatch(words);
  });
  it('only a reverse print is mirrored', () => {
    for (const family of FAMILIES) expect(/Mirror is off/.test(looksOf({ family }, 'print'))).toBe(family !== 'F5');
  });
  it('what the shop has told stands in them', () => {
    expect(looksOf({}, 'print')).toMatch(/figures in three corners, 15.9 mm from the edge/);
    expect(looksOf({ family: 'F3', spareFrontMm: 80, spareRearMm: 120 }, 'cut')).toMatch(/80 mm before.*120 mm after/);
    expect(looksOf({ isBorderless: true }, 'print')).not.toMatch(/Borderless/);
    const program = { ...FACTS.program!, bleedDefaultMm: 1.5, holdsCutData: true };
    expect(looksOf({ program }, 'print')).toMatch(/adds 1.5 mm by itself/);
    expect(looksOf({ program }, 'cut')).toMatch(/still held/);
  });
  it('no word of marks where there are none', () => {
    const none: Partial<PreflightFacts> = { marks: { kind: 'none', insetMm: 5 }, markProblems: ['clipped'] };
    expect(`${looksOf(none, 'print')} ${looksOf(none, 'cut')}`).not.toMatch(/marks? /i);
    expect(warningsOf(none, 'print')).toBe('');
  });
});

describe('what is known to be wrong', () => {
  it.each([
    [
      { material: { verdict: 'will not show', todo: ['Print a patch.'] } },
      'print',
      /Marks will not show.*Print a patch/,
    ],
    [{ markProblems: ['Marks begin too near.'] }, 'print', /too near/],
    [{ program: { ...FACTS.program!, largestWidthMm: 150 } }, 'print', /176 x 236 mm.*at most 150 x any/],
    [{ program: { ...FACTS.program!, largestLengthMm: 200 } }, 'print', /at most any x 200/],
    [{ dryInHours: 5.2 }, 'cut', /another 6 h/],
  ] as const)('%j', (over, moment, words) => {
    expect(warningsOf(over, moment)).toMatch(words);
  });
  it('is silent at the limit', () => {
    const program = { ...FACTS.program!, largestWidthMm: 176, largestLengthMm: 236 };
    expect(warningsOf({ program, dryInHours: -1 }, 'print') + warningsOf({ dryInHours: 0 }, 'cut')).toBe('');
  });
});
