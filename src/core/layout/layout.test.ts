import fc from 'fast-check';
import { MARK_KINDS } from '../shop/words';
import { MARK_KIND_WORDS } from '../shop/mark-kinds';
import { boxesOverlap, type Box } from '../target/block';
import { sheetSize } from '../units/sheet-size';
import { fillPage } from './fill-page';
import { layGang, leftOver } from './gang';
import { commonBox, isInArea, markBoxes, pageArea, usableMm2, type LayoutPage } from './page-area';
import { layRoll } from './roll-piece';
import { bestRowTops, fillRows, freeSpans, placesIn, type RowRequest } from './rows';

const A4: LayoutPage = {
  ...sheetSize('A4'),
  margins: { leftMm: 5, rightMm: 5, topMm: 5, bottomMm: 5 },
  marks: { kind: 'four_corners', insetMm: 15.9, sizeMm: 10, keepOutMm: 5, edgeMinMm: 10 },
};

const mm = (min: number, max: number) => fc.integer({ min: min * 10, max: max * 10 }).map((v) => v / 10);
const anyPage = fc.record({
  widthMm: mm(60, 700),
  lengthMm: mm(60, 1200),
  margins: fc.record({ leftMm: mm(0, 20), rightMm: mm(0, 20), topMm: mm(0, 20), bottomMm: mm(0, 40) }),
  marks: fc.record({
    kind: fc.constantFrom(...MARK_KINDS),
    insetMm: mm(0, 30),
    sizeMm: mm(1, 15),
    keepOutMm: mm(0, 8),
    edgeMinMm: fc.constant(10),
  }),
});
const anyCell = fc.record({ widthMm: mm(8, 300), lengthMm: mm(8, 300) });

describe('what of a page can be used', () => {
  it('is inside both the white edge and the inset, without the rooms about four corner marks', () => {
    const area = pageArea(A4);
    expect(area.usable).toEqual({ left: 15.9, bottom: 15.9, width: 210 - 31.8, height: 297 - 31.8 });
    // Each room reaches 15 mm into both directions from the inset's corner.
    expect(usableMm2(area)).toBeCloseTo(178.2 * 265.2 - 4 * 15 * 15, 6);
  });
  it('counts rooms that run into each other once', () => {
    const tight = pageArea({ ...A4, widthMm: 45, lengthMm: 60, marks: { ...A4.marks, insetMm: 5 } });
    const { usable, keepOuts } = tight;
    const dots = Array.from({ length: 350 }, (_, i) => 5 + (i + 0.5) / 10).flatMap((x) =>
      Array.from({ length: 500 }, (_, j): [number, number] => [x, 5 + (j + 0.5) / 10]),
    );
    const free = dots.filter(
      ([x, y]) => !keepOuts.some((z) => x > z.left && x < z.left + z.width && y > z.bottom && y < z.bottom + z.height),
    ).length;
    expect(usable).toEqual({ left: 5, bottom: 5, width: 35, height: 50 });
    expect(usableMm2(tight)).toBeCloseTo(free / 100, 6);
  });
  it('is what the printer reaches where there are no marks', () => {
    expect(pageArea({ ...A4, marks: { ...A4.marks, kind: 'none' } }).usable).toEqual(pageArea(A4).printable);
  });
  it('is nothing where insets meet', () => {
    const area = pageArea({ ...A4, marks: { ...A4.marks, insetMm: 110 } });
    expect(area.usable).toBeNull();
    expect(usableMm2(area)).toBe(0);
    expect(fillPage(area, { id: 'a', cell: { widthMm: 1, lengthMm: 1 }, mayTurn: true }, 0)).toEqual([]);
  });
  it('takes usual keep-outs of 5 mm and insets of 15.9 mm (common practice, no published source)', () => {
    expect(MARK_KIND_WORDS.four_corners).toMatchObject({ insetMm: 15.9, keepOutMm: 5, edgeMinMm: 10 });
  });
});

describe('copies across', () => {
  it.each([
    // 1309 mm printable, five across: at most 261.8 mm of pitch (common practice, no published source).
    [1309, 261.8, 0, 5],
    [1309, 261.9, 0, 4],
    [1309, 258.6, 4, 5],
    [1309, 258.7, 4, 4],
    [100, 33.3, 0.05, 3],
    [100, 101, 0, 0],
    [0.3, 0.1, 0, 3],
  ])('%p mm hold %p mm with %p mm between: %p', (length, size, gap, wanted) => {
    expect(placesIn(length, size, gap)).toBe(wanted);
  });
});

