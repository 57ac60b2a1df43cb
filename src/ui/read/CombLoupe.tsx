'use client';

import { useRef, type PointerEvent } from 'react';
import {
  COMB_BELOW_MM,
  COMB_BOX_LENGTH_MM,
  COMB_BOX_WIDTH_MM,
  combAnswers,
  combCuts,
  combMarks,
  combNumbers,
  nearestAnswer,
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

/** Beside an upright row words stand level on the screen, so they need their room across it. */
const wordPlace = ({ s, w }: CombPoint, isUpright: boolean): CombPoint => {
  if (!isUpright) return { s, w };
  return { s, w: w > 0 ? w + 1 : w + 0.7 };
};

/** A part of the comb, in its own frame. */
interface Part {
  readonly from: CombPoint;
  readonly to: CombPoint;
}

const WHOLE: Part = {
  from: { s: -COMB_BOX_LENGTH_MM / 2 - MARGIN_MM, w: -COMB_BELOW_MM - MARGIN_MM },
  to: { s: COMB_BOX_LENGTH_MM / 2 + MARGIN_MM, w: COMB_BOX_WIDTH_MM - COMB_BELOW_MM + MARGIN_MM },
};

/** The ticks about a place where two run into one line, close enough to compare neighbours. */
const closeTo = (s: number): Part => ({
  from: { s: s - CLOSE_HALF_MM, w: -1.6 },
  to: { s: s + CLOSE_HALF_MM, w: 2.4 },
});
const CLOSE_HALF_MM = 5.6;

/** The comb as it looks through a loupe for the value entered, and once more closer, where ticks run into one line. */
export function CombLoupe(props: Props) {
  const { readingMm, figure } = props;
  const { commandedMm } = nearestAnswer(combAnswers(figure), readingMm);
  return (
    <div className="comb-loupe">
      <CombPart {...props} part={WHOLE} />
      <CombPart {...props} part={closeTo(commandedMm + readingMm)} label={`${props.label}, closer`} />
    </div>
  );
}

/** The printed row and the cut ticks shifted along it, as far as a part of the comb shows them. */
function CombPart({ figure, readingMm, turn, label, onTouch, part }: Props & { readonly part: Part }) {
  const svg = useRef<SVGSVGElement>(null);
  const isUpright = Math.abs(turn.vy) > 0.5;
  const at = ({ s, w }: CombPoint): { x: number; y: number } => ({
    x: s * turn.vx + w * turn.ux,
    y: s * turn.vy + w * turn.uy,
  });
  const a = at(part.from);
  const b = at(part.to);
  const box = { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width: Math.abs(b.x - a.x), height: Math.abs(b.y - a.y) };
  const cuts = combCuts({ ...figure, axis: 'across', centre: { x: readingMm, y: 0 } });

  const touch = (event: PointerEvent<SVGSVGElement>): void => {
    // The closer part follows the value: dragging in it would run away from the finger.
    if (event.type === 'pointermove' && (event.buttons === 0 || part !== WHOLE)) return;
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
      {combMarks(figure.scale).map((mark) => (
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
            // From the end that is compared, so that the dashes leave it whole.
            {...stroke({ s: to.x, w: to.y }, { s: from.x, w: from.y })}
            stroke="var(--plumb)"
            strokeWidth="0.22"
            strokeDasharray="0.7 0.25"
          />
        );
      })}
      {combNumbers(figure.scale).map(({ at: place, text }) => {
        const p = at(wordPlace(place, isUpright));
        return (
          <text
            key={`${place.s} ${place.w}`}
            x={p.x}
            y={p.y + 0.5}
            textAnchor="middle"
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
