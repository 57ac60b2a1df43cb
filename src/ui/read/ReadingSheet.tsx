'use client';

import { memo, useMemo } from 'react';
import type { TurnDeg } from '@/core/geometry/load';
import { inkOf } from '@/core/target/drawing';
import type { SheetDefinition, WedgeFigure } from '@/core/target/sheet-definition';
import { figureToSheet } from '@/core/target/wedge';
import { InkShapes } from '../sheet/InkShapes';
import { sheetFrame } from '../sheet/sheet-frame';

interface Props {
  readonly definition: SheetDefinition;
  readonly code: string;
  readonly setNo: number;
  readonly turnDeg: TurnDeg;
  readonly current: { readonly spotNo: number; readonly axis: string };
  /** "spot axis" of figures that have been looked at. */
  readonly done: readonly string[];
  readonly onChoose: (figure: WedgeFigure) => void;
}

function boxOf(w: WedgeFigure): { x: number; y: number; width: number; height: number } {
  const a = figureToSheet(w, { u: -2, v: -5 });
  const b = figureToSheet(w, { u: 2 * w.halfLengthMm + 2, v: 5 });
  return { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width: Math.abs(b.x - a.x), height: Math.abs(b.y - a.y) };
}

/** The sheet as it lies in the hand, with the figure to look at framed and those done ticked. */
export const ReadingSheet = memo(function ReadingSheet({
  definition,
  code,
  setNo,
  turnDeg,
  current,
  done,
  onChoose,
}: Props) {
  const { block } = definition;
  const shapes = useMemo(() => inkOf(definition, code), [definition, code]);
  const frame = sheetFrame(block, turnDeg);
  const isCurrent = (w: WedgeFigure): boolean => w.spotNo === current.spotNo && w.axis === current.axis;
  return (
    <svg
      className="drawing sheet-small"
      viewBox={frame.viewBox}
      role="group"
      aria-label="The sheet as it lies in your hand"
    >
      <g transform={frame.transform}>
        <rect
          x={-block.widthMm / 2}
          y={-block.lengthMm / 2}
          width={block.widthMm}
          height={block.lengthMm}
          fill="var(--sheet)"
        />
        <g opacity="0.55">
          <InkShapes shapes={shapes} />
        </g>
        {definition.wedges
          .filter((w) => w.setNo === setNo)
          .map((w) => (
            <rect
              key={`${w.spotNo} ${w.axis}`}
              {...boxOf(w)}
              fill={
                done.includes(`${w.spotNo} ${w.axis}`)
                  ? 'color-mix(in srgb, var(--true) 28%, transparent)'
                  : 'transparent'
              }
              stroke={isCurrent(w) ? 'var(--ink)' : 'none'}
              strokeWidth="1.6"
              style={{ cursor: 'pointer' }}
              onClick={() => {
                onChoose(w);
              }}
            />
          ))}
      </g>
    </svg>
  );
});
