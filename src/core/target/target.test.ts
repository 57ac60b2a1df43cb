import fc from 'fast-check';
import { leastSquares, matrix } from '../math/qr';
import { SHEET_NAMES, sheetSize, type SheetName } from '../units/sheet-size';
import { blockNamed, boxesOverlap, layOutBlock, ownMarkExtent, USUAL_MARKS } from './block';
import { canonicalJson } from './canonical-json';
import { combCuts } from './comb';
import { crossedBySpentSet } from './crossing';
import { cutOf, inkOf } from './drawing';
import type { InkShape } from './figure-ink';
import type { CheckKind } from './cells';
import { keepOuts } from './keep-outs';
import { checkKindsOf, defineSheet, stylesOf, type FigureStyle } from './sheet-definition';
import { sheetCodeOf } from './sheet-code';
import { ditherOf } from './wedge';

const all = SHEET_NAMES.flatMap((name) =>
  stylesOf(blockNamed(name)).flatMap((style) =>
    checkKindsOf(blockNamed(name), style).map((kind): [SheetName, CheckKind, FigureStyle] => [name, kind, style]),
  ),
);
const textWidthMm = (shape: InkShape) => (shape.kind === 'text' ? shape.text.length * shape.heightMm * 0.85 : 0);

describe.each(all)('%s %s check, %s', (name, checkKind, style) => {
  const block = blockNamed(name);
  const definition = defineSheet({ block, checkKind, style });
  const zones = keepOuts(definition);

  it('no zone overlaps another, and all lie inside the size border', () => {
    zones.forEach((a, i) => {
      expect(a.left).toBeGreaterThanOrEqual(1);
      expect(a.bottom).toBeGreaterThanOrEqual(1);
      expect(a.left + a.width).toBeLessThanOrEqual(block.widthMm - 1);
      expect(a.bottom + a.height).toBeLessThanOrEqual(block.lengthMm - 1);
      zones.slice(i + 1).forEach((b) => {
        expect(`${a.name} over ${b.name}: ${boxesOverlap(a, b)}`).toBe(`${a.name} over ${b.name}: false`);
      });
    });
  });

  it('every printed and cut point but the border lies inside exactly one zone', () => {
    const inZones = (x: number, y: number) =>
      zones.filter((z) => {
        const bx = x + block.widthMm / 2;
        const by = y + block.lengthMm / 2;
        const e = 1e-9;
        return bx >= z.left - e && bx <= z.left + z.width + e && by >= z.bottom - e && by <= z.bottom + z.height + e;
      }).length;
    for (const shape of inkOf(definition, 'AB-123').slice(1)) {
      if (shape.kind === 'text') {
        const half = textWidthMm(shape) / 2;
        const [dx, dy] = shape.turnDeg === 0 ? [half, 0] : [0, half];
        expect([
          shape.text,
          inZones(shape.at.x + dx, shape.at.y + dy),
          inZones(shape.at.x - dx, shape.at.y - dy),
        ]).toEqual([shape.text, 1, 1]);
      } else {
        for (const p of shape.points) expect(inZones(p.x, p.y)).toBe(1);
      }
    }
    for (const setNo of [1, 2] as const) {
      expect(cutOf(definition, setNo).length > 0).toBe(setNo <= definition.sets);
      for (const path of cutOf(definition, setNo)) for (const p of path) expect(inZones(p.x, p.y)).toBe(1);
    }
  });

  it('figures and marks stand on whole plotter units of 0.025 mm from the file origin', () => {
    const origin = ownMarkExtent(block)[0]!;
    const places = [
      ...definition.wedges.map((w) => w.origin),
      // A comb's ticks are each put on a unit, and that is where they are taken to be.
      ...definition.combs.flatMap((c) => combCuts(c).map((stroke) => stroke[0]!)),
    ];
    for (const p of places) {
      for (const value of [p.x - origin.x, p.y - origin.y])
        expect(Math.abs(value * 40 - Math.round(value * 40))).toBeLessThan(1e-9);
    }
  });

  it('our own marks lie outside the block and inside a printable margin of 5 mm', () => {
    for (const corner of ownMarkExtent(block)) {
      expect(Math.abs(corner.x)).toBeLessThan(block.page.widthMm / 2 - 5);
      expect(Math.abs(corner.y)).toBeLessThan(block.page.lengthMm / 2 - 5);
    }
    expect(block.markHalfY - 4).toBeGreaterThan(block.lengthMm / 2);
    // room for a set moved by 10 mm in its file
    expect(block.markHalfX + 4).toBeGreaterThan(
      Math.max(
        ...cutOf(definition, definition.sets)
          .flat()
          .map((p) => Math.abs(p.x)),
      ) + 10,
    );
  });

  it('has the same bytes each time, and another code for another sheet', () => {
    expect(canonicalJson(defineSheet({ block, checkKind, style }))).toBe(canonicalJson(definition));
  });
});

it('the A4 and Letter blocks are as tried: size, columns, rows, rough grids', () => {
  const { widthMm, lengthMm, columnLeftsMm, rowBottomsMm, roughPlaces, checkLineMm } = blockNamed('A4');
  expect([widthMm, lengthMm, checkLineMm]).toEqual([176, 236, 230]);
  expect([columnLeftsMm, rowBottomsMm]).toEqual([
    [7, 73, 139],
    [11, 95, 179],
  ]);
  expect(roughPlaces.map((p) => [p.x, p.y])).toEqual([
    [58, 39],
    [124, 123],
    [58, 207],
  ]);
  const letter = blockNamed('Letter');
  expect([letter.widthMm, letter.lengthMm, letter.checkLineMm]).toEqual([182, 218, 210]);
  expect(letter.rowBottomsMm).toEqual([11, 86, 161]);
});

