'use client';

import { useRef, type PointerEvent } from 'react';
import { cutStrip, inkWedges, meetingPointMm, type FigurePoint } from '@/core/target/wedge';
import { divisionOf, type ReadingScale } from '@/core/target/reading-scale';
import type { FigureTurn } from './wedge-view';

interface Props {
  readonly halfLengthMm: number;
  readonly ditherMm: number;
  readonly readingMm: number;
  /** Scale printed beside it. */
  readonly scale: ReadingScale | undefined;
  readonly turn: FigureTurn;
  readonly label: string;
  /** Side of the strip on which the numbers are printed, as on the sheet. */
  readonly numbersAtV: number;
  /** Touched at a place, mm from the figure's middle on the screen. */
  readonly onTouch: (place: { x: number; y: number }) => void;
}

const REACH_U = 18.6;
const REACH_V = 7.4;

/** The wedge as it looks through a loupe for the value entered: ink, and the weeded strip with its dashed edges. */
export function WedgeLoupe({ halfLengthMm: h, ditherMm, readingMm, scale, turn, label, numbersAtV, onTouch }: Props) {
  const { wedgeTicks } = divisionOf(scale);
  const svg = useRef<SVGSVGElement>(null);
  const isTall = Math.abs(turn.uy) > 0.5;
  const width = 2 * (isTall ? REACH_V : REACH_U);
  const height = 2 * (isTall ? REACH_U : REACH_V);
  const place = (p: FigurePoint): string => {
    const u = p.u - h;
    return `${(u * turn.ux + p.v * turn.vx).toFixed(3)},${(u * turn.uy + p.v * turn.vy).toFixed(3)}`;
  };
  const at = (u: number, v: number): { x: number; y: number } => ({
    x: (u - h) * turn.ux + v * turn.vx,
    y: (u - h) * turn.uy + v * turn.vy,
  });
  const strip = cutStrip(h).map((p) => ({ u: p.u, v: p.v + readingMm + ditherMm }));

  const touch = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const box = svg.current?.getBoundingClientRect();
    if (!box) return;
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    const scale = width / box.width;
    onTouch({
      x: (event.clientX - box.left - box.width / 2) * scale,
      y: (event.clientY - box.top - box.height / 2) * scale,
    });
  };

  return (
    <svg
      ref={svg}
      className={`drawing loupe ${isTall ? 'tall' : 'wide'}`}
      viewBox={`${-width / 2} ${-height / 2} ${width} ${height}`}
      role="img"
      aria-label={label}
      onPointerDown={touch}
      onPointerMove={touch}
    >
      <rect x={-width / 2} y={-height / 2} width={width} height={height} fill="var(--sheet)" />
      <g fill="var(--ink)">
        {inkWedges(h, ditherMm).map((wedge, i) => (
          <polygon key={i} points={wedge.map(place).join(' ')} />
        ))}
      </g>
      <polygon
        points={strip.map(place).join(' ')}
        fill="var(--bed)"
        stroke="var(--plumb)"
        strokeWidth="0.13"
        strokeDasharray="0.7 0.4"
      />
      {wedgeTicks.map(({ valueMm, number }) => {
        const u = meetingPointMm(h, valueMm);
        const end = number === null ? 2.9 : 3.4;
        return [1, -1].map((side) => {
          const from = at(u, side * 2.4);
          const to = at(u, side * end);
          return (
            <line
              key={`${valueMm} ${side}`}
              x1={from.x}
              y1={from.y}
              x2={to.x}
              y2={to.y}
              stroke="var(--ink)"
              strokeWidth="0.15"
            />
          );
        });
      })}
      {wedgeTicks.map(({ valueMm, number }) => {
        if (number === null) return null;
        const p = at(meetingPointMm(h, valueMm), numbersAtV);
        return (
          <text
            key={valueMm}
            x={p.x}
            y={p.y + 0.45}
            textAnchor={anchorFor(p.x, isTall)}
            fontSize="1.3"
            fill="var(--ink)"
            className="figures"
          >
            {number}
          </text>
        );
      })}
    </svg>
  );
}

/** Beside an upright strip numbers start clear of the ticks; under a lying one they stand in the middle. */
function anchorFor(x: number, isTall: boolean): 'start' | 'middle' | 'end' {
  if (!isTall) return 'middle';
  return x > 0 ? 'start' : 'end';
}
