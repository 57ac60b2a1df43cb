import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { identity, type Affine } from '@/core/geometry/affine';
import { flatten } from '@/formats/flatten';
import { writeSvg } from '@/formats/svg/write-svg';
import { polyline, type VectorDrawing } from '@/formats/vector-drawing';
import { blockDrawing, cutSheet, cutterPaths, printSheet, type JobSheet } from './job-drawing';
import { pictureFacts, printablePicture } from './job-picture';
import { writePdf } from './print-pdf';

const square = (left: number, bottom: number, side: number) =>
  polyline<'page'>([
    { x: left, y: bottom },
    { x: left + side, y: bottom },
    { x: left + side, y: bottom + side },
    { x: left, y: bottom + side },
    { x: left, y: bottom },
  ]);

/** A picture of 2 x 1 dots: red to the left, blue to the right. */
const twoDots = (): Promise<Buffer> =>
  sharp(Buffer.from([255, 0, 0, 0, 0, 255]), { raw: { width: 2, height: 1, channels: 3 } })
    .png()
    .toBuffer();

const sheet = (changes: Partial<JobSheet> = {}): JobSheet => ({
  ...{ title: 'Job 7', widthMm: 100, lengthMm: 80, words: null, cutMove: identity<'page'>() },
  marks: [
    { left: 10, bottom: 10, width: 8, height: 8 },
    { left: 82, bottom: 62, width: 8, height: 8 },
  ],
  items: [
    {
      ...{ id: 'a', isMirrored: false, picture: null, artBox: { left: 1, bottom: 1, width: 18, height: 8 } },
      ...{ cuts: [square(0, 0, 10)], scores: [] },
      shapes: [{ commands: square(1, 1, 8), fill: '#0000ff', isEvenOdd: false, stroke: null }],
    },
  ],
  placements: [
    { itemId: 'a', box: { left: 30, bottom: 30, width: 20, height: 10 }, turnDeg: 0 },
    { itemId: 'a', box: { left: 60, bottom: 30, width: 10, height: 20 }, turnDeg: 90 },
  ],
  ...changes,
});

