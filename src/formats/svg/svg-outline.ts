import { SVGPathData, SVGPathDataParser, SVGPathDataTransformer, type SVGCommand } from 'svg-pathdata';
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

/** Curve of one absolute segment without shorthands, as cubics. */
function curvesOf(c: SVGCommand, here: At): readonly Cubic<'file'>[] {
  if (c.type === SVGPathData.CURVE_TO) return [[here, at(c.x1, c.y1), at(c.x2, c.y2), at(c.x, c.y)]];
  if (c.type === SVGPathData.QUAD_TO) return [quadraticAsCubic(here, at(c.x1, c.y1), at(c.x, c.y))];
  if (c.type !== SVGPathData.ARC) return [];
  const to = at(c.x, c.y);
  const arc = arcByCentre({
    from: here,
    to,
    radiusX: c.rX,
    radiusY: c.rY,
    turnRad: (c.xRot * Math.PI) / 180,
    isLarge: c.lArcFlag !== 0,
    isCounterClockwise: c.sweepFlag !== 0,
  });
  return arc ? arcAsCubics(arc) : [lineAsCubic(here, to)];
}

/** The end of a straight segment; null for a curve. */
function straightEnd(c: SVGCommand, here: At): At | null {
  if (c.type === SVGPathData.LINE_TO) return at(c.x, c.y);
  if (c.type === SVGPathData.HORIZ_LINE_TO) return at(c.x, here.y);
  return c.type === SVGPathData.VERT_LINE_TO ? at(here.x, c.y) : null;
}

interface Drafter {
  readonly paths: Draft[];
  here: At;
}

function openPath(drafter: Drafter, start: At): Draft {
  const path: Draft = { start, pieces: [], isClosed: false };
  drafter.paths.push(path);
  drafter.here = start;
  return path;
}

/** Takes one absolute segment. A path goes on from its start after it was closed. */
function takeSegment(drafter: Drafter, c: SVGCommand): void {
  const last = drafter.paths.at(-1);
  if (c.type === SVGPathData.MOVE_TO) {
    openPath(drafter, at(c.x, c.y));
    return;
  }
  if (c.type === SVGPathData.CLOSE_PATH) {
    if (last) last.isClosed = true;
    drafter.here = last?.start ?? drafter.here;
    return;
  }
  const own = last && !last.isClosed ? last : openPath(drafter, drafter.here);
  const to = straightEnd(c, drafter.here);
  if (to) own.pieces.push({ kind: 'line', to });
  else for (const cubic of curvesOf(c, drafter.here)) own.pieces.push({ kind: 'curve', cubic });
  const end = own.pieces.at(-1);
  if (end) drafter.here = end.kind === 'line' ? end.to : end.cubic[3];
}

const MOST_SEGMENTS = 1_200_000;
/** Read a stretch at a time: a path of a million points is never held twice. */
const STRETCH = 65_536;

/** Sub-paths of path data. @returns the words of what was not understood. */
export function pathOutline(data: string): Result<readonly SubPath[], string> {
  if (data.trim() === '' || data.trim() === 'none') return ok([]);
  const parser = new SVGPathDataParser();
  const toAbsolute = SVGPathDataTransformer.TO_ABS();
  const toPlain = SVGPathDataTransformer.NORMALIZE_ST();
  const drafter: Drafter = { paths: [], here: at(0, 0) };
  let left = MOST_SEGMENTS;
  const takeAll = (commands: readonly SVGCommand[]): void => {
    left -= commands.length;
    for (const command of commands) takeSegment(drafter, toPlain(toAbsolute(command) as SVGCommand) as SVGCommand);
  };
  try {
    for (let i = 0; i < data.length && left > 0; i += STRETCH) takeAll(parser.parse(data.slice(i, i + STRETCH), []));
    if (left > 0) takeAll(parser.finish([]));
  } catch (error) {
    return fail(error instanceof Error ? error.message : String(error));
  }
  return left > 0 ? ok(drafter.paths) : fail(`it has more than ${MOST_SEGMENTS} pieces`);
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
        // A list of points is what follows a path's first letter.
        const { points = '' } = element.attributes;
        if (points.trim() === '') return ok([]);
        const path = pathOutline(`M${points}${element.name === 'polygon' ? 'Z' : ''}`);
        return path.ok ? path : fail('its points are not pairs of numbers');
      }
    }
  };
  const read = outline();
  const [first] = bad;
  return first === undefined ? read : fail(first);
}

/** Visits the points that hold sub-paths inside their box: ends and controls. */
export function eachHullPoint(paths: readonly SubPath[], visit: (place: At) => void): void {
  for (const { start, pieces } of paths) {
    visit(start);
    for (const piece of pieces) {
      if (piece.kind === 'line') visit(piece.to);
      else piece.cubic.forEach(visit);
    }
  }
}
