import type { SectionTimes, WorkSpan } from '@/core/drift/section-plan';

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
const WIDTH = 760;
const ROW = 30;
/** More sections than that are drawn without their numbers. */
const MOST_NUMBERED = 24;

export const hoursWords = (hours: number): string => {
  const minutes = Math.round(60 * hours);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
};

/** Printing, cutting and finishing of every section side by side, on one line of time. */
export function SectionTimeline({ times, label }: Props) {
  const end = times.at(-1)?.finish.toHours ?? 0;
  const x = (hours: number): number => LEFT + (hours / end) * (WIDTH - LEFT - 8);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${3 * ROW + 24}`} className="section-times" role="img" aria-label={label}>
      {ROWS.map(({ name, of }, row) => (
        <g key={name}>
          <text x={0} y={row * ROW + 20}>
            {name}
          </text>
          {times.map((t, i) => {
            const { fromHours, toHours } = of(t);
            const width = Math.max(0.8, x(toHours) - x(fromHours) - 1);
            return (
              <g key={`${name} ${fromHours}`}>
                <rect x={x(fromHours)} y={row * ROW + 4} width={width} height={ROW - 8} className={`at-${name}`} />
                {times.length <= MOST_NUMBERED && width > 12 && (
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
      <text x={WIDTH - 8} y={3 * ROW + 16} textAnchor="end">
        {hoursWords(end)}
      </text>
    </svg>
  );
}
