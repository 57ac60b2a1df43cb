import { apply, cornersOf, largestDisplacement, type Affine } from '@/core/geometry/affine';
import { exaggerationFor } from '../components/exaggeration';

interface Size {
  readonly widthMm: number;
  readonly lengthMm: number;
}

interface Props {
  readonly page: Size;
  readonly frame: Size;
  readonly map: Affine | null;
  readonly label: string;
}

/** The page with its frame where it should be, thin, and where it was found, solid. */
export function MeasuredPicture({ page, frame, map, label }: Props) {
  const corners = cornersOf(frame.widthMm, frame.lengthMm);
  const times = map ? exaggerationFor(largestDisplacement(map, corners), page.lengthMm) : 1;
  const found = map
    ? corners.map((p) => {
        const q = apply(map, p);
        return { x: p.x + times * (q.x - p.x), y: p.y + times * (q.y - p.y) };
      })
    : corners;
  const outline = (points: readonly { x: number; y: number }[]): string =>
    `M${points.map((p) => `${p.x.toFixed(2)} ${(-p.y).toFixed(2)}`).join('L')}Z`;
  const half = { x: page.widthMm / 2, y: page.lengthMm / 2 };
  const room = 0.08 * page.lengthMm;
  return (
    <figure className="m-0">
      <svg
        viewBox={`${-half.x - room} ${-half.y - room} ${page.widthMm + 2 * room} ${page.lengthMm + 2 * room}`}
        className="w-100"
        style={{ maxHeight: '60vh' }}
        role="img"
        aria-label={label}
      >
        <rect
          x={-half.x}
          y={-half.y}
          width={page.widthMm}
          height={page.lengthMm}
          fill="var(--sheet)"
          stroke="var(--rule)"
        />
        <path d={outline(corners)} fill="none" stroke="var(--ink-2)" strokeDasharray="2 3" />
        <path d={outline(found)} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
        <path d={`M0 ${-half.y + 14}l-5 9h3v8h4v-8h3z`} fill="var(--ink)" />
      </svg>
      <figcaption className="quiet">
        {map
          ? `Thin: where it should be. Solid: as measured, ${times === 1 ? 'true to scale' : `${times} times too far off`}.`
          : 'Arrow up, printed face towards you.'}
      </figcaption>
    </figure>
  );
}
