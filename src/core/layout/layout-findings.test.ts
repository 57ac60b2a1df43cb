import { itemFindingWords, type ItemFinding } from '../artwork/item-finding';
import { sheetSize } from '../units/sheet-size';
import type { JobDraft } from './job-draft';
import { layOut, type LaidOut, type PageFacts } from './lay-out';
import { layoutFindings, LONGEST_PAGE_MM, type LayoutFacts } from './layout-findings';
import { layoutHeadline, layoutProblemWords } from './layout-words';

const item = { id: 'd', name: 'Disc', quantity: 40, widthMm: 50, lengthMm: 50, mayTurn: false } as const;
const draft = (changes: Partial<JobDraft> = {}): JobDraft => ({
  ...{ laysOut: 'here', form: 'sheet', insetMm: 15.9, backInsetMm: null, isMirrored: false, gapMm: 2 },
  ...{ spareFrontMm: 60, spareRearMm: 120, artBox: null, yieldShare: 0.95, warmingK: 0 },
  page: { name: 'A4', ...sheetSize('A4') },
  edge: { kind: 'border', mm: 1 },
  items: [{ ...item, art: { kind: 'plain', shape: 'ellipse', cornerMm: 0 } }],
  ...changes,
});
const page: PageFacts = {
  margins: { leftMm: 5, rightMm: 5, topMm: 5, bottomMm: 5 },
  marks: { kind: 'four_corners', insetMm: 15.9, sizeMm: 8, keepOutMm: 5, edgeMinMm: 10 },
};
const facts = (changes: Partial<LayoutFacts> = {}): LayoutFacts => ({
  ...{ family: 'F1', isBorderless: false, unprintableMm: 5, machineMarks: null, rollers: null, sensorMm: 120 },
  modePage: { name: 'A4', ...sheetSize('A4') },
  printableWidthMm: null,
  largest: { widthMm: null, lengthMm: null },
  ...changes,
});
const cells = new Map([['d', { widthMm: 52, lengthMm: 52 }]]);
function laid(d: JobDraft): LaidOut {
  const found = layOut(d, page, cells);
  if (!found.ok) throw new Error(found.error.kind);
  return found.value;
}
const keys = (changes: Partial<JobDraft>, about: Partial<LayoutFacts> = {}) =>
  layoutFindings(draft(changes), laid(draft(changes)), facts(about)).map((f) => `${f.severity} ${f.key}`);

describe('what of a layout is told before it is locked', () => {
  it('nothing, where all is well', () => {
    expect(keys({})).toEqual([]);
  });
  it.each([
    [{ insetMm: 4 }, {}, ['stop clipped', 'look too-near-edge']],
    [{ insetMm: 8 }, {}, ['look too-near-edge']],
    [{ page: { name: 'square', widthMm: 305, lengthMm: 305 } }, {}, ['look page-differs']],
    [{}, { isBorderless: true }, ['look borderless']],
    [{ gapMm: 0 }, {}, ['look shared-lines']],
    [{}, { rollers: { widthMm: 12, fromEdgeMm: 2 } }, ['look rollers']],
    [{}, { rollers: { widthMm: 20, fromEdgeMm: 2 } }, ['look rollers']],
    [{}, { rollers: { widthMm: 8, fromEdgeMm: 2 } }, []],
    [{}, { largest: { widthMm: 150, lengthMm: null } }, ['stop too-large']],
    [{}, { largest: { widthMm: 300, lengthMm: 300 } }, []],
    [{}, { family: 'F5' }, ['look not-mirrored']],
    [{ isMirrored: true }, {}, ['look mirrored']],
    [{ isMirrored: true }, { family: 'F5' }, []],
    [{ backInsetMm: 15.9 }, { family: 'F6' }, []],
    // 0.875 against 0.825 in was a slip (common practice, no published source).
    [{ insetMm: 0.875 * 25.4, backInsetMm: 0.825 * 25.4 }, { family: 'F6' }, ['look insets-differ']],
    [{}, { machineMarks: { kind: 'corner_figures', insetMm: 15.9 } }, ['look kinds-differ']],
    [{}, { machineMarks: { kind: 'four_corners', insetMm: 12 } }, ['look inset-differs']],
  ] as const)('%j with %j: %j', (changes, about, wanted) => {
    expect(keys(changes, about)).toEqual(wanted);
  });
  it('a roll: its printable width, its spare, the length of one page', () => {
    const roll = { form: 'roll' as const, page: { name: 'film', widthMm: 1309, lengthMm: 2000 } };
    expect(keys(roll, { printableWidthMm: 1309 })).toEqual([]);
    expect(keys(roll, { printableWidthMm: 1300 })).toEqual(['stop too-wide']);
    expect(keys({ ...roll, spareFrontMm: 10, spareRearMm: 0 })).toEqual(['look no-test-cut', 'look no-rear']);
    const many = [{ ...item, quantity: 3800, art: { kind: 'plain' as const, shape: 'ellipse' as const, cornerMm: 0 } }];
    const long = { ...roll, page: { ...roll.page, lengthMm: 9000 }, items: many };
    expect(keys(long)).toEqual(['stop too-long']);
    expect(LONGEST_PAGE_MM).toBeCloseTo((14_400 / 72) * 25.4, 9);
  });
  it('a program\u2019s own art outside the usable area, or in the room of a mark', () => {
    const own = (leftMm: number, topMm: number): Partial<JobDraft> => ({
      laysOut: 'program',
      artBox: { widthMm: 100, lengthMm: 150, leftMm, topMm },
    });
    expect(keys(own(50, 60))).toEqual([]);
    expect(keys(own(5, 60))).toEqual(['stop outside']);
    expect(keys(own(20, 20))).toEqual(['stop outside']);
  });
});

