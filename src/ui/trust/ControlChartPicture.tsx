'use client';

import { extent, line, scaleLinear, scaleUtc } from 'd3';
import type { ControlChart } from '@/core/charts/control-chart';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { timeTicks } from '../components/time-ticks';

interface Props {
  readonly title: string;
  readonly chart: ControlChart;
  /** When each of its points was measured, ms since 1970. */
  readonly timesMs: readonly number[];
  readonly system: UnitSystem;
}

const WIDTH = 460;
const HEIGHT = 180;
const MARGIN = { left: 62, right: 24, top: 10, bottom: 26 };

const DRAWN = {
  individuals: 'each piece',
  ewma: 'moving average, in SDs of a piece',
  cusum: 'larger sum of deviations, in SDs of a piece',
} as const;

/** One direction of the daily checks against its limits: a hollow point signals. */
export function ControlChartPicture({ title, chart, timesMs, system }: Props) {
  const drawn = chart.points.flatMap((p, i) =>
    p.drawn ? [{ ...p.drawn, signal: p.signal, ms: timesMs[i] ?? 0 }] : [],
  );
  const last = drawn.at(-1);
  if (!last)
    return <p className="quiet">{`${title}: the chart begins with the third check. ${chart.points.length} so far.`}</p>;
  const [low = 0, high = 1] = extent(drawn.flatMap((p) => [p.at, last.lower, last.upper]));
  const [from = 0, to = 1] = extent(drawn, (p) => p.ms);
  const x = scaleUtc([from, Math.max(to, from + 1)], [MARGIN.left, WIDTH - MARGIN.right]);
  const y = scaleLinear([low, high], [HEIGHT - MARGIN.bottom, MARGIN.top]).nice();
  const words = (v: number): string => (chart.school === 'individuals' ? formatLength(v, system) : v.toFixed(1));
  const path = (of: (p: (typeof drawn)[number]) => number): string =>
    line<(typeof drawn)[number]>(
      (p) => x(p.ms),
      (p) => y(of(p)),
    )(drawn) ?? '';
  const signals = drawn.filter((p) => p.signal !== null).length;
  return (
    <figure className="mb-3">
      <figcaption>
        {title} <span className="quiet">{DRAWN[chart.school]}</span>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-100"
        role="img"
        aria-label={`${title}: ${drawn.length} points, ${signals} signal; limits ${words(last.lower)} and ${words(last.upper)}`}
      >
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={MARGIN.left} x2={WIDTH - MARGIN.right} y1={y(t)} y2={y(t)} stroke="var(--rule)" />
            <text x={MARGIN.left - 6} y={y(t) + 4} textAnchor="end" fontSize="14" fill="var(--ink-2)">
              {words(t)}
            </text>
          </g>
        ))}
        {timeTicks(x, 4).map(({ at, words: said }) => (
          <text key={said} x={x(at)} y={HEIGHT - 8} textAnchor="middle" fontSize="14" fill="var(--ink-2)">
            {said}
          </text>
        ))}
        {[(p: (typeof drawn)[number]) => p.lower, (p: (typeof drawn)[number]) => p.upper].map((of, i) => (
          <path key={i} d={path(of)} fill="none" stroke="var(--ink)" strokeDasharray="6 4" />
        ))}
        <path d={path((p) => p.at)} fill="none" stroke="var(--ink-2)" />
        {drawn.map((p, i) => (
          <circle
            key={i}
            cx={x(p.ms)}
            cy={y(p.at)}
            r={p.signal ? 5 : 3}
            fill={p.signal ? 'var(--sheet)' : 'var(--ink)'}
            stroke={p.signal ? 'var(--watch)' : 'var(--ink)'}
            strokeWidth={p.signal ? 2.5 : 1}
          />
        ))}
      </svg>
    </figure>
  );
}
