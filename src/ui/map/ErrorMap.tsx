import type { Affine, Point } from '@/core/geometry/affine';
import type { SheetDefinition } from '@/core/target/sheet-definition';
import { SheetDrawing } from '../sheet/SheetDrawing';
import { arrowAt, ellipseAt, magnificationFor } from './map-layout';

interface Props {
  readonly definition: SheetDefinition;
  readonly code: string;
  readonly map: Affine;
  readonly covariance: readonly number[];
  readonly corners: readonly Point[];
  readonly worstCorner: Point;
  /** Upper bound of the worst corner: sets the magnification, so that the ellipses stay on the picture too. */
  readonly largestMm: number;
  readonly turnDeg: number;
  readonly label: string;
  /** What the arrows are; from the print to the cut, in the cut's red, unless told otherwise. */
  readonly arrows?: { readonly words: string; readonly colour: string };
}

function arrowHead(from: Point, to: Point): string {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  if (length < 1) return '';
  const ux = (to.x - from.x) / length;
  const uy = (to.y - from.y) / length;
  const back = { x: to.x - 4 * ux, y: to.y - 4 * uy };
  return `${to.x},${to.y} ${back.x - 1.6 * uy},${back.y + 1.6 * ux} ${back.x + 1.6 * uy},${back.y - 1.6 * ux}`;
}

const CUT_ARROWS = { words: 'Arrows from the print to where the cut went', colour: 'var(--plumb)' };

/** The error over the whole sheet: arrows from print to cut, magnified, with 95 % ellipses; the worst corner ringed. */
export function ErrorMap({
  definition,
  code,
  map,
  covariance,
  corners,
  worstCorner,
  largestMm,
  turnDeg,
  label,
  arrows = CUT_ARROWS,
}: Props) {
  const magnification = magnificationFor(largestMm);
  const places = [...definition.spots.map((s) => s.centre), ...corners];
  return (
    <figure className="bed mb-0">
      <SheetDrawing definition={definition} code={code} turnDeg={turnDeg} isInkFaint label={label}>
        <circle cx={worstCorner.x} cy={worstCorner.y} r="6" fill="none" stroke="var(--ink)" strokeWidth="0.8" />
        {places.map((p) => {
          const arrow = arrowAt(map, p, magnification);
          const ellipse = ellipseAt(map, covariance, p, magnification);
          return (
            <g key={`${p.x} ${p.y}`}>
              <circle cx={p.x} cy={p.y} r="1.3" fill="var(--ink)" />
              <ellipse
                rx={ellipse.radiusLongMm}
                ry={ellipse.radiusShortMm}
                transform={`translate(${ellipse.centre.x} ${ellipse.centre.y}) rotate(${ellipse.turnDeg})`}
                fill="color-mix(in srgb, var(--ink-2) 16%, transparent)"
                stroke="var(--ink-2)"
                strokeWidth="0.4"
              />
              <line
                x1={arrow.from.x}
                y1={arrow.from.y}
                x2={arrow.to.x}
                y2={arrow.to.y}
                stroke={arrows.colour}
                strokeWidth="1.1"
              />
              <polygon points={arrowHead(arrow.from, arrow.to)} fill={arrows.colour} />
            </g>
          );
        })}
      </SheetDrawing>
      <figcaption className="quiet mt-2">
        {`${arrows.words}, drawn ${magnification} times too large; ellipses hold the truth 95 times in 100. The ring is the worst corner.`}
      </figcaption>
    </figure>
  );
}