describe('a layout in one sentence', () => {
  it('says how many on each, how many sheets, how many over', () => {
    const found = laid(draft());
    const perSheet = found.placements.length;
    const sheets = Math.ceil(40 / perSheet);
    const over = sheets * perSheet - 40;
    expect(layoutHeadline(draft(), found)).toBe(
      `${perSheet} on each sheet: ${sheets} sheets make ${sheets * perSheet}${over > 0 ? `, ${over} over` : ''}`,
    );
  });
  it('or why there is none', () => {
    expect(layoutProblemWords({ kind: 'nothing-to-place' }, draft())).toBe('What is to be made?');
    expect(layoutProblemWords({ kind: 'does-not-fit', itemId: 'd' }, draft())).toBe(
      'Disc does not fit this page even once',
    );
    expect(layOut(draft({ insetMm: 110 }), page, cells)).toEqual({ ok: false, error: { kind: 'no-area' } });
    expect(layOut(draft({ items: [] }), page, cells)).toEqual({ ok: false, error: { kind: 'nothing-to-place' } });
  });
});

describe('findings about an item in words', () => {
  const box = { left: 0, bottom: 0, width: 3, height: 2 };
  const lines = (kind: 'doubled' | 'original-under-offset' | 'off-art' | 'speck' | 'lettering'): ItemFinding => ({
    ...{ of: 'lines', kind, box, places: ['line 3, <path>'], amount: 12.345 },
  });
  it.each([
    [lines('doubled'), 'look', '12.35 mm of a cut line lie on another one'],
    [lines('original-under-offset'), 'look', '12.35 mm inside another'],
    [lines('off-art'), 'look', 'touches none of the art'],
    [lines('speck'), 'look', 'only 12.35 mm across'],
    [lines('lettering'), 'look', 'look like lettering'],
    [{ of: 'sliver', box, amount: 1.5 }, 'look', 'thinner than half a millimetre'],
    [{ of: 'lost', box }, 'look', '3 mm x 2 mm is lost'],
    [{ of: 'text-cut', places: ['line 3'] }, 'stop', 'Text is set to cut (line 3)'],
    [{ of: 'text-art', places: ['line 3'] }, 'stop', 'Text is still text'],
    [{ of: 'beyond', names: ['a filter'], places: ['line 3'] }, 'stop', 'The drawing uses a filter'],
    [{ of: 'no-cut' }, 'stop', 'No cut line is left'],
    [{ of: 'no-art' }, 'stop', 'no art to print'],
    [{ of: 'stretched', share: -0.05 }, 'look', '5.0 % too narrow'],
    [{ of: 'soft', dpi: 71.9 }, 'look', 'only 71 dots to the inch'],
  ] as const)('%j', (finding, severity, words) => {
    const told = itemFindingWords(finding);
    expect(told.severity).toBe(severity);
    expect(told.words).toContain(words);
    expect(told.todo.length).toBeGreaterThan(10);
  });
});
