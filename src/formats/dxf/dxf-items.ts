import type { Point } from '@/core/geometry/affine';
import { bulgePoint } from '@/core/geometry/bulge';
import { numberOf, valueOf, type DxfFile, type DxfRecord } from './dxf-groups';

/** Places in the drawing's own units. */
type At = Point<'file'>;

/** One drawn entity; an old polyline with its vertices. */
export interface DxfItem {
  readonly record: DxfRecord;
  readonly vertices: readonly DxfRecord[];
  /** End marker of an old polyline. */
  readonly tail: DxfRecord | null;
  readonly layer: string;
  readonly colour: string;
}

/** A smooth or straight piece of an entity's line. */
export interface DxfPiece {
  readonly isStraight: boolean;
  readonly at: (share: number) => At;
}

export interface DxfOutline {
  readonly pieces: readonly DxfPiece[];
  readonly isClosed: boolean;
}

const BY_LAYER = '256';

/** The colour by which a drawing program knows an entity: a true colour, its own number, or its layer's. */
function colourOf(file: DxfFile, record: DxfRecord, layer: string): string {
  const trueColour = valueOf(record, 420);
  if (trueColour !== undefined) return `#${(Number(trueColour) & 0xffffff).toString(16).padStart(6, '0')}`;
  const own = valueOf(record, 62) ?? BY_LAYER;
  if (own === '0') return 'by block';
  const number = own === BY_LAYER ? (file.layerColours.get(layer) ?? '7') : own;
  return `colour ${Math.abs(Number(number))}`;
}

/** Entities in order; vertices stand with their polyline. Paper space is not the drawing, nor are its vertices. */
export function itemsOf(file: DxfFile, records: readonly DxfRecord[]): readonly DxfItem[] {
  const items: DxfItem[] = [];
  let vertices: DxfRecord[] = [];
  let isOpen = false;
  for (const record of records) {
    const last = items.at(-1);
    if (record.type === 'VERTEX') vertices.push(record);
    else if (record.type === 'SEQEND') {
      if (last && isOpen) items[items.length - 1] = { ...last, tail: record };
      isOpen = false;
    } else {
      vertices = [];
      isOpen = valueOf(record, 67) !== '1';
      if (!isOpen) continue;
      const layer = valueOf(record, 8) ?? '0';
      items.push({ record, vertices, tail: null, layer, colour: colourOf(file, record, layer) });
    }
  }
  return items;
}

/** Entities whose coordinates stand in a frame of their own, mirrored when its third axis points down. */
const OWN_FRAME: ReadonlySet<string> = new Set(['LWPOLYLINE', 'POLYLINE', 'CIRCLE', 'ARC', 'SOLID', 'TRACE']);

export type Frame = 'plain' | 'mirrored' | 'tilted';

export function frameOf({ record }: DxfItem): Frame {
  const [x, y, z] = [numberOf(record, 210), numberOf(record, 220), numberOf(record, 230, 1)];
  const isFlat = Math.abs(x) < 1e-9 && Math.abs(y) < 1e-9;
  if (!isFlat) return 'tilted';
  return z < 0 && OWN_FRAME.has(record.type) ? 'mirrored' : 'plain';
}

const at = (x: number, y: number): At => ({ x, y });
const degrees = (deg: number): number => (deg * Math.PI) / 180;

function straight(from: At, to: At): DxfPiece {
  return { isStraight: true, at: (t) => at(from.x + t * (to.x - from.x), from.y + t * (to.y - from.y)) };
}

/** A curve by angle, in pieces of at most a quarter. */
function turning(point: (angleRad: number) => At, startRad: number, sweepRad: number): readonly DxfPiece[] {
  const count = Math.max(1, Math.ceil(Math.abs(sweepRad) / (Math.PI / 2) - 1e-9));
  const step = sweepRad / count;
  return Array.from({ length: count }, (_, i) => ({
    isStraight: false,
    at: (t: number) => point(startRad + (i + t) * step),
  }));
}

