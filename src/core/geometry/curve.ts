import type { Frame, Point } from './affine';

/** Largest distance between a curve and its chords, mm. */
const FLATNESS_MM = 0.01;

/** Point of a Bezier curve of any degree by de Casteljau's halving. */
function pointOn<F extends Frame>(controls: readonly Point<F>[], t: number): Point<F> {
  let level = controls;
  while (level.length > 1) {
    level = level.slice(1).map((p, i) => ({
      x: level[i]!.x + t * (p.x - level[i]!.x),
      y: level[i]!.y + t * (p.y - level[i]!.y),
    }));
  }
  return level[0]!;
}

/**
 * Chords of a Bezier curve, its start left out: enough that none lies farther from the curve than is told.
 * The count follows from the second difference of the controls: error <= |second difference| n(n-1)/8 / chords^2.
 * @param controls start, one or two controls, end. @param flatnessMm largest distance, 0.01 mm where none is told. Source: Wang 1984 flatness bound, from memory.
 */
export function chordsOf<F extends Frame>(
  controls: readonly Point<F>[],
  flatnessMm = FLATNESS_MM,
): readonly Point<F>[] {
  const degree = controls.length - 1;
  const bends = controls
    .slice(2)
    .map((p, i) =>
      Math.hypot(p.x - 2 * controls[i + 1]!.x + controls[i]!.x, p.y - 2 * controls[i + 1]!.y + controls[i]!.y),
    );
  const bound = (degree * (degree - 1) * Math.max(0, ...bends)) / 8;
  const count = Math.max(1, Math.ceil(Math.sqrt(bound / flatnessMm)));
  const inner = Array.from({ length: count - 1 }, (_, i) => pointOn(controls, (i + 1) / count));
  return [...inner, controls[degree]!];
}