/** The most places in straight rows by trying every tenth of a mm: plain and slow. */
function mostByTrying({ area, keepOuts, cell, gapMm }: RowRequest, stepMm: number): number {
  const steps = Math.round(area.height / stepMm);
  const most = new Array<number>(steps + 1).fill(0);
  for (let k = 0; k <= steps; k++) {
    const bottom = area.bottom + area.height - k * stepMm - cell.lengthMm;
    // Rows from the leading end down: the row whose upper end is k steps below it is the last.
    const places =
      bottom < area.bottom - 1e-9
        ? 0
        : freeSpans(area, keepOuts, bottom, cell.lengthMm).reduce(
            (sum, s) => sum + placesIn(s.to - s.from, cell.widthMm, gapMm),
            0,
          );
    const before = k - Math.round((cell.lengthMm + gapMm) / stepMm);
    most[k] = Math.max(most[k - 1] ?? 0, places + (before >= 0 ? (most[before] ?? 0) : 0));
  }
  return Math.max(...most);
}

describe('the most copies that fit (properties over random pages, insets and items)', () => {
  const whole = (min: number, max: number) => fc.integer({ min, max });
  const anyRequest = fc.record({
    area: fc.record({ left: whole(0, 9), bottom: whole(0, 9), width: whole(5, 80), height: whole(5, 80) }),
    keepOuts: fc.array(
      fc.record({ left: whole(0, 80), bottom: whole(0, 80), width: whole(1, 30), height: whole(1, 30) }),
      { maxLength: 5 },
    ),
    cell: fc.record({ widthMm: whole(2, 30), lengthMm: whole(2, 30) }),
    gapMm: whole(0, 4),
  });
  it('is what trying every place for every row finds', () => {
    fc.assert(
      fc.property(anyRequest, (request) => {
        expect(fillRows(request)).toHaveLength(mostByTrying(request, 1));
      }),
      { numRuns: 500 },
    );
  });
  it('is whole numbers across times along where no mark is in the way', () => {
    fc.assert(
      fc.property(anyPage, anyCell, mm(0, 10), (page, cell, gapMm) => {
        const area = pageArea({ ...page, marks: { ...page.marks, kind: 'none' } });
        const { usable } = area;
        const count = fillPage(area, { id: 'a', cell, mayTurn: false }, gapMm).length;
        const wanted = usable
          ? placesIn(usable.width, cell.widthMm, gapMm) * placesIn(usable.height, cell.lengthMm, gapMm)
          : 0;
        expect(count).toBe(wanted);
      }),
      { numRuns: 300 },
    );
  });
  it('prints nothing outside the printable area and nothing in the room of a mark, and no two copies meet', () => {
    fc.assert(
      fc.property(anyPage, anyCell, mm(0, 10), fc.boolean(), (page, cell, gapMm, mayTurn) => {
        const area = pageArea(page);
        const placements = fillPage(area, { id: 'a', cell, mayTurn }, gapMm);
        const boxes = placements.map((p) => p.box);
        const isPrinted = (box: Box): boolean => {
          const printed = commonBox(box, area.printable);
          return printed !== null && Math.abs(printed.width * printed.height - box.width * box.height) < 1e-3;
        };
        expect(boxes.filter((box) => !isInArea(box, area) || !isPrinted(box))).toEqual([]);
        // Copies that overlap are neighbours in the order of their lower edges, or a row apart.
        const sorted = [...boxes].sort((a, b) => a.bottom - b.bottom || a.left - b.left);
        const meeting = sorted.flatMap((a, i) =>
          sorted.slice(i + 1, i + 200).filter((b) => boxesOverlap(shrunk(a), shrunk(b))),
        );
        expect(meeting).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
  it('never gives fewer where an item may lie turned', () => {
    fc.assert(
      fc.property(anyPage, anyCell, (page, cell) => {
        const area = pageArea(page);
        const upright = fillPage(area, { id: 'a', cell, mayTurn: false }, 2).length;
        expect(fillPage(area, { id: 'a', cell, mayTurn: true }, 2).length).toBeGreaterThanOrEqual(upright);
      }),
      { numRuns: 200 },
    );
  });
  it('begins at the leading end', () => {
    const request = {
      area: { left: 0, bottom: 0, width: 10, height: 25 },
      keepOuts: [],
      cell: { widthMm: 10, lengthMm: 10 },
      gapMm: 0,
    };
    expect(bestRowTops(request)).toEqual([25, 15]);
  });
});

const shrunk = (box: Box): Box => ({ ...box, width: box.width - 1e-6, height: box.height - 1e-6 });

describe('sheets for a quantity', () => {
  const item = (id: string, widthMm: number, lengthMm: number, quantity: number) => ({
    id,
    cell: { widthMm, lengthMm },
    mayTurn: false,
    quantity,
  });
  it('fills every page with one item, and says what is beyond the quantity', () => {
    const items = [item('a', 50, 50, 40)];
    const gang = layGang(pageArea(A4), items, 2);
    if ('kind' in gang) throw new Error(gang.kind);
    // 178.2 x 265.2 between the insets, corner rooms 15 mm deep: 3 x 5 with gaps, of which the first and last row lose two.
    expect(leftOver(gang, items)).toEqual([
      {
        itemId: 'a',
        perSheet: gang.placements.length,
        made: gang.placements.length * gang.sheets,
        beyond: gang.placements.length * gang.sheets - 40,
      },
    ]);
    expect(gang.placements.length * (gang.sheets - 1)).toBeLessThan(40);
  });
  it('several items: each page holds its share of each, all in the area, none overlapping (property)', () => {
    const anyItem = fc.record({ w: mm(10, 120), l: mm(10, 120), q: fc.integer({ min: 1, max: 60 }) });
    fc.assert(
      fc.property(fc.array(anyItem, { minLength: 2, maxLength: 5 }), mm(0, 6), (wanted, gapMm) => {
        const items = wanted.map(({ w, l, q }, i) => item(String(i), w, l, q));
        const area = pageArea(A4);
        const gang = layGang(area, items, gapMm);
        if ('kind' in gang) return;
        for (const left of leftOver(gang, items)) expect(left.beyond).toBeGreaterThanOrEqual(0);
        const boxes = gang.placements.map((p) => p.box);
        for (const [i, box] of boxes.entries()) {
          expect(isInArea(box, area)).toBe(true);
          for (const other of boxes.slice(i + 1)) expect(boxesOverlap(shrunk(box), shrunk(other))).toBe(false);
        }
      }),
      { numRuns: 150 },
    );
  });
  it('names the item that fits nowhere', () => {
    expect(layGang(pageArea(A4), [item('a', 20, 20, 1), item('b', 190, 20, 1)], 0)).toEqual({
      kind: 'does-not-fit',
      itemId: 'b',
    });
  });
});

describe('pieces of a roll', () => {
  const roll: LayoutPage = {
    ...A4,
    widthMm: 1309,
    lengthMm: 5000,
    marks: { ...A4.marks, insetMm: 10, keepOutMm: 3 },
    margins: { leftMm: 0, rightMm: 0, topMm: 0, bottomMm: 0 },
  };
  const strips = (quantity: number) => [{ id: 's', cell: { widthMm: 200, lengthMm: 300 }, mayTurn: false, quantity }];
  it('are as short as the copies allow: a millimetre less holds fewer (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 80 }), (quantity) => {
        const pieces = layRoll(roll, strips(quantity), 4);
        if ('kind' in pieces) throw new Error(pieces.kind);
        const perPiece = Math.ceil(quantity / pieces.gang.sheets);
        const shorter = fillPage(pageArea({ ...roll, lengthMm: pieces.lengthMm - 1 }), strips(1)[0]!, 4);
        expect(pieces.gang.placements.length).toBeGreaterThanOrEqual(perPiece);
        expect(shorter.length).toBeLessThan(perPiece);
      }),
      { numRuns: 30 },
    );
  });
  it('are as few as the longest piece allows', () => {
    const pieces = layRoll(roll, strips(200), 4);
    const longest = fillPage(pageArea(roll), strips(1)[0]!, 4).length;
    expect('gang' in pieces && pieces.gang.sheets).toBe(Math.ceil(200 / longest));
  });
});

describe('marks as boxes', () => {
  it('a frame keeps its inside free', () => {
    const page: LayoutPage = { ...A4, marks: { ...A4.marks, kind: 'frame', sizeMm: 1 } };
    expect(markBoxes(page)).toHaveLength(4);
    expect(usableMm2(pageArea(page))).toBeCloseTo((178.2 - 12) * (265.2 - 12), 6);
  });
});
