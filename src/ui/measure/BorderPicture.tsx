import type { BorderSide } from '@/core/reading/borders';
import type { Point } from '@/core/geometry/affine';

interface Props {
  readonly side: BorderSide;
  /** Cut less print, mm. */
  readonly shift: Point;
}

/** A shift of a mm is a tenth of the picture. */
const UNITS_PER_MM = 10;
const FARTHEST = 18;

const bounded = (mm: number): number => Math.max(-FARTHEST, Math.min(FARTHEST, UNITS_PER_MM * mm));

/** One piece as it would look: print solid in ink, the cut dashed in red where the borders put it. */
export function BorderPicture({ side, shift }: Props) {
  const isOutside = side === 'outside';
  const cut = isOutside ? 40 : 20;
  const print = isOutside ? 20 : 40;
  const piece = (
    <rect
      x={-cut + bounded(shift.x)}
      y={-cut - bounded(shift.y)}
      width={2 * cut}
      height={2 * cut}
      fill="var(--sheet)"
      stroke="var(--plumb)"
      strokeWidth="1.4"
      strokeDasharray="5 3"
    />
  );
  return (
    <svg
      viewBox="-60 -60 120 120"
      className="w-100"
      style={{ maxHeight: '50vh' }}
      role="img"
      aria-label="The piece with its borders as typed, the shift drawn larger"
    >
      {isOutside && piece}
      <rect x={-print} y={-print} width={2 * print} height={2 * print} fill="var(--ink)" />
      {!isOutside && piece}
    </svg>
  );
}
