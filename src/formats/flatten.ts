import type { Point } from '@/core/geometry/affine';
import { chordsOf } from '@/core/geometry/curve';
import type { PathCommand } from './vector-drawing';

export interface FlatPath {
  readonly points: readonly Point<'file'>[];
  readonly isClosed: boolean;
}

/** Sub-paths of a path as straight pieces; curves by chords within 0.01 mm. Throws on a path that begins without a start. */
export function flatten(commands: readonly PathCommand[]): readonly FlatPath[] {
  const paths: { points: Point<'file'>[]; isClosed: boolean }[] = [];
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
    else path.points.push(...chordsOf([here, ...points]));
  }
  return paths;
}
