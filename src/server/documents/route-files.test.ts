import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { identity } from '@/core/geometry/affine';
import { blockNamed } from '@/core/target/block';
import { cutOf } from '@/core/target/drawing';
import { defineSheet } from '@/core/target/sheet-definition';
import { writeDxf } from '@/formats/dxf/write-dxf';
import { writePdf } from './print-pdf';
import { writePng } from './print-png';
import { oneDrawing, pictureOnly, queuePage } from './sheet-drawing';

jest.setTimeout(60_000);

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});
const block = blockNamed('A4');
const definition = defineSheet({ block, checkKind: 'full' });
const discs = defineSheet({ block, checkKind: 'quick', style: 'lift-off' });
const cut = { setNo: 1, move: identity() } as const;

function keep(name: string, body: string | Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, body);
  return path;
}

const run = (program: string, ...args: string[]): string =>
  execFileSync(program, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], maxBuffer: 64e6 });

/**
 * Plates of a page as mutool separates it at 200 dpi: cyan, magenta, yellow, black, then spot inks; 255 is full ink. A PSD of
 * plain planes: header, three sections with their lengths, then one plane a plate (its published file format, from memory).
 */
function platesOf(pdf: string): readonly Uint8Array[] {
  const psd = pdf.replace('.pdf', '.psd');
  run('mutool', 'draw', '-O', '2', '-c', 'cmyk', '-r', '200', '-o', psd, pdf);
  const file = readFileSync(psd);
  const [count, height, width] = [file.readUInt16BE(12), file.readUInt32BE(14), file.readUInt32BE(18)];
  let at = 26;
  for (let section = 0; section < 3; section++) at += 4 + file.readUInt32BE(at);
  const isPlain = file.readUInt16BE(at) === 0;
  if (!isPlain) throw new Error('the planes are packed');
  const plane = (i: number): Uint8Array =>
    file.subarray(at + 2 + i * width * height, at + 2 + (i + 1) * width * height);
  // Planes hold paper white as 255.
  return Array.from({ length: count }, (_, i) => plane(i).map((level) => 255 - level));
}

describe('route C, the PDF for a print queue', () => {
  let path: string;
  beforeAll(async () => {
    path = keep('queue.pdf', await writePdf(queuePage(definition, 'AB-123', cut, 'Knife Line')));
  });

  it('mutool finds the spot ink by the name the shop typed, in every cut line and nowhere else', () => {
    const trace = run('mutool', 'draw', '-F', 'trace', path);
    const strokes = [...trace.matchAll(/<stroke_path [^>]*colorspace="([^"]*)"/g)].map((m) => m[1] ?? '');
    const spot = strokes.filter((space) => space.includes('Knife Line'));
    // All other ink is black in one plate.
    const inks = [...trace.matchAll(/<(?:stroke|fill)_path [^>]*colorspace="(Device[^"]*)" color="([^"]*)"/g)];
    expect(new Set(inks.map((m) => `${m[1] ?? ''} ${m[2] ?? ''}`))).toEqual(new Set(['DeviceCMYK 0 0 0 1']));
    expect(spot).toHaveLength(cutOf(definition, 1).length);
    expect(trace.match(/<fill_path [^>]*colorspace="[^"]*Knife/)).toBeNull();
    expect(run('mutool', 'info', '-X', path)).not.toContain('error');
  });

  it('on separations no ink is missing under a cut line, and all ink is in the black plate', async () => {
    const inkAlone = keep('ink.pdf', await writePdf(pictureOnly(definition, 'AB-123')));
    const [queue, ink] = [platesOf(path), platesOf(inkAlone)];
    expect(queue).toHaveLength(5);
    expect(ink).toHaveLength(4);
    const inked = (plate: Uint8Array): number => plate.filter((level) => level > 128).length;
    expect(queue.slice(0, 3).map(inked)).toEqual([0, 0, 0]);
    expect(inked(ink[3]!)).toBeGreaterThan(10_000);
    expect(Buffer.compare(queue[3]!, ink[3]!)).toBe(0);
    // The cut lines are there, on a plate of their own.
    expect(inked(queue[4]!)).toBeGreaterThan(1000);
  });

  it('ink and cut stand in layers of their own, named as on the sheet', () => {
    const objects = run('mutool', 'show', path, 'grep');
    expect(objects).toMatch(/\/Name\(ink\)\/Type\/OCG/);
    expect(objects).toMatch(/\/Name\(cut 1\)\/Type\/OCG/);
    expect(objects).toContain('/OCProperties');
    expect(objects).toMatch(/\/Separation\/Knife#20Line/);
  });

  it('has no transparency, and its page is the block to 0.01 mm', () => {
    const objects = run('mutool', 'show', path, 'grep');
    expect(objects).not.toMatch(/\/SMask|\/CA [0-9.]|\/ca [0-9.]|\/Group<</);
    const size = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(run('pdfinfo', path)) ?? [];
    expect(Math.abs((Number(size[1]) * 25.4) / 72 - block.widthMm)).toBeLessThan(0.01);
    expect(Math.abs((Number(size[2]) * 25.4) / 72 - block.lengthMm)).toBeLessThan(0.01);
  });

  it('the cut lines that mutool draws lie within 0.005 mm of the definition', () => {
    const trace = run('mutool', 'draw', '-F', 'trace', path);
    const strips = trace
      .split('<stroke_path')
      .filter((part) => /colorspace="[^"]*Knife/.test(part.slice(0, 400)))
      .map((part) => [...part.matchAll(/<(?:moveto|lineto) x="([-\d.e]+)" y="([-\d.e]+)"/g)])
      .filter((points) => points.length === 4)
      .map((points) => points.map((m) => ({ x: (Number(m[1]) * 25.4) / 72, y: (Number(m[2]) * 25.4) / 72 })));
    const wanted = cutOf(definition, 1).filter((p) => p.length === 5);
    expect(strips).toHaveLength(wanted.length);
    wanted.forEach((strip, i) => {
      strip.slice(0, 4).forEach((p, k) => {
        const got = strips[i]![k]!;
        const x = got.x - block.widthMm / 2;
        const down = got.y - block.lengthMm / 2;
        // The tracing device has y down or up by its matrix: either way the distance from the middle is the same.
        expect(Math.abs(x - p.x)).toBeLessThan(0.005);
        expect(Math.min(Math.abs(down - p.y), Math.abs(down + p.y))).toBeLessThan(0.005);
      });
    });
  });
});

