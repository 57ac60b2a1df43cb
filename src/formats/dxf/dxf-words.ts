import type { BulgePiece } from '@/core/geometry/bulge';
import type { Point } from '@/core/geometry/affine';
import { formatNumber } from '../format-number';
import { valueOf, type DxfRecord } from './dxf-groups';
import type { DxfItem } from './dxf-items';

/** A nanometre in a drawing in mm. */
const DECIMALS = 9;
export const dxfNumber = (value: number): string => formatNumber(value, DECIMALS);

/** What an entity keeps when it is written anew: name, layer, colour, line type, width. */
const KEPT: ReadonlySet<number> = new Set([6, 8, 48, 60, 62, 370, 390, 410, 420, 430, 440]);

const line = (code: number, value: string | number): string => `${String(code).padStart(3)}\n${value}\n`;

function keptWords(record: DxfRecord): string {
  return record.groups
    .filter((g) => KEPT.has(g.code))
    .map((g) => line(g.code, g.value))
    .join('');
}

export interface NewOutline {
  readonly start: Point<'file'>;
  readonly pieces: readonly BulgePiece<'file'>[];
  readonly isClosed: boolean;
  readonly isMirrored: boolean;
}

/** Corners with the bulge of the piece that leaves them; a closed line does not say its start twice. */
function cornersOf({ start, pieces, isClosed }: NewOutline): readonly { at: Point<'file'>; bulge: number }[] {
  const places = [start, ...pieces.map((p) => p.to)];
  const corners = places.map((at, i) => ({ at, bulge: pieces[i]?.bulge ?? 0 }));
  return isClosed ? corners.slice(0, -1) : corners;
}

const bulgeWords = (bulge: number): string => (Math.abs(bulge) < 1e-9 ? '' : line(42, formatNumber(bulge, 12)));

/** A polyline of the newer kind, in the place of what stood there: same handle, owner, layer and colour. */
function lightWords(record: DxfRecord, outline: NewOutline): string {
  const corners = cornersOf(outline);
  const handle = valueOf(record, 5);
  const owner = valueOf(record, 330);
  return [
    line(0, 'LWPOLYLINE'),
    handle === undefined ? '' : line(5, handle),
    owner === undefined ? '' : line(330, owner),
    line(100, 'AcDbEntity'),
    keptWords(record),
    line(100, 'AcDbPolyline'),
    line(90, corners.length),
    line(70, outline.isClosed ? 1 : 0),
    ...corners.map((c) => line(10, dxfNumber(c.at.x)) + line(20, dxfNumber(c.at.y)) + bulgeWords(c.bulge)),
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
    ...cornersOf(outline).map(
      (c) =>
        line(0, 'VERTEX') +
        kept +
        line(10, dxfNumber(c.at.x)) +
        line(20, dxfNumber(c.at.y)) +
        line(30, 0) +
        bulgeWords(c.bulge),
    ),
    line(0, 'SEQEND'),
    kept,
  ].join('');
}

/** Versions before R2000 know only the old polyline for certain. Source: DXF reference of the format's maker, from memory. */
export const polylineWords = (item: DxfItem, outline: NewOutline, version: string): string =>
  version >= 'AC1015' ? lightWords(item.record, outline) : heavyWords(item.record, outline);
