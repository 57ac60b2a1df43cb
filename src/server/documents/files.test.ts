import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import svgpath from 'svgpath';
import { apply, identity, translation } from '@/core/geometry/affine';
import { fileToSheet } from '@/core/geometry/file-axes';
import { TURNS } from '@/core/geometry/load';
import { blockNamed, ownMarkExtent } from '@/core/target/block';
import { cutOf, inkOf } from '@/core/target/drawing';
import { defineSheet } from '@/core/target/sheet-definition';
import { readHpgl, writeHpgl } from '@/formats/hpgl/hpgl';
import { readSvg } from '@/formats/svg/read-svg';
import { writeSvg } from '@/formats/svg/write-svg';
import { writePdf } from './print-pdf';
import { cutFilePaths, cutPage, oneDrawing, printPage } from './sheet-drawing';

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-files-'));
const axes = { across: '+x', along: '+y' } as const;
const still = { setNo: 1, move: identity() } as const;

function distinct(values: readonly number[]): number[] {
  return [...new Set(values.map((v) => Math.round(v * 1e4) / 1e4))].sort((a, b) => a - b);
}

type Place = { x: number; y: number };

/** Largest distance from each wanted point to the nearest found one; found points are binned by mm for speed. */
function largestGap(wanted: readonly Place[], found: readonly Place[]): { gapMm: number; at: Place } {
  const bins = new Map<string, Place[]>();
  const key = (x: number, y: number): string => `${Math.round(x)} ${Math.round(y)}`;
  for (const f of found) bins.set(key(f.x, f.y), [...(bins.get(key(f.x, f.y)) ?? []), f]);
  const gaps = wanted.map((w) => {
    const near = [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((k) => bins.get(key(w.x + i, w.y + k)) ?? []));
    return { gapMm: Math.min(...near.map((f) => Math.hypot(f.x - w.x, f.y - w.y))), at: w };
  });
  return gaps.reduce((a, b) => (b.gapMm > a.gapMm ? b : a));
}

