import svgpath from 'svgpath';
import type { Point } from '@/core/geometry/affine';
import { arcAsCubics, arcByCentre, type Arc } from '@/core/geometry/arc';
import { lineAsCubic, quadraticAsCubic, type Cubic } from '@/core/geometry/cubic';
import { fail, ok, type Result } from '@/core/result';
import type { SvgElement } from './svg-elements';
import { svgLength } from './svg-length';

type At = Point<'file'>;

/** A piece of an outline in the element's own units. A straight piece is kept apart, so that it can stay one. */
export type OutlinePiece =
  { readonly kind: 'line'; readonly to: At } | { readonly kind: 'curve'; readonly cubic: Cubic<'file'> };

export interface SubPath {
  readonly start: At;
  readonly pieces: readonly OutlinePiece[];
  readonly isClosed: boolean;
}

const at = (x: number, y: number): At => ({ x, y });

interface Draft {
  start: At;
  readonly pieces: OutlinePiece[];
  isClosed: boolean;
}

/** Cubics of one absolute curve segment. */
function curvesOf(name: string, v: readonly number[], here: At): readonly Cubic<'file'>[] {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0] = v;
  if (name === 'C') return [[here, at(a, b), at(c, d), at(e, f)]];
  if (name === 'Q') return [quadraticAsCubic(here, at(a, b), at(c, d))];
  const to = at(f, g);
  const arc = arcByCentre({
    from: here,
    to,
    radiusX: a,
    radiusY: b,
    turnRad: (c * Math.PI) / 180,
    isLarge: d !== 0,
    isCounterClockwise: e !== 0,
  });
  return arc ? arcAsCubics(arc) : [lineAsCubic(here, to)];
}

const MOST_SEGMENTS = 2_000_000;

/** The end of a straight segment; null for a curve. */
function straightEnd(name: string, v: readonly number[], here: At): At | null {
  const [a = 0, b = 0] = v;
  if (name === 'L') return at(a, b);
  if (name === 'H') return at(a, here.y);
  return name === 'V' ? at(here.x, a) : null;
}

/** Takes one absolute segment into the draft. A path goes on from its start after it was closed. */
function takeSegment(paths: Draft[], name: string, v: readonly number[], here: At): void {
  const last = paths.at(-1);
  if (name === 'M') {
    paths.push({ start: at(v[0] ?? 0, v[1] ?? 0), pieces: [], isClosed: false });
    return;
  }
  if (name === 'Z') {
    if (last) last.isClosed = true;
    return;
  }
  const own = last && !last.isClosed ? last : { start: here, pieces: [], isClosed: false };
  if (own !== last) paths.push(own);
  const to = straightEnd(name, v, here);
  if (to) own.pieces.push({ kind: 'line', to });
  else for (const cubic of curvesOf(name, v, here)) own.pieces.push({ kind: 'curve', cubic });
}

/** Sub-paths of path data. @returns the words of what was not understood. */
export function pathOutline(data: string): Result<readonly SubPath[], string> {
  if (data.trim() === '' || data.trim() === 'none') return ok([]);
  const path = svgpath(data).abs().unshort();
  const { err, segments } = path as unknown as { readonly err: string; readonly segments: readonly unknown[] };
  if (err) return fail(err);
  if (segments.length > MOST_SEGMENTS) return fail('it has more than two million pieces');
  const paths: Draft[] = [];
  path.iterate((segment, _index, x, y) => {
    const [name, ...values] = segment as [string, ...(string | number)[]];
    takeSegment(paths, name, values.map(Number), at(x, y));
  });
  return ok(paths);
}

const straight = (points: readonly At[], isClosed: boolean): readonly SubPath[] => {
  const [start, ...rest] = points;
  return start ? [{ start, pieces: rest.map((to) => ({ kind: 'line', to })), isClosed }] : [];
};

