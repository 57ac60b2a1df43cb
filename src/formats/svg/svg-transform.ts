import { identity, then, translation, type Affine } from '@/core/geometry/affine';

const NUMBER = '[+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][+-]?\\d+)?';
const CALL = new RegExp(
  `\\s*(matrix|translate|scale|rotate|skewX|skewY)\\s*\\(\\s*(${NUMBER}(?:(?:\\s+,?\\s*|,\\s*|(?=[+-]))${NUMBER})*)\\s*\\)\\s*,?`,
  'y',
);
const degrees = (deg: number): number => (deg * Math.PI) / 180;

type Map = Affine<'file', 'file'>;

/** SVG's order of a matrix: columns first. */
const matrix = ([xx = 1, yx = 0, xy = 0, yy = 1, tx = 0, ty = 0]: readonly number[]): Map => ({
  xx,
  xy,
  yx,
  yy,
  tx,
  ty,
});

function rotation(deg: number): Map {
  const c = Math.cos(degrees(deg));
  const s = Math.sin(degrees(deg));
  return matrix([c, s, -s, c]);
}

/** Every call with its number of values. */
const CALLS: Readonly<Record<string, (v: readonly number[]) => Map>> = {
  'matrix 6': matrix,
  'translate 1': ([x = 0]) => translation(x, 0),
  'translate 2': ([x = 0, y = 0]) => translation(x, y),
  'scale 1': ([s = 1]) => matrix([s, 0, 0, s]),
  'scale 2': ([x = 1, y = 1]) => matrix([x, 0, 0, y]),
  'rotate 1': ([a = 0]) => rotation(a),
  'rotate 3': ([a = 0, x = 0, y = 0]) =>
    then(then(translation<'file'>(-x, -y), rotation(a)), translation<'file'>(x, y)),
  'skewX 1': ([a = 0]) => matrix([1, 0, Math.tan(degrees(a)), 1]),
  'skewY 1': ([a = 0]) => matrix([1, Math.tan(degrees(a)), 0, 1]),
};

/**
 * The map of a transform attribute, by its grammar. Source: W3C SVG 1.1 (second edition), 7.6.
 * @returns null when any part of it is not understood: nothing is taken half.
 */
export function parseTransform(attribute: string): Affine<'file', 'file'> | null {
  if (attribute === '') return identity<'file'>();
  if (attribute.length > 10_000) return null;
  let map = identity<'file'>();
  let at = 0;
  while (at < attribute.length && attribute.slice(at).trim() !== '') {
    CALL.lastIndex = at;
    const call = CALL.exec(attribute);
    if (!call) return null;
    const values = [...(call[2] ?? '').matchAll(new RegExp(NUMBER, 'g'))].map((m) => Number(m[0]));
    const own = CALLS[`${call[1] ?? ''} ${values.length}`]?.(values);
    if (!own || values.some((value) => !Number.isFinite(value))) return null;
    // The first of the list is the outermost.
    map = then(own, map);
    at = CALL.lastIndex;
  }
  return map;
}

/** A map as an SVG matrix, with 12 significant digits: 1 nm over a metre. */
export const matrixWords = (m: Affine<'file', 'file'>): string =>
  `matrix(${[m.xx, m.yx, m.xy, m.yy, m.tx, m.ty].map((v) => String(Number(v.toPrecision(13)))).join(' ')})`;
