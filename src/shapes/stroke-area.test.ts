import sharp from 'sharp';
import type { LineShape } from '@/formats/vector-drawing';
import { areaOf, ringsBox, unionOf, type Ring } from './outline';
import { strokeArea } from './stroke-area';

jest.setTimeout(60_000);

const SIDE_PX = 400;
const SIDE_MM = 40;

/** Share of ink in every dot, as an independent renderer (librsvg) draws it. */
async function drawn(inside: string): Promise<Uint8Array> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE_PX}" height="${SIDE_PX}" viewBox="0 0 ${SIDE_MM} ${SIDE_MM}">${inside}</svg>`;
  const { data, info } = await sharp(Buffer.from(svg))
    .flatten({ background: '#fff' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([SIDE_PX, SIDE_PX]);
  return Uint8Array.from({ length: SIDE_PX ** 2 }, (_, i) => 255 - (data[i * info.channels] ?? 255));
}

const dataOf = (rings: readonly Ring[], isClosed: boolean): string =>
  rings.map((ring) => `M${ring.map((p) => `${p.x} ${p.y}`).join('L')}${isClosed ? 'Z' : ''}`).join('');

const PATHS: Readonly<Record<string, Ring>> = {
  'a bend to either side': [
    { x: 6, y: 8 },
    { x: 20, y: 8 },
    { x: 26, y: 20 },
    { x: 34, y: 12 },
  ],
  'sharp corners, some beyond the limit': [
    { x: 6, y: 6 },
    { x: 30, y: 10 },
    { x: 8, y: 14 },
    { x: 30, y: 30 },
    { x: 12, y: 33 },
  ],
  'points that repeat': [
    { x: 8, y: 8 },
    { x: 8, y: 8 },
    { x: 30, y: 30 },
    { x: 30, y: 30 },
  ],
};

describe('what a line covers, against librsvg drawing the same line', () => {
  const shapes = (['butt', 'round', 'square'] as const).flatMap((ends) =>
    (['miter', 'round', 'bevel'] as const).flatMap((corners) =>
      [1.2, 4].map((miterLimit): LineShape => ({ ends, corners, miterLimit })),
    ),
  );
  const cases = Object.keys(PATHS).flatMap((name) => [false, true].map((isClosed) => [name, isClosed] as const));
  it.each(cases)('%s, closed: %s', async (name, isClosed) => {
    const points = PATHS[name] ?? [];
    for (const line of shapes) {
      const attributes = `fill="none" stroke="#000" stroke-width="3" stroke-linecap="${line.ends}" stroke-linejoin="${line.corners}" stroke-miterlimit="${line.miterLimit}"`;
      const [wanted, got] = await Promise.all([
        drawn(`<path d="${dataOf([points], isClosed)}" ${attributes}/>`),
        drawn(`<path d="${dataOf(unionOf(strokeArea(points, isClosed, { ...line, widthMm: 3 })), true)}"/>`),
      ]);
      const inked = wanted.reduce((sum, v) => sum + v, 0);
      const differing = wanted.reduce((sum, v, i) => sum + Math.abs(v - (got[i] ?? 0)), 0);
      expect(inked).toBeGreaterThan(255 * 2000);
      expect([line, differing / inked < 0.006]).toEqual([line, true]);
    }
  });
});

describe('a path of one point', () => {
  const at = { x: 3, y: 4 };
  const area = (ends: LineShape['ends'], isClosed = false): number =>
    areaOf(strokeArea([at, at], isClosed, { ends, corners: 'miter', miterLimit: 4, widthMm: 2 }));
  it('shows round and square ends, and nothing where the ends are plain', () => {
    expect(area('butt')).toBe(0);
    expect(area('round')).toBeCloseTo(Math.PI, 1);
    expect(area('square')).toBeCloseTo(4, 2);
    expect(area('round', true)).toBeCloseTo(Math.PI, 1);
  });
});

it('a right corner reaches as far as its miter: a square of 10 mm drawn 2 mm wide is 12 mm', () => {
  const square = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: 10 },
    { x: 0, y: 10 },
  ];
  const rings = unionOf(strokeArea(square, true, { ends: 'butt', corners: 'miter', miterLimit: 4, widthMm: 2 }));
  expect(ringsBox(rings)).toEqual({ left: -1, bottom: -1, width: 12, height: 12 });
  expect(areaOf(rings)).toBeCloseTo(144 - 64, 6);
});
