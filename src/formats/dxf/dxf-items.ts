import type { Point } from '@/core/geometry/affine';
import { bulgePoint } from '@/core/geometry/bulge';
import { codeAt, numberOf, valueAt, valueOf, type DxfFile, type DxfRecord } from './dxf-groups';

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
  /** Made one by one, as often as asked for: a polyline may have a million. */
  readonly pieces: () => Iterable<DxfPiece>;
  readonly isCurved: boolean;
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

function itemOf(file: DxfFile, record: DxfRecord): Omit<DxfItem, 'vertices' | 'tail'> {
  const layer = valueOf(record, 8) ?? '0';
  return { record, layer, colour: colourOf(file, record, layer) };
}

/** Entities in order; vertices stand with their polyline. Paper space is not the drawing, nor are its vertices. */
export function* itemsOf(file: DxfFile, records: readonly DxfRecord[]): Generator<DxfItem> {
  let open: DxfRecord | null = null;
  let vertices: DxfRecord[] = [];
  for (const record of records) {
    if (record.type === 'VERTEX') vertices.push(record);
    else {
      const isEnd = record.type === 'SEQEND';
      if (open) yield { ...itemOf(file, open), vertices, tail: isEnd ? record : null };
      vertices = [];
      open = isEnd || valueOf(record, 67) === '1' ? null : record;
    }
  }
  if (open) yield { ...itemOf(file, open), vertices, tail: null };
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

const straight = (from: At, to: At): DxfPiece => ({
  isStraight: true,
  at: (t) => at(from.x + t * (to.x - from.x), from.y + t * (to.y - from.y)),
});

/** A curve by angle, in pieces of at most a quarter. */
function turning(point: (angleRad: number) => At, startRad: number, sweepRad: number, isClosed: boolean): DxfOutline {
  const count = Math.max(1, Math.ceil(Math.abs(sweepRad) / (Math.PI / 2) - 1e-9));
  const step = sweepRad / count;
  const pieces = Array.from({ length: count }, (_, i) => ({
    isStraight: false,
    at: (t: number) => point(startRad + (i + t) * step),
  }));
  return { pieces: () => pieces, isCurved: true, isClosed };
}

const fullTurn = (sweepRad: number): number => (sweepRad <= 1e-12 ? sweepRad + 2 * Math.PI : sweepRad);

function circular(record: DxfRecord): DxfOutline {
  const centre = at(numberOf(record, 10), numberOf(record, 20));
  const radius = numberOf(record, 40);
  const point = (angle: number): At => at(centre.x + radius * Math.cos(angle), centre.y + radius * Math.sin(angle));
  if (record.type === 'CIRCLE') return turning(point, 0, 2 * Math.PI, true);
  const start = degrees(numberOf(record, 50));
  const sweep = fullTurn((degrees(numberOf(record, 51)) - start) % (2 * Math.PI));
  return turning(point, start, sweep, false);
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
  return turning(point, start, sweep, Math.abs(sweep - 2 * Math.PI) < 1e-9);
}

/** Corners of a polyline as columns, with the bulge of the piece that leaves each. */
interface Corners {
  readonly xs: number[];
  readonly ys: number[];
  readonly bulges: number[];
}

function cornersOf({ record, vertices }: DxfItem): Corners {
  const corners: Corners = { xs: [], ys: [], bulges: [] };
  const { xs, ys, bulges } = corners;
  if (record.type === 'POLYLINE') {
    for (const vertex of vertices) {
      xs.push(numberOf(vertex, 10));
      ys.push(numberOf(vertex, 20));
      bulges.push(numberOf(vertex, 42));
    }
    return corners;
  }
  const { groups, from, to } = record;
  let x = 0;
  for (let i = from; i < to; i++) {
    const code = codeAt(groups, i);
    if (code === 10) x = Number(valueAt(groups, i));
    else if (code === 20) {
      xs.push(x);
      ys.push(Number(valueAt(groups, i)));
      bulges.push(0);
    } else if (code === 42 && bulges.length > 0) bulges[bulges.length - 1] = Number(valueAt(groups, i));
  }
  return corners;
}

function* piecesThrough({ xs, ys, bulges }: Corners, isClosed: boolean): Generator<DxfPiece> {
  const last = isClosed ? xs.length : xs.length - 1;
  for (let i = 0; i < last; i++) {
    const next = (i + 1) % xs.length;
    const from = at(xs[i] ?? 0, ys[i] ?? 0);
    const to = at(xs[next] ?? 0, ys[next] ?? 0);
    const bulge = bulges[i] ?? 0;
    if (bulge === 0) yield straight(from, to);
    else yield { isStraight: false, at: (t) => bulgePoint(from, { to, bulge }, t) };
  }
}

function cornered(item: DxfItem): DxfOutline {
  const corners = cornersOf(item);
  const isClosed = (numberOf(item.record, 70) & 1) === 1;
  // The bulge of an open line's last corner leads nowhere.
  const isCurved = corners.bulges.some((bulge, i) => bulge !== 0 && (isClosed || i < corners.bulges.length - 1));
  return { pieces: () => piecesThrough(corners, isClosed), isCurved, isClosed };
}

function lineOutline(record: DxfRecord): DxfOutline {
  const piece = straight(
    at(numberOf(record, 10), numberOf(record, 20)),
    at(numberOf(record, 11), numberOf(record, 21)),
  );
  return { pieces: () => [piece], isCurved: false, isClosed: false };
}

/** The line of an entity as pieces; null for those that are no line we follow (texts, hatches, splines, blocks). */
export function outlineOfItem(item: DxfItem): DxfOutline | null {
  const { record } = item;
  switch (record.type) {
    case 'LINE':
      return lineOutline(record);
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

/** Visits the control and fit points of a spline, or a point's place. */
export function eachLooseCorner({ record: { groups, from, to } }: DxfItem, visit: (place: At) => void): void {
  let x = 0;
  for (let i = from; i < to; i++) {
    const code = codeAt(groups, i);
    if (code === 10 || code === 11) x = Number(valueAt(groups, i));
    else if (code === 20 || code === 21) visit(at(x, Number(valueAt(groups, i))));
  }
}