describe('route A, the DXF', () => {
  it('audits clean in ezdxf and reads back within 0.001 mm, in its layers', () => {
    const second = { setNo: 2, move: identity() } as const;
    const drawing = oneDrawing(definition, 'AB-123', [cut, second]);
    const path = keep('lines.dxf', writeDxf({ ...drawing, layers: drawing.layers.slice(1) }));
    const script = `
import ezdxf, json, sys
from ezdxf import recover
doc, audit = recover.readfile(sys.argv[1])
lines = [{'layer': e.dxf.layer, 'closed': e.is_closed, 'points': [[v.dxf.location.x, v.dxf.location.y] for v in e.vertices]} for e in doc.modelspace().query('POLYLINE')]
print(json.dumps({'unit': doc.units, 'version': doc.dxfversion, 'errors': len(audit.errors), 'fixes': len(audit.fixes), 'lines': lines}))`;
    const read = JSON.parse(run('/usr/bin/python3', '-c', script, path)) as {
      unit: number;
      version: string;
      errors: number;
      fixes: number;
      lines: { layer: string; closed: boolean; points: [number, number][] }[];
    };
    expect([read.version, read.errors, read.fixes]).toEqual(['AC1009', 0, 0]);
    // Millimetres, as ezdxf numbers units.
    expect(read.unit).toBe(4);
    for (const setNo of [1, 2] as const) {
      const own = read.lines.filter((l) => l.layer === `CUT_${setNo}`);
      const wanted = cutOf(definition, setNo);
      expect(own).toHaveLength(wanted.length);
      wanted.forEach((path, i) => {
        const isClosed = path[0]!.x === path.at(-1)!.x && path[0]!.y === path.at(-1)!.y;
        const corners = isClosed ? path.slice(0, -1) : path;
        expect(own[i]!.closed).toBe(isClosed);
        expect(own[i]!.points).toHaveLength(corners.length);
        corners.forEach((p, k) => {
          const [x, y] = own[i]!.points[k]!;
          expect(Math.hypot(x - p.x - block.widthMm / 2, y - p.y - block.lengthMm / 2)).toBeLessThan(0.001);
        });
      });
    }
  });
});

describe('route B and E, the picture', () => {
  it('stores its density, has the block\u2019s size, and its rings lie within half a pixel', async () => {
    const png = await writePng(pictureOnly(discs, 'AB-123'));
    const { density, width, height } = await sharp(png).metadata();
    expect(density).toBe(600);
    const pxPerMm = 600 / 25.4;
    expect(Math.abs(width - block.widthMm * pxPerMm)).toBeLessThan(1);
    expect(Math.abs(height - block.lengthMm * pxPerMm)).toBeLessThan(1);
    const { data, info } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
    const grayAt = (x: number, y: number) => data[(y * info.width + x) * info.channels]!;
    for (const { centre } of discs.liftOffs) {
      const cx = (centre.x + block.widthMm / 2) * pxPerMm;
      const cy = (block.lengthMm / 2 - centre.y) * pxPerMm;
      const row = Math.floor(cy);
      // Outer edge of the ring by the darkness between the ring's middle and the clear rim.
      const edge = (side: 1 | -1): number => {
        const from = Math.floor(cx + side * 9.75 * pxPerMm);
        let dark = 0;
        for (let i = 1; i <= 12; i++) dark += (255 - grayAt(from + side * i, row)) / 255;
        return side === 1 ? from + 1 + dark : from - dark;
      };
      expect(Math.abs(edge(1) - cx - 10 * pxPerMm)).toBeLessThanOrEqual(0.5);
      expect(Math.abs(cx - edge(-1) - 10 * pxPerMm)).toBeLessThanOrEqual(0.5);
    }
  });
});
