import type { Frame, Point } from '@/core/geometry/affine';
import { chordsOf } from '@/core/geometry/curve';
import type { PathCommand } from './vector-drawing';

export interface FlatPath<F extends Frame = 'file'> {
  readonly points: readonly Point<F>[];
  readonly isClosed: boolean;
}

/**
 * Sub-paths of a path as straight pieces; curves by chords within 0.01 mm where nothing finer is asked for. Throws on a path
 * that begins without a start.
 */
export function flatten<F extends Frame = 'file'>(
  commands: readonly PathCommand<F>[],
  flatnessMm?: number,
): readonly FlatPath<F>[] {
  const paths: { points: Point<F>[]; isClosed: boolean }[] = [];
  for (const { op, points } of commands) {
    if (op === 'M') {
      paths.push({ points: [...points], isClosed: false });
      continue;
    }
    const path = paths.at(-1);
    const here = path?.points.at(-1);
    if (!path || !here) throw new Error('a path begins without a start');
    if (op === 'Z') path.isClosed = true;
    else if (op === 'L') path.points.push(...points);
    else path.points.push(...chordsOf([here, ...points], flatnessMm));
  }
  return paths;
}
