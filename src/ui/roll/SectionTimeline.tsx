'use client';

import { hoursWords, type SectionTimes, type WorkSpan } from '@/core/drift/section-plan';
import { useWidth } from '../components/use-width';

interface Props {
  readonly times: readonly SectionTimes[];
  readonly label: string;
}

const ROWS = [
  { name: 'print', of: (t: SectionTimes): WorkSpan => t.print },
  { name: 'cut', of: (t: SectionTimes): WorkSpan => t.cut },
  { name: 'finish', of: (t: SectionTimes): WorkSpan => t.finish },
] as const;

const LEFT = 60;
const USUAL_WIDTH = 520;
const ROW = 30;
/** More sections than that are drawn without their numbers. */
const MOST_NUMBERED = 24;

/** Printing, cutting and finishing of every section side by side, on one line of time. */
export function SectionTimeline({ times, label }: Props) {
  const [ref, width] = useWidth<SVGSVGElement>(USUAL_WIDTH);
  const end = times.at(-1)?.finish.toHours ?? 0;
  const x = (hours: number): number => LEFT + (hours / end) * (width - LEFT - 8);
  return (
    <svg ref={ref} viewBox={`0 0 ${width} ${3 * ROW + 24}`} className="section-times" role="img" aria-label={label}>
      {ROWS.map(({ name, of }, row) => (
        <g key={name}>
          <text x={0} y={row * ROW + 20}>
            {name}
          </text>
          {times.map((t, i) => {
            const { fromHours, toHours } = of(t);
            const bar = Math.max(0.8, x(toHours) - x(fromHours) - 1);
            return (
              <g key={`${name} ${fromHours}`}>
                <rect x={x(fromHours)} y={row * ROW + 4} width={bar} height={ROW - 8} className={`at-${name}`} />
                {times.length <= MOST_NUMBERED && bar > 18 && (
                  <text x={x(fromHours) + 4} y={row * ROW + 20} className="in-bar">
                    {i + 1}
                  </text>
                )}
              </g>
            );
          })}
        </g>
      ))}
      <text x={LEFT} y={3 * ROW + 16}>
        0
      </text>
      <text x={width - 8} y={3 * ROW + 16} textAnchor="end">
        {hoursWords(end)}
      </text>
    </svg>
  );
}
