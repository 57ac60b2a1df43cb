import { blockNamed, BLOCK_NAMES, boxesOverlap, ownMarkExtent, type BlockName } from './block';
import { canonicalJson } from './canonical-json';
import { crossedBySpentSet } from './crossing';
import { cutOf, inkOf, type InkShape } from './drawing';
import { CHECK_KINDS, defineSheet, keepOuts, type CheckKind } from './sheet-definition';
import { sheetCodeOf } from './sheet-code';
import { ditherOf } from './wedge';

const all: [BlockName, CheckKind][] = BLOCK_NAMES.flatMap((b) =>
  CHECK_KINDS.map((k): [BlockName, CheckKind] => [b, k]),
);
const textWidthMm = (shape: InkShape) => (shape.kind === 'text' ? shape.text.length * shape.heightMm * 0.85 : 0);

describe.each(all)('%s %s check', (blockName, kind) => {
  const definition = defineSheet(blockName, kind);
  const block = blockNamed(blockName);
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
      for (const path of cutOf(definition, setNo)) for (const p of path) expect(inZones(p.x, p.y)).toBe(1);
    }
  });

  it('figures and marks stand on whole plotter units of 0.025 mm from the file origin', () => {
    const origin = ownMarkExtent(block)[0]!;
    for (const w of definition.wedges) {
      for (const value of [w.origin.x - origin.x, w.origin.y - origin.y]) {
        expect(Math.abs(value * 40 - Math.round(value * 40))).toBeLessThan(1e-9);
      }
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
        ...cutOf(definition, 2)
          .flat()
          .map((p) => Math.abs(p.x)),
      ) + 10,
    );
  });

  it('has the same bytes each time, and another code for another sheet', () => {
    expect(canonicalJson(defineSheet(blockName, kind))).toBe(canonicalJson(definition));
  });
});

it('dither steps are the nine ninths of a step, each once, and sum to zero', () => {
  const ninths = [1, 2, 3, 4, 5, 6, 7, 8, 9].map((i) => Math.round((ditherOf(i) * 9) / 0.05));
  expect([...ninths].sort((a, b) => a - b)).toEqual([-4, -3, -2, -1, 0, 1, 2, 3, 4]);
});

it('a set cut in place spends nothing of set 2; one cut 10 mm aside spends what it ran through', () => {
  const definition = defineSheet('A4', 'full');
  expect(crossedBySpentSet(definition, { x: 0, y: 0 })).toHaveLength(0);
  const crossed = crossedBySpentSet(definition, { x: 10, y: 0 });
  expect(crossed.length).toBeGreaterThan(0);
  expect(crossed.every((w) => w.setNo === 2)).toBe(true);
});

it('codes have five clear characters and depend on the hash alone', () => {
  const code = sheetCodeOf(Uint8Array.from([0xff, 0x00, 0xaa, 0x80]));
  expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{2}-[0-9A-HJKMNP-TV-Z]{3}$/);
  expect(sheetCodeOf(Uint8Array.from([0xff, 0x00, 0xaa, 0x00]))).not.toBe(code);
});
