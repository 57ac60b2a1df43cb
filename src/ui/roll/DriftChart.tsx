'use client';

import { useId, useMemo, useState } from 'react';
import { thinnedOut } from '@/core/drift/thin-out';
import type { StripSide } from '@/core/target/roll-strip';
import { formatLength, formatLengthNumber, unitWord, type UnitSystem } from '@/core/units/length';
import type { BandPlace } from '@/core/drift/drift-band';
import {
  bandPath,
  CHART_HEIGHT,
  linePath,
  MARGIN,
  markPath,
  scalesFor,
  USUAL_WIDTH,
  type ChartScales,
} from './chart-layout';
import { useWidth } from '../components/use-width';

export interface ChartStation {
  readonly stationNo: number;
  readonly side: StripSide;
  readonly atMm: number;
  readonly valueMm: number;
}

export interface DriftChartView {
  readonly title: string;
  /** The nearest to the leading edge first. */
  readonly stations: readonly ChartStation[];
  readonly band: readonly BandPlace[];
  /** Where readings end and what is foretold begins. */
  readonly readToMm: number;
  readonly endMm: number;
  readonly toleranceMm: number;
}

const METRE_MM = 1000;
/** Widths of the window that one can look through, as shares of the roll. */
const WINDOWS = [1, 0.5, 0.2, 0.05, 0.01] as const;

/** More marks than that are too close together to be pointed at one by one. */
const MOST_TOLD = 300;

interface MarksProps {
  readonly marks: readonly ChartStation[];
  readonly scales: ChartScales;
  readonly system: UnitSystem;
}

/** Stations, each with its words where there is room to point at it. */
function Marks({ marks, scales: { x, y }, system }: MarksProps) {
  const pathOf = (s: ChartStation): string => markPath(s.side, x(s.atMm), y(s.valueMm));
  if (marks.length > MOST_TOLD) return <path className="drift-mark" d={marks.map(pathOf).join('')} />;
  return marks.map((s) => (
    <path key={`${s.stationNo} ${s.side}`} className="drift-mark" d={pathOf(s)}>
      <title>{`${s.stationNo} ${s.side}: ${formatLength(s.valueMm, system, true)}`}</title>
    </path>
  ));
}

function Frame({
  view,
  fromMm,
  toMm,
  system,
}: {
  readonly view: DriftChartView;
  readonly fromMm: number;
  readonly toMm: number;
  readonly system: UnitSystem;
}) {
  const { toleranceMm, band, stations, readToMm } = view;
  const clip = useId();
  const [ref, width] = useWidth<SVGSVGElement>(USUAL_WIDTH);
  const columns = width - MARGIN.left - MARGIN.right;
  const marks = useMemo(() => thinnedOut(stations, { fromMm, toMm, columns }), [stations, fromMm, toMm, columns]);
  const scales = useMemo(() => {
    const seen = band.filter((p) => p.atMm >= fromMm && p.atMm <= toMm);
    const most = 4 * toleranceMm;
    const edges = seen.flatMap((p) => [Math.max(-most, p.lowMm), Math.min(most, p.highMm)]);
    return scalesFor([...marks.map((s) => s.valueMm), ...edges], { fromMm, toMm, toleranceMm, width });
  }, [band, marks, fromMm, toMm, toleranceMm, width]);
  const { x, y } = scales;
  const [low = 0, high = 0] = y.domain();
  return (
    <svg ref={ref} viewBox={`0 0 ${width} ${CHART_HEIGHT}`} className="drift-chart" role="img" aria-label={view.title}>
      <clipPath id={clip}>
        <rect x={MARGIN.left} y={MARGIN.top} width={columns} height={CHART_HEIGHT - MARGIN.top - MARGIN.bottom} />
      </clipPath>
      <g className="drift-rules">
        {y.ticks(5).map((t) => (
          <g key={t}>
            <line x1={MARGIN.left} x2={width - MARGIN.right} y1={y(t)} y2={y(t)} />
            <text x={MARGIN.left - 6} y={y(t) + 4} textAnchor="end">
              {formatLengthNumber(t, system)}
            </text>
          </g>
        ))}
        {x.ticks(Math.max(3, Math.round(columns / 90))).map((t) => (
          <text key={t} x={x(t)} y={CHART_HEIGHT - MARGIN.bottom + 18} textAnchor="middle">
            {(t / METRE_MM).toFixed(toMm - fromMm < 4 * METRE_MM ? 1 : 0)}
          </text>
        ))}
        <text x={width - MARGIN.right} y={CHART_HEIGHT - 3} textAnchor="end">
          m from the leading edge
        </text>
        <text x={4} y={CHART_HEIGHT - 3}>
          {unitWord(system)}
        </text>
      </g>
      <g clipPath={`url(#${clip})`}>
        <path className="drift-band" d={bandPath(band, scales)} />
        <path className="drift-line" d={linePath(band, scales)} />
        {[-toleranceMm, toleranceMm].map(
          (t) =>
            t > low &&
            t < high && (
              <line key={t} className="drift-allowed" x1={MARGIN.left} x2={width - MARGIN.right} y1={y(t)} y2={y(t)} />
            ),
        )}
        <line
          className="drift-read"
          x1={x(readToMm)}
          x2={x(readToMm)}
          y1={MARGIN.top}
          y2={CHART_HEIGHT - MARGIN.bottom}
        />
        <Marks marks={marks} scales={scales} system={system} />
      </g>
    </svg>
  );
}

/** One direction of a roll: what was read, the steady drift with its band, what is foretold beyond, and what is allowed. */
export function DriftChart({ view, system }: { readonly view: DriftChartView; readonly system: UnitSystem }) {
  const [share, setShare] = useState<number>(1);
  const [begin, setBegin] = useState(0);
  const widthMm = share * view.endMm;
  const fromMm = begin * (view.endMm - widthMm);
  const id = useId();
  return (
    <figure className="bed mb-2">
      <Frame view={view} fromMm={fromMm} toMm={fromMm + widthMm} system={system} />
      <figcaption className="d-flex flex-wrap gap-3 align-items-center">
        <span>{view.title}</span>
        <label htmlFor={`${id}-w`} className="visually-hidden">
          How much of the roll is shown
        </label>
        <select
          id={`${id}-w`}
          className="form-select w-auto ms-auto"
          value={share}
          onChange={(e) => {
            setShare(Number(e.target.value));
          }}
        >
          {WINDOWS.map((w) => (
            <option key={w} value={w}>
              {w === 1 ? 'the whole roll' : formatLength(w * view.endMm, system)}
            </option>
          ))}
        </select>
        {share < 1 && (
          <input
            type="range"
            aria-label="From where"
            min={0}
            max={1}
            step={0.002}
            value={begin}
            onChange={(e) => {
              setBegin(Number(e.target.value));
            }}
          />
        )}
      </figcaption>
    </figure>
  );
}
