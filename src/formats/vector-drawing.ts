import type { Affine, Frame, Point } from '@/core/geometry/affine';
import { apply } from '@/core/geometry/affine';

/** One step of a path. Q: control, end. C: two controls, end. */
export interface PathCommand<F extends Frame = 'file'> {
  readonly op: 'M' | 'L' | 'Q' | 'C' | 'Z';
  readonly points: readonly Point<F>[];
}

/** How a drawn line ends and turns, in the words of SVG 1.1 (11.4), which are those of PDF (ISO 32000-1, 8.4.3) as well. */
export interface LineShape {
  readonly ends: 'butt' | 'round' | 'square';
  readonly corners: 'miter' | 'round' | 'bevel';
  /** A corner's tip may be so many line widths long; sharper ones are bevelled. */
  readonly miterLimit: number;
}

/** A drawn line: #rrggbb, mm. */
export interface LinePaint extends LineShape {
  readonly colour: string;
  readonly widthMm: number;
}

export interface VectorPath<F extends Frame = 'file'> {
  readonly commands: readonly PathCommand<F>[];
  /** A filled path has no stroke; a stroked one has no fill. */
  readonly paint:
    | { readonly kind: 'fill'; readonly isEvenOdd?: boolean }
    | { readonly kind: 'stroke'; readonly widthMm: number; readonly line?: LineShape };
  /** #rrggbb; the layer's own where none is told. */
  readonly colour?: string;
}

/** A picture in a drawing. */
export interface VectorImage {
  readonly format: 'png' | 'jpeg';
  readonly content: Uint8Array;
  /** From the picture's unit square, (0, 0) its lower left and (1, 1) its upper right corner, to the drawing. */
  readonly place: Affine<'picture', 'file'>;
}

export interface VectorLayer {
  /** Name as a program shows it: "ink", "cut 1", "cut 2". */
  readonly name: string;
  readonly colour: string;
  /** Name of the spot ink by which printing software knows these lines; PDF only. */
  readonly spotInk?: string;
  /** Pictures lie under the layer's paths. */
  readonly images?: readonly VectorImage[];
  readonly paths: readonly VectorPath[];
}

/** A drawing in its page's box: origin lower left, y up, mm. */
export interface VectorDrawing {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly layers: readonly VectorLayer[];
}

export function polyline<F extends Frame>(points: readonly Point<F>[]): readonly PathCommand<F>[] {
  const first = points[0];
  const last = points.at(-1);
  const isClosed =
    points.length > 2 && first !== undefined && last !== undefined && first.x === last.x && first.y === last.y;
  const corners = isClosed ? points.slice(0, -1) : points;
  const commands = corners.map((p, i): PathCommand<F> => ({ op: i === 0 ? 'M' : 'L', points: [p] }));
  return isClosed ? [...commands, { op: 'Z', points: [] }] : commands;
}

export function mapCommands<A extends Frame, B extends Frame>(
  map: Affine<A, B>,
  commands: readonly PathCommand<A>[],
): readonly PathCommand<B>[] {
  return commands.map((c) => ({ op: c.op, points: c.points.map((p) => apply(map, p)) }));
}
