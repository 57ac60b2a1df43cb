import 'server-only';
import type { LoadModel } from '@/core/fit/load-noise';
import type { LoadMap } from '@/core/fit/mark-noise';
import type { Point } from '@/core/geometry/affine';
import type { findLoadMaps } from '@/db/queries/calibration';

type Row = Awaited<ReturnType<typeof findLoadMaps>>[number];
interface Marked {
  readonly marks: readonly Point[];
  readonly loadModel: LoadModel;
}

/** Marks and what the machine makes of them, as they are kept with a load. */
export const marksOf = ({ marks, loadModel }: Marked) => ({ marks: marks.flatMap((p) => [p.x, p.y]), loadModel });

const isLike = (row: Row, own: ReturnType<typeof marksOf>): boolean =>
  row.map.loadModel === own.loadModel &&
  row.map.marks.length === own.marks.length &&
  row.map.marks.every((value, i) => Math.abs(value - (own.marks[i] ?? NaN)) < 1e-9);

/**
 * Loads of earlier states of a setup, state by state, as far as the same marks were read in the same way. Of a state that
 * was fitted more than once the newest fit counts; the state that is being looked at is left out.
 * @param rows newest fit first.
 */
export function earlierLoads(
  rows: readonly Row[],
  own: Marked & { readonly calibrationId: string; readonly correctionId: string | null },
): readonly (readonly LoadMap[])[] {
  const wanted = marksOf(own);
  const newest = new Map<string, Row[]>();
  for (const row of rows) {
    const isOwn = row.calibrationId === own.calibrationId && row.map.correctionId === own.correctionId;
    if (isOwn || !isLike(row, wanted)) continue;
    const state = `${row.calibrationId} ${row.map.correctionId ?? ''}`;
    const known = newest.get(state) ?? [];
    if (known.every((k) => k.map.fitId === row.map.fitId)) newest.set(state, [...known, row]);
  }
  return [...newest.values()].map((group) =>
    group.map(({ map }): LoadMap => ({ beta: map.parameters, readingCovariance: map.covariance })),
  );
}
