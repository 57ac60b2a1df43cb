import { apply, cornersOf, type Affine, type Point } from '@/core/geometry/affine';
import { mapOnSheet, type FeedDirection, type Load } from '@/core/geometry/load';
import { magnificationFor } from '../map/map-layout';
import { sheetFrame } from '../sheet/sheet-frame';

interface Props {
  readonly before: Affine;
  readonly after: Affine<'machine', 'machine'>;
  readonly load: Load;
  readonly feed: FeedDirection;
  readonly turnDeg: number;
  readonly area: { readonly widthMm: number; readonly lengthMm: number };
  readonly worstMm: number;
}

function outline(map: Affine, corners: readonly Point[], magnification: number): string {
  return corners
    .map((p) => {
      const q = apply(map, p);
      return `${p.x + (q.x - p.x) * magnification},${p.y + (q.y - p.y) * magnification}`;
    })
    .join(' ');
}

/** Print in ink, cut as it is and as it will be, magnified: which way the settings move it. */
export function MovePicture({ before, after, load, feed, turnDeg, area, worstMm }: Props) {
  const corners = cornersOf(area.widthMm, area.lengthMm);
  const magnification = magnificationFor(worstMm);
  const frame = sheetFrame(area, turnDeg, 32);
  return (
    <figure className="mb-0">
      <svg
        className="drawing"
        viewBox={frame.viewBox}
        role="img"
        aria-label="Print, cut now, and cut after the change"
        style={{ maxHeight: '70vh' }}
      >
        <g transform={load.face === 'ink-down' ? `${frame.transform} scale(-1 1)` : frame.transform}>
          <polygon
            points={corners.map((p) => `${p.x},${p.y}`).join(' ')}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
          <polygon
            points={outline(before, corners, magnification)}
            fill="none"
            stroke="var(--plumb)"
            strokeWidth="1"
            strokeDasharray="5 3"
          />
          <polygon
            points={outline(mapOnSheet(after, load), corners, magnification)}
            fill="none"
            stroke="var(--plumb)"
            strokeWidth="2"
            strokeDasharray="2 2"
          />
        </g>
        <text x="0" y="0" textAnchor="middle" fontSize="8" fill="var(--ink-2)">
          {feed === 'away' ? 'leading edge away from you' : 'leading edge towards you'}
        </text>
      </svg>
      <figcaption className="quiet mt-2">{`Print in ink; long dashes: the cut now; short dashes: after the settings. Errors drawn ${magnification} times too large, seen from where you stand.`}</figcaption>
    </figure>
  );
}
