import { color } from 'd3';
import type { Result } from '@/core/result';
import type { FileProblem } from '../cut-file/cut-file';
import type { LineShape } from '../vector-drawing';
import type { SvgTree } from './svg-elements';
import { svgLength } from './svg-length';
import { ownValue, readStyles, type StyleSheet } from './svg-style';

/** What an element is drawn with, as written, after inheritance; undefined where nothing sets it. */
export interface PaintWords {
  readonly fill?: string | undefined;
  readonly fillRule?: string | undefined;
  readonly stroke?: string | undefined;
  readonly strokeWidth?: string | undefined;
  readonly lineCap?: string | undefined;
  readonly lineJoin?: string | undefined;
  readonly miterLimit?: string | undefined;
  readonly dashes?: string | undefined;
  readonly visibility?: string | undefined;
  readonly colour?: string | undefined;
  /** In an element that is not displayed. */
  readonly isHidden: boolean;
  /** Names of what it or something about it asks for, and a print file here cannot carry. */
  readonly beyond: readonly string[];
}

const INHERITED = {
  fill: 'fill',
  fillRule: 'fill-rule',
  stroke: 'stroke',
  strokeWidth: 'stroke-width',
  lineCap: 'stroke-linecap',
  lineJoin: 'stroke-linejoin',
  miterLimit: 'stroke-miterlimit',
  dashes: 'stroke-dasharray',
  visibility: 'visibility',
  colour: 'color',
} as const;

/** Properties that are refused where they are set to anything else than this. */
const REFUSED: readonly (readonly [property: string, plain: readonly string[], name: string])[] = [
  ['opacity', ['1'], 'transparency'],
  ['fill-opacity', ['1'], 'transparency'],
  ['stroke-opacity', ['1'], 'transparency'],
  ['filter', ['none'], 'a filter'],
  ['clip-path', ['none'], 'a clipped part'],
  ['mask', ['none'], 'a mask'],
  ['mix-blend-mode', ['normal'], 'blending'],
  ['marker', ['none'], 'arrow heads'],
  ['marker-start', ['none'], 'arrow heads'],
  ['marker-mid', ['none'], 'arrow heads'],
  ['marker-end', ['none'], 'arrow heads'],
];

const PAINT_PROPERTIES: ReadonlySet<string> = new Set([
  ...Object.values(INHERITED),
  ...REFUSED.map(([property]) => property),
  'display',
]);

const NOTHING: PaintWords = { isHidden: false, beyond: [] };

function paintOf(sheet: StyleSheet, element: SvgTree['elements'][number], above: PaintWords): PaintWords {
  const inherited = Object.fromEntries(
    Object.entries(INHERITED).map(([name, property]) => {
      const own = ownValue(sheet, element, property);
      return [name, own === undefined || own === 'inherit' ? above[name as keyof typeof INHERITED] : own];
    }),
  );
  const beyond = REFUSED.flatMap(([property, plain, name]) => {
    const own = ownValue(sheet, element, property);
    return own === undefined || own === 'inherit' || plain.includes(own) || Number(own) === 1 ? [] : [name];
  });
  return {
    ...inherited,
    isHidden: above.isHidden || ownValue(sheet, element, 'display') === 'none',
    beyond: beyond.length > 0 ? [...new Set([...above.beyond, ...beyond])] : above.beyond,
  };
}

/** Paint of every element, in the tree's order. */
export function paintsOf(tree: SvgTree): Result<readonly PaintWords[], FileProblem> {
  const sheet = readStyles(tree.styles, PAINT_PROPERTIES);
  if (!sheet.ok) return sheet;
  const paints: PaintWords[] = [];
  for (const element of tree.elements) paints.push(paintOf(sheet.value, element, paints[element.parent] ?? NOTHING));
  return { ok: true, value: paints };
}

/** A use's content takes from the use what it does not say itself. */
export const withPaintOf = (own: PaintWords, use: PaintWords): PaintWords => ({
  ...use,
  ...Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined)),
  isHidden: own.isHidden || use.isHidden,
  beyond: [...new Set([...own.beyond, ...use.beyond])],
});

export interface PlainPaint {
  /** #rrggbb; null: not filled. */
  readonly fill: string | null;
  readonly isEvenOdd: boolean;
  /** Width in the shape's own units; null: not stroked. */
  readonly stroke: (LineShape & { readonly colour: string; readonly width: number }) | null;
  readonly beyond: readonly string[];
}

/** A colour as #rrggbb; null for none, undefined where it is none that can be printed plainly. */
function plainColour(words: string | undefined, absent: string | null, current: string | undefined) {
  const value = words === 'currentColor' ? (current ?? '#000000') : words;
  if (value === undefined) return absent;
  if (value === 'none' || value === 'transparent') return null;
  const known = color(value);
  return known && known.opacity === 1 ? known.formatHex() : undefined;
}

const ENDS = ['butt', 'round', 'square'] as const;
const CORNERS = ['miter', 'round', 'bevel'] as const;

/** How a line ends and turns; null where it says so in words of its own. Miter limit: 4 where none is told (SVG 1.1, 11.4). */
function lineShape({ lineCap = 'butt', lineJoin = 'miter', miterLimit = '4' }: PaintWords): LineShape | null {
  const ends = ENDS.find((word) => word === lineCap);
  const corners = CORNERS.find((word) => word === lineJoin);
  const limit = Number(miterLimit);
  return ends && corners && limit >= 1 ? { ends, corners, miterLimit: limit } : null;
}

/** What a drawn line asks for that the writers here do not know. */
const lineBeyond = ({ dashes = 'none' }: PaintWords, shape: LineShape | null): readonly string[] => [
  ...(dashes === 'none' ? [] : ['a dashed line']),
  ...(shape ? [] : ['line ends or corners of an unknown kind']),
];

/** What an element's paint comes to: plain colours and a width, and the names of what is beyond a plain print file. */
export function plainPaint(words: PaintWords): PlainPaint {
  const fill = plainColour(words.fill, '#000000', words.colour);
  const colour = plainColour(words.stroke, null, words.colour);
  const width = words.strokeWidth === undefined ? 1 : svgLength(words.strokeWidth, 100);
  const line = lineShape(words);
  const beyond = [
    ...words.beyond,
    ...(fill === undefined || colour === undefined ? ['a gradient, a pattern or a see-through colour'] : []),
    ...(colour === null ? [] : lineBeyond(words, line)),
    ...(width === null ? ['a line width that is no length'] : []),
  ];
  return {
    fill: fill ?? null,
    isEvenOdd: words.fillRule === 'evenodd',
    stroke: colour && width && line ? { colour, width, ...line } : null,
    beyond: [...new Set(beyond)],
  };
}