describe.each(['A4', 'Letter', 'A3', '12 x 12 in'] as const)('files of the %s block', (name) => {
  const block = blockNamed(name);
  const definition = defineSheet({ block, checkKind: 'full' });

  it('HPGL read by hp2xx stands within 0.03 mm of the definition', () => {
    const text = writeHpgl(cutFilePaths(definition, still, { turnDeg: 0, face: 'ink-up' }, axes));
    if (!text.ok) throw new Error(text.error.kind);
    const source = join(folder, `${name}.hpgl`);
    const dxf = join(folder, `${name}.dxf`);
    writeFileSync(source, text.value);
    execFileSync(
      'hp2xx',
      ['-q', '-t', '-x', '0', '-X', '500', '-y', '0', '-Y', '500', '-m', 'dxf', '-f', dxf, source],
      { stdio: 'ignore' },
    );
    const lines = readFileSync(dxf, 'utf8')
      .split(/\r?\n/)
      .map((l) => l.trim());
    const found: { x: number; y: number }[] = [];
    for (let i = 0; i + 3 < lines.length; i++) {
      if ((lines[i] === '10' && lines[i + 2] === '20') || (lines[i] === '11' && lines[i + 2] === '21')) {
        found.push({ x: Number(lines[i + 1]), y: Number(lines[i + 3]) });
      }
    }
    const back = fileToSheet({ turnDeg: 0, face: 'ink-up' }, axes, ownMarkExtent(block));
    const wanted = cutOf(definition, 1).flat();
    expect(found.length).toBeGreaterThan(wanted.length);
    expect(
      largestGap(
        wanted,
        found.map((p) => apply(back, p)),
      ).gapMm,
    ).toBeLessThan(0.03);
  });

  const combs = defineSheet({ block, checkKind: 'full', style: 'comb' });
  it.each([
    ['wedges', definition, 2],
    ['combs', combs, 1],
  ] as const)(
    'HPGL of %s: whole units, never negative, for every turn and face, and back to the sheet',
    (_, sheet, setNo) => {
      // Points of a round hole fall between units; everything straight stands on one.
      const allowed = (path: readonly unknown[]): number => (path.length > 40 ? 0.0125 * Math.SQRT2 + 1e-6 : 0.0001);
      const wanted = cutOf(sheet, setNo).filter((path) => setNo === 2 || path.length === 2);
      for (const turnDeg of TURNS) {
        for (const face of ['ink-up', 'ink-down'] as const) {
          const written = writeHpgl(cutFilePaths(sheet, { setNo, move: identity() }, { turnDeg, face }, axes));
          if (!written.ok) throw new Error(written.error.kind);
          expect(written.value).not.toMatch(/[-.]\d/);
          const read = readHpgl(written.value);
          if (!read.ok) throw new Error(read.error.kind);
          const back = fileToSheet({ turnDeg, face }, axes, ownMarkExtent(block));
          const found = read.value.filter((path) => setNo === 2 || path.length === 2);
          expect(found).toHaveLength(wanted.length);
          wanted.forEach((path, i) => {
            path.forEach((p, k) => {
              const got = apply(back, found[i]![k]!);
              expect(Math.hypot(got.x - p.x, got.y - p.y)).toBeLessThan(allowed(path));
            });
          });
        }
      }
    },
  );

  it('PDF read by poppler: page box exact to 0.01 mm, every printed corner within 0.03 mm, scaling off', async () => {
    const pdf = await writePdf(printPage(definition, 'AB-123'));
    const file = join(folder, `${name}.pdf`);
    writeFileSync(file, pdf);
    const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
    const size = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!;
    expect(Math.abs((Number(size[1]) * 25.4) / 72 - block.page.widthMm)).toBeLessThan(0.01);
    expect(Math.abs((Number(size[2]) * 25.4) / 72 - block.page.lengthMm)).toBeLessThan(0.01);
    expect(pdf.toString('latin1')).toContain('/PrintScaling /None');
    const svg = join(folder, `${name}-poppler.svg`);
    execFileSync('pdftocairo', ['-svg', '-noshrink', '-nocenter', '-expand', file, svg]);
    const found: { x: number; y: number }[] = [];
    for (const match of readFileSync(svg, 'utf8').matchAll(/<path[^>]*>/g)) {
      const d = / d="([^"]*)"/.exec(match[0])?.[1] ?? '';
      const transform = / transform="([^"]*)"/.exec(match[0])?.[1];
      const path = transform ? svgpath(d).transform(transform) : svgpath(d);
      path.abs().iterate((segment, _i, x, y) => {
        const n = segment.slice(1).map(Number);
        const px = segment[0] === 'V' ? x : (n.at(segment[0] === 'H' ? -1 : -2) ?? x);
        const py = segment[0] === 'H' ? y : (n.at(-1) ?? y);
        found.push({ x: (px * 25.4) / 72 - block.page.widthMm / 2, y: block.page.lengthMm / 2 - (py * 25.4) / 72 });
      });
    }
    // Text is left out: poppler's drawing library drops corners that lie on a straight line.
    const wanted = inkOf(definition, 'AB-123').flatMap((shape) => (shape.kind === 'text' ? [] : shape.points));
    expect(wanted.length).toBeGreaterThan(1000);
    const gap = largestGap(wanted, found);
    expect([gap.gapMm < 0.03, gap]).toEqual([true, gap]);
  });

  it('the same drawing gives the same bytes', async () => {
    const [a, b] = await Promise.all([1, 2].map(() => writePdf(printPage(definition, 'AB-123'))));
    expect(a!.equals(b!)).toBe(true);
  });

  it.each([96, 72, 'mm'] as const)('one drawing at %s units: layers, colours, 1 um', (unitsPerInch) => {
    const move = translation(0.5, -0.25);
    const text = writeSvg(oneDrawing(definition, 'AB-123', [still, { setNo: 2, move }]), { unitsPerInch });
    const read = readSvg(text);
    if (!read.ok) throw new Error(read.error.kind);
    expect([read.value.widthMm, read.value.heightMm]).toEqual([block.widthMm, block.lengthMm]);
    expect(new Set(read.value.polylines.map((p) => p.group))).toEqual(new Set(['ink', 'cut-1', 'cut-2']));
    const perMm = read.value.viewBox[2] / block.widthMm;
    expect(perMm).toBeCloseTo(unitsPerInch === 'mm' ? 1 : unitsPerInch / 25.4, 6);
    const cuts = read.value.polylines.filter((p) => p.group === 'cut-2');
    cutOf(definition, 2).forEach((path, i) => {
      path.forEach((p, k) => {
        const got = cuts[i]!.points[k]!;
        expect(got.x / perMm - block.widthMm / 2).toBeCloseTo(p.x + 0.5, 3);
        expect(block.lengthMm / 2 - got.y / perMm).toBeCloseTo(p.y - 0.25, 3);
      });
    });
  });

  it('the cut SVG holds cut lines alone, in the page box', () => {
    const read = readSvg(writeSvg(cutPage(definition, 'AB-123', still), { unitsPerInch: 96 }));
    if (!read.ok) throw new Error(read.error.kind);
    expect(read.value.widthMm).toBeCloseTo(block.page.widthMm, 4);
    expect(distinct(read.value.polylines.map((p) => p.strokeWidth))).toHaveLength(1);
    expect(read.value.polylines.every((p) => p.group === 'cut-1')).toBe(true);
  });
});

describe('reading HPGL', () => {
  it.each([
    ['IN;ESC.K;PU0,0;', 'unknown-command'],
    ['IN;PU0,0;PD10;', 'bad-coordinates'],
    ['IN;PUx,1;', 'bad-coordinates'],
  ])('%s is refused as %s', (text, kind) => {
    const read = readHpgl(text);
    expect(read.ok ? 'read' : read.error.kind).toBe(kind);
  });
  it('a path left of the origin is refused when writing', () => {
    const written = writeHpgl([
      [
        { x: 1, y: 1 },
        { x: -0.5, y: 1 },
      ],
    ]);
    expect(written.ok ? 'written' : written.error).toMatchObject({ kind: 'negative', pathIndex: 0 });
  });
});