const fullTurn = (sweepRad: number): number => (sweepRad <= 1e-12 ? sweepRad + 2 * Math.PI : sweepRad);

function circular(record: DxfRecord): DxfOutline {
  const centre = at(numberOf(record, 10), numberOf(record, 20));
  const radius = numberOf(record, 40);
  const point = (angle: number): At => at(centre.x + radius * Math.cos(angle), centre.y + radius * Math.sin(angle));
  if (record.type === 'CIRCLE') return { pieces: turning(point, 0, 2 * Math.PI), isClosed: true };
  const start = degrees(numberOf(record, 50));
  const sweep = fullTurn((degrees(numberOf(record, 51)) - start) % (2 * Math.PI));
  return { pieces: turning(point, start, sweep), isClosed: false };
}

function elliptical(record: DxfRecord): DxfOutline {
  const centre = at(numberOf(record, 10), numberOf(record, 20));
  const major = at(numberOf(record, 11), numberOf(record, 21));
  const ratio = numberOf(record, 40, 1) * (numberOf(record, 230, 1) < 0 ? -1 : 1);
  const point = (angle: number): At => {
    const c = Math.cos(angle);
    const s = Math.sin(angle) * ratio;
    return at(centre.x + c * major.x - s * major.y, centre.y + c * major.y + s * major.x);
  };
  const start = numberOf(record, 41);
  const sweep = fullTurn(numberOf(record, 42, 2 * Math.PI) - start);
  return { pieces: turning(point, start, sweep), isClosed: Math.abs(sweep - 2 * Math.PI) < 1e-9 };
}

export interface Corner {
  readonly at: At;
  readonly bulge: number;
}

/** Corners of either kind of polyline. */
export function cornersOfItem({ record, vertices }: DxfItem): readonly Corner[] {
  if (record.type === 'POLYLINE')
    return vertices.map((v) => ({ at: at(numberOf(v, 10), numberOf(v, 20)), bulge: numberOf(v, 42) }));
  const corners: { at: At; bulge: number }[] = [];
  let x = 0;
  for (const { code, value } of record.groups) {
    const last = corners.at(-1);
    if (code === 10) x = Number(value);
    else if (code === 20) corners.push({ at: at(x, Number(value)), bulge: 0 });
    else if (code === 42 && last) last.bulge = Number(value);
  }
  return corners;
}

function cornered(item: DxfItem): DxfOutline {
  const corners = cornersOfItem(item);
  const isClosed = (numberOf(item.record, 70) & 1) === 1;
  const ends = isClosed ? [...corners.slice(1), ...corners.slice(0, 1)] : corners.slice(1);
  const pieces = ends.flatMap((end, i): readonly DxfPiece[] => {
    const from = corners[i];
    if (!from) return [];
    if (from.bulge === 0) return [straight(from.at, end.at)];
    return [{ isStraight: false, at: (t) => bulgePoint(from.at, { to: end.at, bulge: from.bulge }, t) }];
  });
  return { pieces, isClosed };
}

/** The line of an entity as pieces; null for those that are no line we follow (texts, hatches, splines, blocks). */
export function outlineOfItem(item: DxfItem): DxfOutline | null {
  const { record } = item;
  switch (record.type) {
    case 'LINE':
      return {
        pieces: [
          straight(at(numberOf(record, 10), numberOf(record, 20)), at(numberOf(record, 11), numberOf(record, 21))),
        ],
        isClosed: false,
      };
    case 'CIRCLE':
    case 'ARC':
      return circular(record);
    case 'ELLIPSE':
      return elliptical(record);
    case 'LWPOLYLINE':
    case 'POLYLINE':
      return cornered(item);
    default:
      return null;
  }
}

/** Control and fit points of a spline, or a point's place. */
export function looseCorners({ record }: DxfItem): readonly At[] {
  const points: At[] = [];
  let x = 0;
  for (const { code, value } of record.groups) {
    if (code === 10 || code === 11) x = Number(value);
    else if (code === 20 || code === 21) points.push(at(x, Number(value)));
  }
  return points;
}