/** Colours of a drawing as an independent renderer (librsvg) shows them, 4 dots to the mm. */
async function shown(job: JobSheet) {
  const svg = writeSvg(printSheet(job), { unitsPerInch: 96 });
  const { data, info } = await sharp(Buffer.from(svg), { density: 101.6 })
    .flatten({ background: '#fff' })
    .resize(400, 320, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return (xMm: number, yMm: number): readonly number[] => {
    const at = (Math.round((80 - yMm) * 4) * 400 + Math.round(xMm * 4)) * info.channels;
    return [...data.subarray(at, at + 3)];
  };
}

const lineTo = (x: number, y: number) => ({ op: 'L' as const, points: [{ x, y }] });

/** A drawing's green, 10 dots to the mm: red ink and none differ by it. */
async function greenOf(image: Sharp, { widthMm, heightMm }: VectorDrawing): Promise<Uint8Array> {
  const { data, info } = await image
    .flatten({ background: '#fff' })
    .resize(10 * widthMm, 10 * heightMm, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return Uint8Array.from({ length: info.width * info.height }, (_, i) => data[i * info.channels + 1] ?? 0);
}

const svgDots = (drawing: VectorDrawing): Promise<Uint8Array> =>
  greenOf(sharp(Buffer.from(writeSvg(drawing, { unitsPerInch: 96 })), { density: 254 }), drawing);

async function pdfDots(drawing: VectorDrawing): Promise<Uint8Array> {
  const folder = mkdtempSync(join(tmpdir(), 'red-plumb-'));
  try {
    const [pdf, png] = [join(folder, 'job.pdf'), join(folder, 'job.png')];
    writeFileSync(pdf, await writePdf(drawing));
    execFileSync('mutool', ['draw', '-r', '254', '-o', png, pdf], { stdio: 'ignore' });
    return await greenOf(sharp(readFileSync(png)), drawing);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

describe('a job\u2019s print file', () => {
  it('draws every copy where it was placed, upright and turned, and the marks', async () => {
    const colour = await shown(sheet());
    expect(colour(35, 35)).toEqual([0, 0, 255]);
    // The turned copy's square lies at the lower right of its place.
    expect(colour(65, 35)).toEqual([0, 0, 255]);
    expect(colour(65, 47)).toEqual([255, 255, 255]);
    expect(colour(14, 14)).toEqual([0, 0, 0]);
    expect(colour(86, 66)).toEqual([0, 0, 0]);
  });
  it('draws pictures the right way round, turned and mirrored with their copies', async () => {
    const picture = { format: 'png' as const, content: await twoDots() };
    const [item] = sheet().items;
    if (!item) throw new Error('there is an item');
    const plain = await shown(sheet({ items: [{ ...item, shapes: [], picture }] }));
    expect(plain(33, 35)).toEqual([255, 0, 0]);
    expect(plain(46, 35)).toEqual([0, 0, 255]);
    // A quarter turn counter-clockwise: what was on the left is below.
    expect(plain(65, 33)).toEqual([255, 0, 0]);
    expect(plain(65, 46)).toEqual([0, 0, 255]);
    const over = await shown(sheet({ items: [{ ...item, shapes: [], picture, isMirrored: true }] }));
    expect(over(33, 35)).toEqual([0, 0, 255]);
  });
  it('draws lines with their own ends and corners, and what follows plainly again: PDF (mutool) as SVG (librsvg)', async () => {
    const bend = [{ op: 'M' as const, points: [{ x: 3, y: 3 }] }, ...[9, 3].map((y, i) => lineTo(9 - 4 * i, y))];
    const [item] = sheet().items;
    if (!item) throw new Error('there is an item');
    for (const [ends, corners, miterLimit] of [
      ['round', 'round', 4],
      ['square', 'bevel', 4],
      ['butt', 'miter', 4],
      ['butt', 'miter', 1.1],
    ] as const) {
      const stroke = { colour: '#ff0000', widthMm: 2, ends, corners, miterLimit };
      const drawing = blockDrawing(
        sheet({ items: [{ ...item, shapes: [{ commands: bend, fill: null, isEvenOdd: false, stroke }] }] }),
      );
      const [asSvg, asPdf] = [await svgDots(drawing), await pdfDots(drawing)];
      const inked = asSvg.reduce((sum, v) => sum + 255 - v, 0);
      const differing = asSvg.reduce((sum, v, i) => sum + Math.abs(v - (asPdf[i] ?? 0)), 0);
      expect(inked).toBeGreaterThan(255 * 1000);
      expect([ends, corners, miterLimit, differing / inked < 0.03]).toEqual([ends, corners, miterLimit, true]);
    }
  });
  it('as PDF is the same bytes every time, each picture in it once', async () => {
    const picture = { format: 'png' as const, content: await twoDots() };
    const [item] = sheet().items;
    if (!item) throw new Error('there is an item');
    const job = sheet({ items: [{ ...item, picture }] });
    const [one, two] = [await writePdf(printSheet(job)), await writePdf(printSheet(job))];
    expect(one.equals(two)).toBe(true);
    expect(one.toString('latin1').match(/\/Subtype \/Image/g)).toHaveLength(1);
  });
  it('for a program is the smallest box about the page\u2019s middle, in whole mm', () => {
    const drawing = blockDrawing(sheet());
    expect([drawing.widthMm, drawing.heightMm]).toEqual([2 * 22, 2 * 12]);
    expect(drawing.layers.map((l) => l.name)).toEqual(['art', 'cut']);
    expect(blockDrawing(sheet(), 'Plumb').layers[1]?.spotInk).toBe('Plumb');
  });
});

describe('a job\u2019s cut file', () => {
  it('moves its lines by the correction, about the page\u2019s middle, and nothing else', () => {
    const cutMove = { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0.4, ty: -0.2 } as Affine<'page', 'page'>;
    const [plain, moved] = [cutSheet(sheet()), cutSheet(sheet({ cutMove }))];
    const first = (drawing: typeof plain) => flatten(drawing.layers[0]?.paths[0]?.commands ?? [])[0]?.points[0];
    expect(first(plain)).toEqual({ x: 30, y: 30 });
    expect(first(moved)?.x).toBeCloseTo(30.4, 12);
    expect(first(moved)?.y).toBeCloseTo(29.8, 12);
    expect(printSheet(sheet({ cutMove }))).toEqual(printSheet(sheet()));
  });
  it('scores before it cuts, each in a layer or file of its own; scored lines have an ink of their own', () => {
    const [item] = sheet().items;
    if (!item) throw new Error('there is an item');
    const fold = polyline<'page'>([
      { x: 5, y: 0 },
      { x: 5, y: 10 },
    ]);
    const folded = sheet({ items: [{ ...item, scores: [fold] }] });
    const layers = (lines: 'all' | 'scored' | 'cut') =>
      cutSheet(folded, lines).layers.map((l) => [l.name, l.paths.length]);
    expect([layers('all'), layers('scored'), layers('cut')]).toEqual([
      [
        ['score', 2],
        ['cut', 2],
      ],
      [['score', 2]],
      [['cut', 2]],
    ]);
    expect(blockDrawing(folded, 'Plumb').layers.map((l) => l.spotInk)).toEqual([undefined, 'Plumb score', 'Plumb']);
    const { scores } = cutterPaths(folded, { turnDeg: 0, face: 'ink-up' }, { across: '+x', along: '+y' });
    expect(scores[0]).toEqual([
      { x: 25, y: 20 },
      { x: 25, y: 30 },
    ]);
    expect(printSheet(folded)).toEqual(printSheet(sheet()));
  });
  it.each([
    [0, '+x', '+y', { x: 20, y: 20 }],
    [180, '+x', '+y', { x: 60, y: 40 }],
    [0, '+y', '+x', { x: 20, y: 20 }],
  ] as const)('turned by %p, file axes %s %s: from the marks\u2019 outer corner', (turnDeg, across, along, wanted) => {
    const { cuts: paths } = cutterPaths(sheet(), { turnDeg, face: 'ink-up' }, { across, along });
    expect(paths[0]?.[0]).toEqual(wanted);
    expect(paths.every((path) => path.every((p) => p.x >= 0 && p.y >= 0))).toBe(true);
  });
});

describe('pictures for print', () => {
  it('a plain JPEG keeps its bytes; one that lies on its side is turned up; see-through is white', async () => {
    const jpeg = await sharp(await twoDots())
      .resize(40, 20, { kernel: 'nearest' })
      .jpeg({ quality: 100 })
      .toBuffer();
    const same = await printablePicture(jpeg);
    expect(same.ok && Buffer.from(same.value.content).equals(jpeg)).toBe(true);
    const onSide = await sharp(jpeg).withMetadata({ orientation: 6 }).jpeg({ quality: 100 }).toBuffer();
    expect(await pictureFacts(onSide)).toMatchObject({ ok: true, value: { widthPx: 20, heightPx: 40 } });
    const upright = await printablePicture(onSide);
    expect(upright.ok && upright.value.format).toBe('png');
    const clear = await sharp({ create: { width: 4, height: 4, channels: 4, background: '#00000000' } })
      .png()
      .toBuffer();
    const white = await printablePicture(clear);
    if (!white.ok) throw new Error(white.error);
    expect([...(await sharp(Buffer.from(white.value.content)).raw().toBuffer())].every((v) => v === 255)).toBe(true);
  });
  it('what is no picture is refused by name', async () => {
    expect(await pictureFacts(Buffer.from('GIF89a'))).toMatchObject({ ok: false });
    expect(await printablePicture(Buffer.from('none'))).toMatchObject({ ok: false });
  });
});
