import { joiner } from '../cut-file/splice';
import { formatNumber } from '../format-number';
import { codeAt, valueAt, valueOf, type DxfRecord } from './dxf-groups';
import type { DxfItem } from './dxf-items';

/** A nanometre in a drawing in mm. */
const DECIMALS = 9;
export const dxfNumber = (value: number): string => formatNumber(value, DECIMALS);

/** What an entity keeps when it is written anew: name, layer, colour, line type, width. */
const KEPT: ReadonlySet<number> = new Set([6, 8, 48, 60, 62, 370, 390, 410, 420, 430, 440]);

const line = (code: number, value: string | number): string => `${String(code).padStart(3)}\n${value}\n`;

function keptWords({ groups, from, to }: DxfRecord): string {
  const words: string[] = [];
  for (let i = from; i < to; i++) {
    const code = codeAt(groups, i);
    if (KEPT.has(code)) words.push(line(code, valueAt(groups, i)));
  }
  return words.join('');
}

/** Corners as columns, with the bulge of the piece that leaves each; a closed line does not say its start twice. */
export interface NewOutline {
  readonly xs: number[];
  readonly ys: number[];
  readonly bulges: number[];
  readonly isClosed: boolean;
  readonly isMirrored: boolean;
}

/** Words of every corner one after another. */
function cornerWords({ xs, ys, bulges }: NewOutline, words: (x: number, y: number, bulge: number) => string): string {
  const out = joiner();
  for (const [i, x] of xs.entries()) out.take(words(x, ys[i] ?? 0, bulges[i] ?? 0));
  return out.joined();
}

const bulgeWords = (bulge: number): string => (Math.abs(bulge) < 1e-9 ? '' : line(42, formatNumber(bulge, 12)));

/** A polyline of the newer kind, in the place of what stood there: same handle, owner, layer and colour. */
function lightWords(record: DxfRecord, outline: NewOutline): string {
  const handle = valueOf(record, 5);
  const owner = valueOf(record, 330);
  return [
    line(0, 'LWPOLYLINE'),
    handle === undefined ? '' : line(5, handle),
    owner === undefined ? '' : line(330, owner),
    line(100, 'AcDbEntity'),
    keptWords(record),
    line(100, 'AcDbPolyline'),
    line(90, outline.xs.length),
    line(70, outline.isClosed ? 1 : 0),
    cornerWords(outline, (x, y, bulge) => line(10, dxfNumber(x)) + line(20, dxfNumber(y)) + bulgeWords(bulge)),
    outline.isMirrored ? line(210, 0) + line(220, 0) + line(230, -1) : '',
  ].join('');
}

/** A polyline of the oldest kind. */
function heavyWords(record: DxfRecord, outline: NewOutline): string {
  const kept = keptWords(record);
  return [
    line(0, 'POLYLINE'),
    kept,
    line(66, 1),
    line(10, 0) + line(20, 0) + line(30, 0),
    line(70, outline.isClosed ? 1 : 0),
    outline.isMirrored ? line(210, 0) + line(220, 0) + line(230, -1) : '',
    cornerWords(
      outline,
      (x, y, bulge) =>
        line(0, 'VERTEX') + kept + line(10, dxfNumber(x)) + line(20, dxfNumber(y)) + line(30, 0) + bulgeWords(bulge),
    ),
    line(0, 'SEQEND'),
    kept,
  ].join('');
}

/** Versions before R2000 know only the old polyline for certain. Source: DXF reference of the format's maker, from memory. */
export const polylineWords = (item: DxfItem, outline: NewOutline, version: string): string =>
  version >= 'AC1015' ? lightWords(item.record, outline) : heavyWords(item.record, outline);
