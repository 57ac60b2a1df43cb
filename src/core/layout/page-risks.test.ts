import { sheetSize } from '../units/sheet-size';
import { fillPage } from './fill-page';
import { ASSUMED_WANDER_SD_MM, bestInset, insetChoices, lostShare } from './inset-gain';
import { pageArea, type LayoutPage } from './page-area';
import { checkRollers, ROLLER_ROOM_MM } from './rollers';
import { checkSpare, TEST_CUT_MM, TEST_CUT_ROOM_MM } from './spare';

const at = (insetMm: number, changes: Partial<LayoutPage['marks']> = {}): LayoutPage => ({
  ...sheetSize('A4'),
  margins: { leftMm: 5, rightMm: 5, topMm: 5, bottomMm: 5 },
  marks: { kind: 'four_corners', insetMm, sizeMm: 10, keepOutMm: 5, edgeMinMm: 10, ...changes },
});
const discs = { id: 'd', cell: { widthMm: 40, lengthMm: 40 }, mayTurn: false };
const fill = (page: LayoutPage) => fillPage(pageArea(page), discs, 2);

describe('a smaller inset', () => {
  it('gains copies and loses prints: the best brings most through', () => {
    const choices = insetChoices(at(15.9), [5, 8, 10, 11, 12, 15.9], fill);
    expect(choices.map((c) => c.copies)).toEqual([...choices.map((c) => c.copies)].sort((a, b) => b - a));
    const best = bestInset(choices);
    for (const c of choices) expect(best?.goodCopies).toBeGreaterThanOrEqual(c.goodCopies - 1e-9);
  });
  it('loses every print where the printer cuts marks off, none where there is room', () => {
    expect(lostShare(at(4.9), 0.7)).toBe(1);
    expect(lostShare(at(15.9), 0.7)).toBeLessThan(1e-12);
    expect(lostShare(at(3, { kind: 'none' }), 0.7)).toBe(0);
  });
  it('at 1 SD of room loses 1 - 0.6827^2 of them: both ways, across and along', () => {
    expect(lostShare(at(10.7), 0.7)).toBeCloseTo(1 - 0.682689 ** 2, 5);
  });
  it('a print wanders by 0.7 mm until it is told (assumed; common practice, no published source)', () => {
    expect(ASSUMED_WANDER_SD_MM).toBe(0.7);
  });
  it('with a print that never wanders, is lost only beyond the limit', () => {
    expect([lostShare(at(10), 0), lostShare(at(9.9), 0)]).toEqual([0, 1]);
  });
  it('0.394 in is 10 mm, the least that eyes are said to take; 0.625 in the usual inset (common practice, no published source)', () => {
    expect(0.394 * 25.4).toBeCloseTo(10, 1);
    expect(0.625 * 25.4).toBeCloseTo(15.9, 1);
  });
});

describe('rollers beside the marks', () => {
  it.each([
    [{ widthMm: 10, fromEdgeMm: 2 }, 3.9, 'clear'],
    [{ widthMm: 12, fromEdgeMm: 2 }, 1.9, 'near'],
    [{ widthMm: 15, fromEdgeMm: 2 }, -1.1, 'on marks'],
  ] as const)('%j: %p mm clear, %s', (rollers, clearMm, verdict) => {
    const check = checkRollers(rollers, at(15.9).marks);
    expect(check?.clearMm).toBeCloseTo(clearMm, 9);
    expect(check?.verdict).toBe(verdict);
  });
  it('near is less than 3 mm, set by eye (common practice, no published source)', () => {
    expect(ROLLER_ROOM_MM).toBe(3);
  });
  it('run over nothing where there are no marks', () => {
    expect(checkRollers({ widthMm: 15, fromEdgeMm: 2 }, at(0, { kind: 'none' }).marks)).toBeNull();
  });
});

describe('spare material', () => {
  it('takes a test cut of 20 mm with 5 mm about it before the first marks (common practice, no published source)', () => {
    expect(TEST_CUT_MM + 2 * TEST_CUT_ROOM_MM).toBe(30);
    expect(checkSpare({ frontMm: 30, rearMm: 60, sensorMm: 60 })).toEqual([]);
    expect(checkSpare({ frontMm: 12, rearMm: 60, sensorMm: 60 })).toEqual([{ kind: 'no-test-cut', missingMm: 18 }]);
  });
  it('keeps the rear sensor covered', () => {
    expect(checkSpare({ frontMm: 40, rearMm: 45, sensorMm: 60 })).toEqual([{ kind: 'rear-short', missingMm: 15 }]);
    expect(checkSpare({ frontMm: 40, rearMm: 0, sensorMm: 60 })).toEqual([{ kind: 'no-rear', missingMm: 60 }]);
  });
});
