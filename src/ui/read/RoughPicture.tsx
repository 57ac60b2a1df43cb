'use client';

import { useRef, type PointerEvent } from 'react';
import type { Point } from '@/core/geometry/affine';
import type { TurnDeg } from '@/core/geometry/load';
import { roughCut } from '@/core/target/drawing';
import { roughInk } from '@/core/target/figure-ink';
import type { RoughFigure } from '@/core/target/sheet-definition';
import { formatReading } from '@/core/units/length';
import { InkShapes } from '../sheet/InkShapes';

const REACH_VIEW_MM = 21;

interface Props {
  readonly rough: RoughFigure;
  /** Outer corner of the cut L, sheet frame, from the grid's middle. */
  readonly place: Point;
  readonly turnDeg: TurnDeg;
  /** A touch, in mm from the grid's middle as it is seen, y away from the reader. */
  readonly onTouch: (at: Point<'view'>) => void;
}

/** A printed grid with the cut L on it, as it lies in the hand. */
export function RoughPicture({ rough, place, turnDeg, onTouch }: Props) {
  const { scale = 'mm' } = rough;
  const svg = useRef<SVGSVGElement>(null);
  const centred: RoughFigure = { ...rough, centre: { x: 0, y: 0 } };
  const ell = roughCut(centred)
    .map((p) => `${p.x + place.x},${p.y + place.y}`)
    .join(' ');
  const touch = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const box = svg.current?.getBoundingClientRect();
    if (!box) return;
    const mmPerPx = (2 * REACH_VIEW_MM) / box.width;
    onTouch({
      x: (event.clientX - box.left - box.width / 2) * mmPerPx,
      y: -(event.clientY - box.top - box.height / 2) * mmPerPx,
    });
  };
  return (
    <svg
      ref={svg}
      className="drawing loupe"
      tabIndex={0}
      viewBox={`${-REACH_VIEW_MM} ${-REACH_VIEW_MM} ${2 * REACH_VIEW_MM} ${2 * REACH_VIEW_MM}`}
      role="img"
      aria-label={`Rough grid ${rough.spotNo}, the L at ${formatReading(place.x, scale)} across and ${formatReading(place.y, scale)} along`}
      onPointerDown={touch}
      onPointerMove={touch}
    >
      <rect x="-30" y="-30" width="60" height="60" fill="var(--sheet)" />
      <g transform={`scale(1 -1) rotate(${turnDeg})`}>
        <InkShapes shapes={roughInk(centred)} />
        <polygon
          points={ell}
          fill="var(--bed)"
          fillOpacity="0.8"
          stroke="var(--plumb)"
          strokeWidth="0.25"
          strokeDasharray="1 0.6"
        />
        <circle cx={place.x} cy={place.y} r="0.5" fill="var(--plumb)" />
      </g>
    </svg>
  );
}
