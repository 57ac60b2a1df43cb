import fc from 'fast-check';
import { canonicalJson } from '@/core/target/canonical-json';
import { formatNumber } from './format-number';
import { readHpgl, writeHpgl } from './hpgl/hpgl';
import { readSvg } from './svg/read-svg';
import { writeSvg } from './svg/write-svg';
import { polyline, type VectorDrawing } from './vector-drawing';

const whole = fc.integer({ min: 0, max: 20_000 });
/** Paths on whole plotter units, with a move between any two that touch, so that a reader cannot join them. */
const paths = fc.array(fc.array(fc.tuple(whole, whole), { minLength: 2, maxLength: 8 }), {
  minLength: 1,
  maxLength: 6,
});

describe('HPGL', () => {
  it('parse of print is itself, to the unit (property)', () => {
    fc.assert(
      fc.property(paths, (units) => {
        const wanted = units.map((path) => path.map(([x, y]) => ({ x: x / 40, y: y / 40 })));
        const written = writeHpgl(wanted);
        if (!written.ok) throw new Error(written.error.kind);
        expect(readHpgl(written.value)).toEqual({ ok: true, value: wanted });
      }),
    );
  });
  it('a coordinate is never off by more than half a unit an axis (property)', () => {
    const mm = fc.double({ min: 0, max: 500, noNaN: true });
    fc.assert(
      fc.property(mm, mm, (x, y) => {
        const written = writeHpgl([
          [
            { x, y },
            { x: 0, y: 0 },
          ],
        ]);
        const read = written.ok ? readHpgl(written.value) : written;
        if (!read.ok) throw new Error('unread');
        const [first] = read.value[0]!;
        expect(Math.hypot(first!.x - x, first!.y - y)).toBeLessThanOrEqual(0.018);
      }),
    );
  });
  it('takes the tool it is told, follows the outline with the tool up first, and never sets force, speed or marks', () => {
    const path = [
      { x: 1, y: 1 },
      { x: 2, y: 1 },
    ];
    const outline = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 0, y: 0 },
    ];
    const text = writeHpgl([path], { toolNumber: 3, outline });
    if (!text.ok) throw new Error(text.error.kind);
    expect(text.value).toMatch(/^IN;\nSP3;\nPU0,0;\nPU400,0;\nPU0,0;\nPU40,40;\nPD80,40;/);
    expect(text.value).not.toMatch(/VS|FS|!|ESC|TB/);
    expect(readHpgl(text.value)).toEqual({ ok: true, value: [path] });
  });
  it('refuses what lies beyond the stated material, by path and place', () => {
    const path = [
      { x: 1, y: 1 },
      { x: 30, y: 1 },
    ];
    expect(writeHpgl([path], { limit: { xMm: 20, yMm: 20 } })).toEqual({
      ok: false,
      error: { kind: 'beyond-material', pathIndex: 0, xMm: 30, yMm: 1 },
    });
    expect(writeHpgl([path], { limit: { xMm: 30, yMm: 20 } }).ok).toBe(true);
  });
  it('nothing to cut is refused, not written as an empty file', () => {
    expect(writeHpgl([])).toEqual({ ok: false, error: { kind: 'empty' } });
    expect(writeHpgl([], { first: { toolNumber: 2, paths: [] } })).toEqual({ ok: false, error: { kind: 'empty' } });
  });
  it('takes the tool that scores first, the outline before it, and counts paths through both', () => {
    const one = [
      { x: 1, y: 1 },
      { x: 2, y: 1 },
    ];
    const far = [
      { x: 1, y: 1 },
      { x: 99, y: 1 },
    ];
    const first = { toolNumber: 2, paths: [one] };
    const text = writeHpgl([one], { toolNumber: 1, first, outline: [{ x: 0, y: 0 }] });
    expect(text.ok && text.value.match(/SP\d|P[UD]/g)).toEqual([
      'SP2',
      'PU',
      'PU',
      'PD',
      'SP1',
      'PU',
      'PD',
      'PU',
      'SP0',
    ]);
    expect(writeHpgl([far], { first, limit: { xMm: 50, yMm: 50 } })).toMatchObject({
      ok: false,
      error: { kind: 'beyond-material', pathIndex: 1 },
    });
  });
});

describe('SVG', () => {
  const place = fc.record({
    x: fc.double({ min: -20, max: 220, noNaN: true }),
    y: fc.double({ min: -20, max: 320, noNaN: true }),
  });
  const drawing = (points: readonly { x: number; y: number }[]): VectorDrawing => ({
    title: 'a < b & "c"',
    widthMm: 200,
    heightMm: 300,
    layers: [
      {
        name: 'cut 1',
        colour: '#c4162a',
        paths: [{ commands: polyline(points), paint: { kind: 'stroke', widthMm: 0.1 } }],
      },
    ],
  });
  it('parse of print is itself, to 0.1 um (property)', () => {
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 2, maxLength: 9 }),
        fc.constantFrom(96 as const, 72 as const, 'mm' as const),
        (points, unitsPerInch) => {
          const read = readSvg(writeSvg(drawing(points), { unitsPerInch }));
          if (!read.ok) throw new Error(read.error.kind);
          const perMm = read.value.viewBox[2] / 200;
          const [line] = read.value.polylines;
          expect(line!.group).toBe('cut-1');
          points.forEach((p, i) => {
            expect(line!.points[i]!.x / perMm).toBeCloseTo(p.x, 4);
            expect(300 - line!.points[i]!.y / perMm).toBeCloseTo(p.y, 4);
          });
        },
      ),
    );
  });
  it.each([
    ['<html/>', 'not-svg'],
    ['not xml at all', 'not-svg'],
    ['<svg viewBox="0 0 1 1"><g transform="scale(2)"/></svg>', 'not-svg'],
    ['<svg viewBox="0 0 1 1"><path d="M0 0 Lnonsense"/></svg>', 'bad-path'],
  ])('%s is refused as %s', (text, kind) => {
    const read = readSvg(text);
    expect(read.ok ? 'read' : read.error.kind).toBe(kind);
  });
});

describe('numbers and canonical JSON', () => {
  it('no exponent, no minus zero, no trailing zeros; what is not finite throws', () => {
    expect([1e-9, -1e-9, 1.5, 100, 0.12345678].map((v) => formatNumber(v, 5))).toEqual([
      '0',
      '0',
      '1.5',
      '100',
      '0.12346',
    ]);
    expect(() => formatNumber(NaN, 2)).toThrow('cannot write NaN');
  });
  it('equal content has equal text, whatever the order of its keys, and reads back (property)', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.oneof(fc.integer(), fc.string(), fc.boolean())), (content) => {
        const turned = Object.fromEntries(Object.entries(content).reverse());
        expect(canonicalJson(turned)).toBe(canonicalJson(content));
        expect(canonicalJson(JSON.parse(canonicalJson(content)))).toBe(canonicalJson(content));
      }),
    );
  });
  it('what JSON cannot hold throws', () => {
    expect(() => canonicalJson({ a: Infinity })).toThrow('canonical');
    expect(() => canonicalJson({ a: undefined })).toThrow('canonical');
  });
});
