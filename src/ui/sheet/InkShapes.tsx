import { memo } from 'react';
import type { InkShape } from '@/core/target/figure-ink';

const points = (shape: { readonly points: readonly { x: number; y: number }[] }): string =>
  shape.points.map((p) => `${p.x.toFixed(3)},${p.y.toFixed(3)}`).join(' ');

interface Props {
  readonly shapes: readonly InkShape[];
  /** The parent shows them from behind, but they were printed so that letters are readable from there. */
  readonly isBackFile?: boolean;
}

/** Printed shapes in the sheet frame (y up); the parent turns the frame over for the screen. */
export const InkShapes = memo(function InkShapes({ shapes, isBackFile = false }: Props) {
  return (
    <g fill="var(--ink)">
      {shapes.map((shape, i) => {
        if (shape.kind === 'fill') return <polygon key={i} points={points(shape)} />;
        if (shape.kind === 'line') {
          return (
            <polyline key={i} points={points(shape)} fill="none" stroke="var(--ink)" strokeWidth={shape.widthMm} />
          );
        }
        return (
          <text
            key={i}
            transform={`translate(${shape.at.x} ${shape.at.y}) scale(${isBackFile ? -1 : 1} -1) rotate(${-shape.turnDeg})`}
            textAnchor="middle"
            fontFamily="'Spline Sans Mono', monospace"
            fontSize={shape.heightMm / 0.727}
          >
            {shape.text}
          </text>
        );
      })}
    </g>
  );
});
