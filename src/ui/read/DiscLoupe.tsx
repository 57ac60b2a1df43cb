'use client';

import { useId, useRef, type PointerEvent } from 'react';
import { LIFT_OFF_CLEAR_MM, type LiftOffFigure } from '@/core/target/lift-off';
import { liftOffInk } from '@/core/target/drawing';
import type { Point } from '@/core/geometry/affine';
import { formatFixed } from '@/core/units/length';
import { InkShapes } from '../sheet/InkShapes';
import { onSheet, rimsSeen, sheetToEye, type DiscView } from './rim-view';

interface Props {
  readonly figure: LiftOffFigure;
  readonly view: DiscView;
  /** How far the cut lies off the print, sheet frame. */
  readonly displacement: Point;
  readonly label: string;
  /** The cut dragged by this much on the sheet. */
  readonly onDrag: (by: Point) => void;
}

const REACH_MM = 17.5;

/** A lifted disc as it lies on the card for the value entered: the print, and round it the piece that the knife left. */
export function DiscLoupe({ figure, view, displacement, label, onDrag }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const clip = useId();
  const m = sheetToEye(view);
  const turned = `matrix(${m.xx} ${-m.yx} ${m.xy} ${-m.yy} 0 0)`;
  const rims = rimsSeen(view, displacement);
  const { x, y } = displacement;
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    const box = svg.current?.getBoundingClientRect();
    if (event.type === 'pointermove' && event.buttons !== 0 && box) {
      const scale = (2 * REACH_MM) / box.width;
      onDrag(onSheet(view, { x: event.movementX * scale, y: -event.movementY * scale }));
    }
  };
  const word = (value: number, px: number, py: number) => (
    <text x={px} y={py} textAnchor="middle" fontSize="1.5" fill="var(--ink)" className="figures">
      {formatFixed(Math.max(0, value), 2)}
    </text>
  );
  return (
    <svg
      ref={svg}
      className="drawing loupe"
      viewBox={`${-REACH_MM} ${-REACH_MM} ${2 * REACH_MM} ${2 * REACH_MM}`}
      role="img"
      aria-label={label}
      onPointerDown={drag}
      onPointerMove={drag}
    >
      <rect x={-REACH_MM} y={-REACH_MM} width={2 * REACH_MM} height={2 * REACH_MM} fill="var(--bed)" />
      <g transform={turned}>
        <clipPath id={clip}>
          <circle cx={x} cy={y} r={LIFT_OFF_CLEAR_MM} />
        </clipPath>
        <circle cx={x} cy={y} r={LIFT_OFF_CLEAR_MM} fill="var(--sheet)" />
        <g clipPath={`url(#${clip})`}>
          <InkShapes shapes={liftOffInk({ ...figure, centre: { x: 0, y: 0 } })} />
        </g>
        <circle
          cx={x}
          cy={y}
          r={LIFT_OFF_CLEAR_MM}
          fill="none"
          stroke="var(--plumb)"
          strokeWidth="0.16"
          strokeDasharray="0.9 0.5"
        />
      </g>
      {word(rims.left, -15.2, 0.5)}
      {word(rims.right, 15.2, 0.5)}
      {word(rims.far, 0, -14.9)}
      {word(rims.near, 0, 16.2)}
    </svg>
  );
}