describe('laying out any page (property)', () => {
  const anyPage = fc.record({
    widthMm: fc.integer({ min: 1000, max: 16000 }).map((v) => v / 10),
    lengthMm: fc.integer({ min: 1000, max: 30000 }).map((v) => v / 10),
    insetMm: fc.constantFrom(5, 10, 15.9, 20),
    sizeMm: fc.constantFrom(0, 5, 14),
  });
  it('fits without overlap inside its border and the marks, or says what is needed', () => {
    let fitted = 0;
    fc.assert(
      fc.property(anyPage, ({ widthMm, lengthMm, ...marks }) => {
        const block = layOutBlock({ name: 'piece', widthMm, lengthMm }, marks);
        if (!block.ok) {
          const { neededWidthMm, neededLengthMm } = block.error;
          expect(widthMm < neededWidthMm + 2 || lengthMm < neededLengthMm + 2).toBe(true);
          return;
        }
        fitted++;
        const { value } = block;
        expect(value.widthMm).toBeLessThanOrEqual(widthMm - 2 * marks.insetMm - 2 + 1e-6);
        expect(value.lengthMm).toBeLessThanOrEqual(lengthMm - 2 * (marks.insetMm + marks.sizeMm) - 1 + 1e-6);
        for (const style of stylesOf(value)) {
          const zones = keepOuts(defineSheet({ block: value, checkKind: 'full', style }));
          const problems = zones.flatMap((a, i) => [
            ...(a.left >= 1 && a.bottom >= 1 ? [] : [`${a.name} over the border`]),
            ...(a.left + a.width <= value.widthMm - 1 && a.bottom + a.height <= value.lengthMm - 1
              ? []
              : [`${a.name} over the border`]),
            ...zones.slice(i + 1).flatMap((b) => (boxesOverlap(a, b) ? [`${a.name} over ${b.name}`] : [])),
          ]);
          expect(problems).toEqual([]);
        }
      }),
      { numRuns: 400 },
    );
    expect(fitted).toBeGreaterThan(100);
  });
  it('a page one step too small is refused with the size that would do', () => {
    const small = layOutBlock({ name: 'card', widthMm: 100, lengthMm: 140 });
    if (small.ok) throw new Error('it should not fit');
    const { neededWidthMm, neededLengthMm } = small.error;
    expect(layOutBlock({ name: 'card', widthMm: neededWidthMm + 2, lengthMm: neededLengthMm + 2 }).ok).toBe(true);
  });
});

it.each(SHEET_NAMES)('the spots of every check on %s carry all six parameters', (name) => {
  for (const checkKind of checkKindsOf(blockNamed(name))) {
    const { spots } = defineSheet({ block: blockNamed(name), checkKind });
    const solved = leastSquares(
      matrix(spots.length, 3, (row, column) => [1, spots[row]!.centre.x, spots[row]!.centre.y][column]!),
      new Float64Array(spots.length),
    );
    expect(solved.ok).toBe(true);
  }
});

it('rough grids are not on one line wherever three fit', () => {
  for (const name of SHEET_NAMES) {
    const [a, b, c] = blockNamed(name).roughPlaces;
    if (!a || !b || !c) throw new Error(`${name} has fewer than three`);
    expect(Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x))).toBeGreaterThan(100);
  }
});

it('a smaller inset gives a larger block', () => {
  const page = { name: 'A4', ...sheetSize('A4') };
  const near = layOutBlock(page, { ...USUAL_MARKS, insetMm: 10 });
  if (!near.ok) throw new Error('it should fit');
  expect(near.value.widthMm).toBe(188);
  expect(near.value.lengthMm).toBeGreaterThan(blockNamed('A4').lengthMm);
});

it('dither steps are the nine ninths of a step, each once, and sum to zero', () => {
  const ninths = [1, 2, 3, 4, 5, 6, 7, 8, 9].map((i) => Math.round((ditherOf(i) * 9) / 0.05));
  expect([...ninths].sort((a, b) => a - b)).toEqual([-4, -3, -2, -1, 0, 1, 2, 3, 4]);
});

it('a set cut in place spends nothing of set 2; one cut 10 mm aside spends what it ran through', () => {
  const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full' });
  expect(crossedBySpentSet(definition, { x: 0, y: 0 })).toHaveLength(0);
  const crossed = crossedBySpentSet(definition, { x: 10, y: 0 });
  expect(crossed.length).toBeGreaterThan(0);
  // A pitch of the discs up or down, holes of set 1 land on discs of set 2.
  const up = crossedBySpentSet(definition, { x: 0, y: 18 });
  expect(up.filter((name) => name.endsWith('disc'))).not.toHaveLength(0);
  expect(new Set(crossed).size).toBe(crossed.length);
});

it('codes have five clear characters and depend on the hash alone', () => {
  const code = sheetCodeOf(Uint8Array.from([0xff, 0x00, 0xaa, 0x80]));
  expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{2}-[0-9A-HJKMNP-TV-Z]{3}$/);
  expect(sheetCodeOf(Uint8Array.from([0xff, 0x00, 0xaa, 0x00]))).not.toBe(code);
});
