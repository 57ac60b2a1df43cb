import type { RollStrip } from '@/core/target/roll-strip';
import { stationCuts, stationInk } from '@/core/target/roll-strip-drawing';
import type { Point } from '@/core/geometry/affine';

interface Props {
  readonly strip: RollStrip;
}

const pathOf = (points: readonly Point[]): string =>
  `M${points.map((p) => `${p.x.toFixed(2)},${(-p.y).toFixed(2)}`).join('L')}`;

/** The first station as it is printed, its cut dashed; the leading edge below. */
export function StationPicture({ strip }: Props) {
  const { widthMm, spacingMm } = strip;
  return (
    <svg
      viewBox={`${-widthMm / 2 - 2} ${-spacingMm - 2} ${widthMm + 4} ${spacingMm + 14}`}
      style={{ width: '100%', maxHeight: '70vh' }}
      role="img"
      aria-label="The first station: print in ink, cut dashed, leading edge below"
    >
      <rect x={-widthMm / 2} y={-spacingMm} width={widthMm} height={spacingMm} fill="var(--sheet)" />
      {stationInk(strip, 1).map((shape, i) => {
        if (shape.kind === 'text')
          return (
            <text
              key={i}
              fontSize={shape.heightMm * 1.4}
              textAnchor="middle"
              fill="var(--ink)"
              transform={`translate(${shape.at.x} ${-shape.at.y}) rotate(${-shape.turnDeg})`}
            >
              {shape.text}
            </text>
          );
        return shape.kind === 'fill' ? (
          <path key={i} d={`${pathOf(shape.points)}Z`} fill="var(--ink)" />
        ) : (
          <path key={i} d={pathOf(shape.points)} fill="none" stroke="var(--ink)" strokeWidth={shape.widthMm} />
        );
      })}
      {stationCuts(strip, 1).map((path, i) => (
        <path key={i} d={pathOf(path)} fill="none" stroke="var(--plumb)" strokeWidth="0.5" strokeDasharray="2 1.2" />
      ))}
      <text x="0" y="9" fontSize="7" textAnchor="middle" fill="var(--ink-2)">
        leading edge
      </text>
    </svg>
  );
}