function ellipse(centre: At, radiusX: number, radiusY: number): readonly SubPath[] {
  if (!(radiusX > 0) || !(radiusY > 0)) return [];
  const arc: Arc<'file'> = { centre, radiusX, radiusY, turnRad: 0, startRad: 0, sweepRad: 2 * Math.PI };
  const pieces = arcAsCubics(arc).map((cubic): OutlinePiece => ({ kind: 'curve', cubic }));
  return [{ start: at(centre.x + radiusX, centre.y), pieces, isClosed: true }];
}

/** A rectangle, with round corners where it has them: as path data, so that one reader does all. */
function rectangleOf(element: SvgElement, length: (name: string) => number): string {
  const [x, y, width, height] = ['x', 'y', 'width', 'height'].map(length) as [number, number, number, number];
  if (!(width > 0) || !(height > 0)) return '';
  const radius = (name: 'rx' | 'ry', other: 'rx' | 'ry'): number =>
    length(element.attributes[name] === undefined ? other : name);
  const rx = Math.min(radius('rx', 'ry'), width / 2);
  const ry = Math.min(radius('ry', 'rx'), height / 2);
  if (rx <= 0 || ry <= 0) return `M${x} ${y}h${width}v${height}h${-width}z`;
  const arc = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  return `M${x + rx} ${y}H${x + width - rx}${arc(rx, ry)}V${y + height - ry}${arc(-rx, ry)}H${x + rx}${arc(-rx, -ry)}V${y + ry}${arc(rx, -ry)}z`;
}

function pointsOf(words: string): Result<readonly At[], string> {
  const numbers = words
    .trim()
    .split(/[\s,]+|(?<=[\d.])(?=[+-])/)
    .filter(Boolean)
    .map(Number);
  if (numbers.some((n) => !Number.isFinite(n)) || numbers.length % 2 !== 0)
    return fail('its points are not pairs of numbers');
  return ok(numbers.flatMap((x, i) => (i % 2 === 0 ? [at(x, numbers[i + 1] ?? 0)] : [])));
}

export const SHAPES: ReadonlySet<string> = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

/**
 * Outline of a shape in its own units; percentages are of the view it stands in.
 * @returns sub-paths, or the words of what was not understood.
 */
export function outlineOf(element: SvgElement, view: { readonly width: number; readonly height: number }) {
  const bad: string[] = [];
  const diagonal = Math.hypot(view.width, view.height) / Math.SQRT2;
  const length = (name: string): number => {
    const value = element.attributes[name];
    if (value === undefined) return 0;
    const isAcross = /x|width|^r$/.test(name);
    const base = name === 'r' ? diagonal : isAcross ? view.width : view.height;
    const read = svgLength(value, base);
    if (read === null) bad.push(`${name}="${value.slice(0, 40)}" is no length`);
    return read ?? 0;
  };
  const outline = (): Result<readonly SubPath[], string> => {
    switch (element.name) {
      case 'path':
        return pathOutline(element.attributes.d ?? '');
      case 'rect':
        return pathOutline(rectangleOf(element, length));
      case 'circle':
        return ok(ellipse(at(length('cx'), length('cy')), length('r'), length('r')));
      case 'ellipse':
        return ok(ellipse(at(length('cx'), length('cy')), length('rx'), length('ry')));
      case 'line':
        return ok(straight([at(length('x1'), length('y1')), at(length('x2'), length('y2'))], false));
      default: {
        const points = pointsOf(element.attributes.points ?? '');
        return points.ok ? ok(straight(points.value, element.name === 'polygon')) : points;
      }
    }
  };
  const read = outline();
  const [first] = bad;
  return first === undefined ? read : fail(first);
}

/** Points that hold a sub-path inside their box: ends and controls. */
export function hullOf(paths: readonly SubPath[]): readonly At[] {
  return paths.flatMap((p) => [p.start, ...p.pieces.flatMap((s) => (s.kind === 'line' ? [s.to] : s.cubic))]);
}
