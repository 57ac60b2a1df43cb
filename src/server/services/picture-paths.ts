import 'server-only';
import type { Point } from '@/core/geometry/affine';
import type { SheetPicture } from '../standins/print-and-cut';

export interface PicturePaths {
  readonly fills: string;
  readonly lines: readonly { readonly widthMm: number; readonly d: string }[];
  readonly cuts: string;
}

const path = (points: readonly Point[]): string =>
  points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(3)} ${p.y.toFixed(3)}`).join('');

/** A picture as few long paths, for drawing: fills in one, lines by width, cuts in one. */
export function picturePaths(picture: SheetPicture): PicturePaths {
  const widths = new Map<number, string[]>();
  for (const line of picture.ink.filter((i) => !i.isFilled)) {
    const key = Math.round(line.widthMm * 1000) / 1000;
    widths.set(key, [...(widths.get(key) ?? []), path(line.points)]);
  }
  return {
    fills: picture.ink
      .filter((i) => i.isFilled)
      .map((i) => `${path(i.points)}Z`)
      .join(''),
    lines: [...widths].map(([widthMm, parts]) => ({ widthMm, d: parts.join('') })),
    cuts: picture.cuts.map(path).join(''),
  };
}
