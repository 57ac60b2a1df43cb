import type { ItemArt, JobEdge, JobItem } from '@/core/layout/job-draft';
import { flatten } from '@/formats/flatten';
import { readArtwork } from '@/formats/svg/read-artwork';
import { areaOf, ringsBox } from './outline';
import { prepareItem } from './prepare-item';
import type { PreparedItem } from './prepared-item';

const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80">${inside}</svg>`;
const NO_EDGE: JobEdge = { kind: 'none', mm: 0 };
const drawing = (changes: Partial<Extract<ItemArt, { kind: 'drawing' }>> = {}): ItemArt => ({
  kind: 'drawing',
  fileId: 'f',
  fileName: 'disc.svg',
  cutBy: 'colour',
  cutNames: ['#ff0000'],
  cutFrom: 'lines',
  keepsHoles: true,
  ...changes,
});
const item = (art: ItemArt, widthMm = 40, lengthMm = 40): JobItem => ({
  id: 'i',
  name: 'Disc',
  quantity: 1,
  widthMm,
  lengthMm,
  mayTurn: false,
  art,
});
interface Options {
  readonly art?: ItemArt;
  readonly size?: readonly [number, number];
  readonly edge?: JobEdge;
  readonly isMirrored?: boolean;
}
function prepared(
  inside: string,
  { art = drawing(), size = [40, 40], edge = NO_EDGE, isMirrored = false }: Options = {},
) {
  const read = readArtwork(svg(inside));
  if (!read.ok) throw new Error(read.error.words);
  return prepareItem({ item: item(art, ...size), edge, isMirrored, artwork: read.value });
}
const cutBox = (p: PreparedItem) => ringsBox(p.cuts.flatMap((c) => flatten(c).map((f) => f.points)));
const kinds = (p: PreparedItem) => p.findings.map((f) => (f.of === 'lines' ? f.kind : f.of));

describe('a drawing with its own cut lines', () => {
  const DISC =
    '<circle cx="40" cy="40" r="20" fill="#0000ff"/><circle cx="40" cy="40" r="22" fill="none" stroke="red"/>';
  it('is its art at the size that was typed, its cell holds the line, its own border is measured', () => {
    const p = prepared(DISC);
    expect(p.cell.widthMm).toBeCloseTo(44, 2);
    expect(p.artBox.left).toBeCloseTo(2, 2);
    expect(p.ownEdgeMm).toBeCloseTo(2, 2);
    expect(kinds(p)).toEqual([]);
  });
  it('a border shrinks with the art: 2 mm at half size is 1 mm, as 0.125 in is 1/16 in (common practice, no published source)', () => {
    expect(prepared(DISC, { size: [20, 20] }).ownEdgeMm).toBeCloseTo(1, 2);
  });
  it('scored lines are neither printed nor cut, turned over with the work, and one under a cut is doubled', () => {
    const fold = '<path d="M30 20v40" fill="none" stroke="#0f0"/>';
    const art = drawing({ scoreNames: ['#00ff00'] });
    const fromLeft = (p: PreparedItem) => ringsBox(p.scores.flatMap((c) => flatten(c).map((f) => f.points)))?.left;
    const p = prepared(DISC + fold, { art });
    expect([p.shapes.length, p.cuts.length, p.scores.length]).toEqual([1, 1, 1]);
    expect(fromLeft(p)).toBeCloseTo(12, 2);
    expect(fromLeft(prepared(DISC + fold, { art, isMirrored: true }))).toBeCloseTo(32, 2);
    const under = '<circle cx="40" cy="40" r="22" fill="none" stroke="#0f0"/>';
    expect(kinds(prepared(DISC + under, { art }))).toContain('doubled');
    expect(prepared(DISC + fold).shapes).toHaveLength(2);
  });
  it('a line inside the art is a bleed, one across its edge is none', () => {
    const inside = prepared(
      '<circle cx="40" cy="40" r="20" fill="#00f"/><circle cx="40" cy="40" r="18" fill="none" stroke="red"/>',
    );
    expect(inside.ownEdgeMm).toBeCloseTo(-2, 2);
    const across = prepared(
      '<circle cx="40" cy="40" r="20" fill="#00f"/><circle cx="45" cy="40" r="20" fill="none" stroke="red"/>',
    );
    expect(across.ownEdgeMm).toBe(0);
  });
  it('stretched art is told by how much', () => {
    const found = prepared(DISC, { size: [44, 40] }).findings.find((f) => f.of === 'stretched');
    expect(found).toMatchObject({ of: 'stretched' });
    expect(found && 'share' in found && found.share).toBeCloseTo(0.1, 3);
  });
  it('an original under its offset, a doubled line, lettering, a lost line and text set to cut are found where they are', () => {
    const p = prepared(
      `${DISC}<circle cx="40" cy="40" r="22" fill="none" stroke="red"/><circle cx="40" cy="40" r="20" fill="none" stroke="red"/>
       <rect x="0" y="0" width="4" height="4" fill="none" stroke="red"/><text stroke="red">River</text>`,
    );
    expect(new Set(kinds(p))).toEqual(new Set(['text-cut', 'doubled', 'original-under-offset', 'off-art']));
  });
  it('nothing chosen to be cut, or nothing left to be printed, is told', () => {
    expect(kinds(prepared(DISC, { art: drawing({ cutNames: ['#00ff00'] }) }))).toContain('no-cut');
    expect(kinds(prepared('<circle cx="40" cy="40" r="22" fill="none" stroke="red"/>'))).toContain('no-art');
  });
  it('what a plain print file cannot carry is named, but not of the cut lines', () => {
    const p = prepared(
      '<rect width="20" height="20" fill="#00f" opacity="0.5"/><rect width="22" height="22" fill="none" stroke="red" stroke-dasharray="1"/>',
    );
    expect(p.findings).toContainEqual({ of: 'beyond', names: ['transparency'], places: ['line 1, <rect>'] });
  });
});

