'use client';

import { useId, useRef, type PointerEvent } from 'react';
import { discInk, liftOffInk } from '@/core/target/figure-ink';
import { LIFT_OFF_CLEAR_MM, type LiftOffFigure } from '@/core/target/lift-off';
import type { Point } from '@/core/geometry/affine';
import type { DiscFigure } from '@/core/target/disc';
import { formatFixed } from '@/core/units/length';
import { InkShapes } from '../sheet/InkShapes';
import { edgeOf, edgesSeen, onSheet, sheetToEye, type DiscView, type RoundFigure } from './round-view';

interface Props {
  readonly figure: RoundFigure;
  readonly view: DiscView;
  /** How far the cut lies off the print, sheet frame. */
  readonly displacement: Point;
  readonly label: string;
  /** The print of the back, whose letters are readable from there. */
  readonly isBack: boolean;
  /** The cut dragged by this much on the sheet. */
  readonly onDrag: (by: Point) => void;
}

/** How far the picture reaches from the figure's middle, and the size of its words. */
const SHOWN = { 'lift-off': { reachMm: 17.5, words: 1.5 }, disc: { reachMm: 8.4, words: 0.8 } } as const;

/** A lifted disc: the print, and round it the piece that the knife left. */
function Lifted({ figure, isBack, x, y }: Point & { readonly figure: LiftOffFigure; readonly isBack: boolean }) {
  const clip = useId();
  const edge = { cx: x, cy: y, r: LIFT_OFF_CLEAR_MM };
  return (
    <>
      <clipPath id={clip}>
        <circle {...edge} />
      </clipPath>
      <circle {...edge} fill="var(--sheet)" />
      <g clipPath={`url(#${clip})`}>
        <InkShapes shapes={liftOffInk({ ...figure, centre: { x: 0, y: 0 } })} isBackFile={isBack} />
      </g>
      <circle {...edge} fill="none" stroke="var(--plumb)" strokeWidth="0.16" strokeDasharray="0.9 0.5" />
    </>
  );
}

/** A printed disc on its sheet, with the hole that was weeded out of it. */
function Holed({ figure, x, y }: Point & { readonly figure: DiscFigure }) {
  return (
    <>
      <rect x="-9" y="-9" width="18" height="18" fill="var(--sheet)" />
      <InkShapes shapes={discInk({ ...figure, centre: { x: 0, y: 0 } })} />
      <circle
        cx={x}
        cy={y}
        r={figure.holeRadiusMm}
        fill="var(--bed)"
        stroke="var(--plumb)"
        strokeWidth="0.08"
        strokeDasharray="0.4 0.22"
      />
    </>
  );
}

/** A round figure as it lies before the eye for the value entered, with the widths of its four edges. */
export function RoundLoupe({ figure, view, displacement, label, isBack, onDrag }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const { reachMm, words } = SHOWN[figure.kind];
  const m = sheetToEye(view);
  const turned = `matrix(${m.xx} ${-m.yx} ${m.xy} ${-m.yy} 0 0)`;
  const edges = edgesSeen(view, displacement, edgeOf(figure));
  const { x, y } = displacement;
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    const box = svg.current?.getBoundingClientRect();
    if (event.type === 'pointermove' && event.buttons !== 0 && box) {
      const scale = (2 * reachMm) / box.width;
      onDrag(onSheet(view, { x: event.movementX * scale, y: -event.movementY * scale }));
    }
  };
  const word = (value: number, px: number, py: number) => (
    <text x={px} y={py} textAnchor="middle" fontSize={words} fill="var(--ink)" className="figures">
      {formatFixed(Math.max(0, value), 2)}
    </text>
  );
  return (
    <svg
      ref={svg}
      className="drawing loupe"
      viewBox={`${-reachMm} ${-reachMm} ${2 * reachMm} ${2 * reachMm}`}
      role="img"
      aria-label={label}
      onPointerDown={drag}
      onPointerMove={drag}
    >
      <rect x={-reachMm} y={-reachMm} width={2 * reachMm} height={2 * reachMm} fill="var(--bed)" />
      <g transform={turned}>
        {figure.kind === 'disc' ? (
          <Holed figure={figure} x={x} y={y} />
        ) : (
          <Lifted figure={figure} isBack={isBack} x={x} y={y} />
        )}
      </g>
      {word(edges.left, -0.87 * reachMm, 0.03 * reachMm)}
      {word(edges.right, 0.87 * reachMm, 0.03 * reachMm)}
      {word(edges.far, 0, -0.85 * reachMm)}
      {word(edges.near, 0, 0.93 * reachMm)}
    </svg>
  );
}
