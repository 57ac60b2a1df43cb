import { then, translation, type Affine } from '@/core/geometry/affine';

export interface View {
  readonly width: number;
  readonly height: number;
}

const ALIGN = /^\s*(?:defer\s+)?(none|x(Min|Mid|Max)Y(Min|Mid|Max))(?:\s+(meet|slice))?\s*$/;
const SHARE: Readonly<Record<string, number>> = { Min: 0, Mid: 0.5, Max: 1 };

/** Four numbers of a viewBox, or null. */
export function parseViewBox(words: string | undefined): readonly [number, number, number, number] | null {
  const v = (words ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [x = NaN, y = NaN, width = NaN, height = NaN] = v;
  const isRight = v.length === 4 && v.every((n) => Number.isFinite(n)) && width > 0 && height > 0;
  return isRight ? [x, y, width, height] : null;
}

/**
 * From the units inside a view box to those of the box it fills.
 * Source: W3C SVG 1.1 (second edition), 7.8. Null when the alignment's words are not understood.
 */
export function viewMap(
  box: readonly [number, number, number, number],
  place: View,
  aspect = 'xMidYMid meet',
): Affine<'file', 'file'> | null {
  const found = ALIGN.exec(aspect);
  if (!found) return null;
  const [x, y, width, height] = box;
  let sx = place.width / width;
  let sy = place.height / height;
  if (found[1] !== 'none') {
    const s = found[4] === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
    sx = s;
    sy = s;
  }
  const left = found[1] === 'none' ? 0 : (place.width - width * sx) * (SHARE[found[2] ?? ''] ?? 0);
  const top = found[1] === 'none' ? 0 : (place.height - height * sy) * (SHARE[found[3] ?? ''] ?? 0);
  const scaled: Affine<'file', 'file'> = { xx: sx, xy: 0, yx: 0, yy: sy, tx: -x * sx, ty: -y * sy };
  return then(scaled, translation<'file'>(left, top));
}
