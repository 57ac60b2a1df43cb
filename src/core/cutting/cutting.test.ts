import { loadNumber, nextCut, type DoneCut } from './next-cut';
import { fileShiftFor, isInReach, roughContradicts, roughShift } from './rough';

const cut = (sheetNo: number, setNo: 1 | 2, loadNo: number): DoneCut => ({ sheetNo, setNo, loadNo, purpose: 'before' });

describe('which set is cut next', () => {
  it('set 1, set 2, then a new sheet', () => {
    expect(nextCut([], 1)).toEqual({ sheetNo: 1, setNo: 1, needsNewSheet: false });
    expect(nextCut([cut(1, 1, 1)], 1)).toEqual({ sheetNo: 1, setNo: 2, needsNewSheet: false });
    expect(nextCut([cut(1, 1, 1), cut(1, 2, 2)], 1)).toEqual({ sheetNo: 2, setNo: 1, needsNewSheet: true });
  });
  it('another sheet that was printed is cut next, also where the one before has a set left', () => {
    expect(nextCut([cut(1, 1, 1)], 2)).toEqual({ sheetNo: 2, setNo: 1, needsNewSheet: false });
    expect(nextCut([], 0)).toEqual({ sheetNo: 1, setNo: 1, needsNewSheet: true });
  });
  it('a fresh load has a new number, the same load keeps it', () => {
    expect(loadNumber([], false)).toBe(1);
    expect(loadNumber([cut(1, 1, 1)], true)).toBe(2);
    expect(loadNumber([cut(1, 1, 1)], false)).toBe(1);
  });
});

describe('rough position', () => {
  it('is the mean of the spots, taken back on whole plotter units', () => {
    const shift = roughShift([
      { spotNo: 1, acrossMm: 6, alongMm: -4 },
      { spotNo: 2, acrossMm: 6.5, alongMm: -4.25 },
    ])!;
    expect(shift).toEqual({ x: 6.25, y: -4.125 });
    expect(fileShiftFor(shift)).toEqual({ x: -6.25, y: 4.125 });
    expect(isInReach(shift)).toBe(false);
    expect(isInReach({ x: 0.7, y: -0.8 })).toBe(true);
    expect(roughShift([])).toBeNull();
  });
  it('contradicts the fine figures only beyond what both can be wrong by', () => {
    expect(roughContradicts({ x: 0.5, y: 0.25 }, { x: 0.2, y: 0.1 })).toBe(false);
    expect(roughContradicts({ x: 0.75, y: 0 }, { x: -0.2, y: 0 })).toBe(true);
    expect(roughContradicts({ x: 0, y: 3 }, { x: 0, y: 0.3 })).toBe(true);
  });
});
