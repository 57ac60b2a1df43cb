'use client';

import { memo, useMemo } from 'react';
import type { TurnDeg } from '@/core/geometry/load';
import { inkOf } from '@/core/target/drawing';
import type { SheetDefinition } from '@/core/target/sheet-definition';
import { InkShapes } from '../sheet/InkShapes';
import { boxOf, type LookFigure } from './figure-look';
import { sheetFrame } from '../sheet/sheet-frame';

interface Props {
  readonly definition: SheetDefinition;
  readonly code: string;
  /** Figures that can be chosen. */
  readonly figures: readonly LookFigure[];
  readonly turnDeg: TurnDeg;
  readonly current: { readonly spotNo: number; readonly axis: string } | null;
  /** "spot axis" of figures that have been looked at. */
  readonly done: readonly string[];
  readonly onChoose: (figure: LookFigure) => void;
}

/** The sheet as it lies in the hand, with the figure to look at framed and those done ticked. */
export const ReadingSheet = memo(function ReadingSheet({
  definition,
  code,
  figures,
  turnDeg,
  current,
  done,
  onChoose,
}: Props) {
  const { block } = definition;
  const shapes = useMemo(() => inkOf(definition, code), [definition, code]);
  const frame = sheetFrame(block, turnDeg);
  const isCurrent = (w: LookFigure): boolean => w.spotNo === current?.spotNo && w.axis === current.axis;
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
        {figures.map((w) => (
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