describe('a line round the art', () => {
  const RING = '<path d="M10 10h40v40h-40z M20 20v20h20v-20z" fill="#00f"/>';
  const outline = (changes = {}) => drawing({ cutFrom: 'outline', cutNames: [], ...changes });
  it('stands the border outside, its hole as much smaller', () => {
    const p = prepared(RING, { art: outline(), edge: { kind: 'border', mm: 2 } });
    expect(p.cell).toEqual({ widthMm: 44, lengthMm: 44 });
    const rings = p.cuts.flatMap((c) => flatten(c).map((f) => f.points));
    expect(rings).toHaveLength(2);
    expect(areaOf(rings)).toBeCloseTo(40 * 40 + 4 * 2 * 40 + Math.PI * 4 - 16 * 16, 0);
  });
  it('leaves the hole out where it is not wanted, and runs inside for a bleed', () => {
    const p = prepared(RING, { art: outline({ keepsHoles: false }), edge: { kind: 'bleed', mm: 1.5 } });
    expect(p.cuts).toHaveLength(1);
    expect(cutBox(p)).toEqual({ left: 1.5, bottom: 1.5, width: 37, height: 37 });
    expect(p.artBox).toEqual({ left: 0, bottom: 0, width: 40, height: 40 });
  });
  it('counts the width of its lines as art', () => {
    const p = prepared('<path d="M10 30h40" stroke="#00f" stroke-width="10" fill="none"/>', {
      art: outline(),
      size: [50, 10],
    });
    expect(cutBox(p)?.width).toBeCloseTo(50, 1);
    expect(cutBox(p)?.height).toBeCloseTo(10, 1);
  });
  it('tells slivers and parts that are lost', () => {
    const thin = '<path d="M10 10h20v20h-20z M30 19.9h20v0.2h-20z M50 10h20v20h-20z" fill="#00f"/>';
    expect(kinds(prepared(thin, { art: outline(), size: [60, 20] }))).toContain('sliver');
    const two = '<path d="M10 10h40v40h-40z M60 20h1v1h-1z" fill="#00f"/>';
    expect(kinds(prepared(two, { art: outline(), size: [51, 40], edge: { kind: 'bleed', mm: 1 } }))).toContain('lost');
  });
});

describe('boxes and pictures', () => {
  const plain = (changes = {}): ItemArt => ({ kind: 'plain', shape: 'rectangle', cornerMm: 0, ...changes });
  const make = (art: ItemArt, edge: JobEdge) =>
    prepareItem({ item: item(art, 60, 30), edge, isMirrored: false, artwork: null });
  it.each([
    [
      { kind: 'border', mm: 3 },
      { widthMm: 66, lengthMm: 36 },
      { left: 0, bottom: 0, width: 66, height: 36 },
    ],
    [
      { kind: 'bleed', mm: 3 },
      { widthMm: 60, lengthMm: 30 },
      { left: 3, bottom: 3, width: 54, height: 24 },
    ],
    [
      { kind: 'none', mm: 3 },
      { widthMm: 60, lengthMm: 30 },
      { left: 0, bottom: 0, width: 60, height: 30 },
    ],
  ] as const)('%j', (edge, cell, cut) => {
    for (const art of [plain(), plain({ cornerMm: 5 }), plain({ shape: 'ellipse' })]) {
      const p = make(art, edge);
      expect(p.cell).toEqual(cell);
      const box = cutBox(p);
      for (const side of ['left', 'bottom', 'width', 'height'] as const) expect(box?.[side]).toBeCloseTo(cut[side], 6);
    }
  });
  it('a bleed that leaves nothing cuts nothing, and says so', () => {
    expect(kinds(make(plain(), { kind: 'bleed', mm: 15 }))).toContain('no-cut');
  });
  it('a picture of 100 px on 60 mm is soft, one squashed is told', () => {
    const art: ItemArt = {
      kind: 'picture',
      fileId: 'f',
      fileName: 'a.png',
      widthPx: 100,
      heightPx: 100,
      shape: 'rectangle',
      cornerMm: 0,
    };
    expect(kinds(make(art, NO_EDGE))).toEqual(['soft', 'stretched']);
    expect(kinds(make({ ...art, widthPx: 1200, heightPx: 600 }, NO_EDGE))).toEqual([]);
  });
});

describe('mirrored work', () => {
  it('is turned over inside its cell, art and cut alike', () => {
    const inside =
      '<rect x="10" y="10" width="10" height="40" fill="#00f"/><rect x="20" y="10" width="30" height="10" fill="#00f"/><rect x="8" y="8" width="46" height="44" fill="none" stroke="red"/>';
    const plain = prepared(inside);
    const over = prepared(inside, { isMirrored: true });
    const [a, b] = [plain.artBox.left, over.artBox.left];
    expect(a + plain.artBox.width + b).toBeCloseTo(plain.cell.widthMm, 9);
    const left = (p: PreparedItem) =>
      ringsBox(p.shapes.slice(0, 1).flatMap((s) => flatten(s.commands).map((f) => f.points)))?.left ?? NaN;
    expect(left(plain)).toBeLessThan(plain.cell.widthMm / 2);
    expect(left(over)).toBeGreaterThan(over.cell.widthMm / 2);
  });
});
