'use client';

import { useRef, type PointerEvent } from 'react';
import {
  COMB_BELOW_MM,
  COMB_BOX_LENGTH_MM,
  COMB_BOX_WIDTH_MM,
  COMB_MARKS,
  COMB_NUMBERS,
  combCuts,
  type CombPoint,
} from '@/core/target/comb';
import type { CombFigure } from '@/core/target/sheet-definition';
import type { FigureTurn } from './wedge-view';

interface Props {
  readonly figure: CombFigure;
  readonly readingMm: number;
  readonly turn: FigureTurn;
  readonly label: string;
  /** Touched at a place, mm from the row's middle on the screen. */
  readonly onTouch: (place: { x: number; y: number }) => void;
}

const MARGIN_MM = 0.6;

/** Words that stand upright on the screen beside the ticks they belong to. */
const anchorOf = (isUpright: boolean, px: number): 'start' | 'middle' | 'end' => {
  if (!isUpright) return 'middle';
  return px > 0 ? 'start' : 'end';
};

/** The comb as it looks through a loupe for the value entered: the printed row, and the cut ticks shifted along it. */
export function CombLoupe({ figure, readingMm, turn, label, onTouch }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const isUpright = Math.abs(turn.vy) > 0.5;
  const half = COMB_BOX_LENGTH_MM / 2 + MARGIN_MM;
  const at = ({ s, w }: CombPoint): { x: number; y: number } => ({
    x: s * turn.vx + w * turn.ux,
    y: s * turn.vy + w * turn.uy,
  });
  const a = at({ s: -half, w: -COMB_BELOW_MM - MARGIN_MM });
  const b = at({ s: half, w: COMB_BOX_WIDTH_MM - COMB_BELOW_MM + MARGIN_MM });
  const box = { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width: Math.abs(b.x - a.x), height: Math.abs(b.y - a.y) };
  const cuts = combCuts({ ...figure, axis: 'across', centre: { x: readingMm, y: 0 } });

  const touch = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const shown = svg.current?.getBoundingClientRect();
    if (!shown) return;
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    onTouch({
      x: box.x + ((event.clientX - shown.left) * box.width) / shown.width,
      y: box.y + ((event.clientY - shown.top) * box.height) / shown.height,
    });
  };

  const stroke = (from: CombPoint, to: CombPoint) => {
    const [p, q] = [at(from), at(to)];
    return { x1: p.x, y1: p.y, x2: q.x, y2: q.y };
  };
  return (
    <svg
      ref={svg}
      className={`drawing loupe ${isUpright ? 'tall' : 'wide'}`}
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      role="img"
      aria-label={label}
      onPointerDown={touch}
      onPointerMove={touch}
    >
      <rect {...box} fill="var(--sheet)" />
      {COMB_MARKS.map((mark) => (
        <line
          key={`${mark.from.s} ${mark.from.w}`}
          {...stroke(mark.from, mark.to)}
          stroke="var(--ink)"
          strokeWidth={mark.widthMm}
        />
      ))}
      {cuts.map(([from, to]) => {
        if (!from || !to) return null;
        return (
          <line
            key={from.x}
            {...stroke({ s: from.x, w: from.y }, { s: to.x, w: to.y })}
            stroke="var(--plumb)"
            strokeWidth="0.22"
            strokeDasharray="0.7 0.25"
          />
        );
      })}
      {COMB_NUMBERS.map(({ at: place, text }) => {
        const p = at(place);
        return (
          <text
            key={`${place.s} ${place.w}`}
            x={p.x}
            y={p.y + 0.5}
            textAnchor={anchorOf(isUpright, p.x)}
            fontSize="1.5"
            fill="var(--ink)"
            className="figures"
          >
            {text}
          </text>
        );
      })}
    </svg>
  );
}
