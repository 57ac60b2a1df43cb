import { DOMParser, onErrorStopParsing, type Element } from '@xmldom/xmldom';
import { fail, ok, type Result } from '@/core/result';
import { pathOutline } from './svg-outline';

export interface SvgPolyline {
  /** Stroke or fill colour as written. */
  readonly colour: string;
  readonly isFilled: boolean;
  readonly strokeWidth: number;
  /** Id of the group the path stands in. */
  readonly group: string;
  /** In the drawing's own units, y down. Curves by their end points only. */
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

export interface SvgContent {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly viewBox: readonly [number, number, number, number];
  readonly polylines: readonly SvgPolyline[];
}

export type SvgReadError =
  | { readonly kind: 'not-svg'; readonly reason: string }
  | { readonly kind: 'bad-path'; readonly index: number; readonly reason: string };

function lengthMm(text: string): number {
  const match = /^([\d.]+)mm$/.exec(text);
  return match ? Number(match[1]) : NaN;
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Sub-paths of one path element as polylines; a closed one ends where it began. */
function subPaths(d: string): Result<readonly (readonly Place[])[], string> {
  const outline = pathOutline(d);
  if (!outline.ok) return outline;
  return ok(
    outline.value.map(({ start, pieces, isClosed }) => {
      const ends = pieces.map((p) => (p.kind === 'line' ? p.to : p.cubic[3]));
      return [start, ...ends, ...(isClosed ? [start] : [])];
    }),
  );
}

function polylinesOf(element: Element, index: number): Result<SvgPolyline[], SvgReadError> {
  const lines = subPaths(element.getAttribute('d') ?? '');
  if (!lines.ok) return fail({ kind: 'bad-path', index, reason: lines.error });
  const stroke = element.getAttribute('stroke') ?? 'none';
  const fill = element.getAttribute('fill') ?? '#000000';
  const parent = element.parentNode as Element | null;
  return ok(
    lines.value.map((points) => ({
      colour: stroke === 'none' ? fill : stroke,
      isFilled: stroke === 'none',
      strokeWidth: Number(element.getAttribute('stroke-width') ?? '0'),
      group: parent?.getAttribute('id') ?? '',
      points,
    })),
  );
}

function rootOf(text: string): Result<Element, SvgReadError> {
  try {
    const root = new DOMParser({ onError: onErrorStopParsing }).parseFromString(text, 'image/svg+xml').documentElement;
    if (root?.localName !== 'svg') return fail({ kind: 'not-svg', reason: 'no svg element' });
    if (text.includes('transform=')) return fail({ kind: 'not-svg', reason: 'transforms are not read' });
    return ok(root);
  } catch (error) {
    return fail({ kind: 'not-svg', reason: error instanceof Error ? error.message : 'unreadable' });
  }
}

/** Reads plain drawings such as `writeSvg` makes: paths in groups, no transforms. Anything else is refused by name. */
export function readSvg(text: string): Result<SvgContent, SvgReadError> {
  const root = rootOf(text);
  if (!root.ok) return root;
  const [left = NaN, top = NaN, width = NaN, height = NaN] = (root.value.getAttribute('viewBox') ?? '')
    .split(/\s+/)
    .map(Number);
  const polylines: SvgPolyline[] = [];
  for (const [index, element] of Array.from(root.value.getElementsByTagName('path')).entries()) {
    const own = polylinesOf(element, index);
    if (!own.ok) return own;
    polylines.push(...own.value);
  }
  return ok({
    widthMm: lengthMm(root.value.getAttribute('width') ?? ''),
    heightMm: lengthMm(root.value.getAttribute('height') ?? ''),
    viewBox: [left, top, width, height],
    polylines,
  });
}
