'use client';

import { bisector, brushX, extent, line, scaleLinear, scaleUtc, select, type D3BrushEvent } from 'd3';
import { useEffect, useMemo, useRef, useState } from 'react';
import { FOLLOWED, type Followed, type FoundAndLeft, type OverTime, type Told } from '@/contracts/over-time';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { timeTicks } from '../components/time-ticks';
import { useWidth } from '../components/use-width';
import { PART_NAMES, partValueWords } from '@/core/verdict/part-words';

const USUAL_WIDTH = 900;
const HEIGHT = 300;
const STRIP = 46;
const MARGIN = { left: 92, right: 34, top: 12, bottom: 28 };

type Reach = readonly [fromMs: number, toMs: number];

const NOTHING: Told = { value: 0, standardUncertainty: 0 };
const leftOf = (point: FoundAndLeft, what: Followed): Told => point.left[what] ?? NOTHING;
/** As it was found; none where nothing was measured before it was set. */
const foundValues = (point: FoundAndLeft, what: Followed): readonly number[] =>
  what === 'markSdMm' || !point.found ? [] : [point.found[what].value];
const nameOf = (what: Followed): string => (what === 'markSdMm' ? 'noise of reading the marks' : PART_NAMES[what]);
const valueWords = (what: Followed, value: number, system: UnitSystem): string =>
  what === 'markSdMm' ? formatLength(value, system) : partValueWords(what, value, system);

/** What of the points is drawn: those in reach, and one to either side so that the line goes on. */
function inReach<T extends { readonly atMs: number }>(points: readonly T[], [from, to]: Reach): readonly T[] {
  const byTime = bisector((p: T) => p.atMs);
  return points.slice(Math.max(0, byTime.left(points, from) - 1), byTime.right(points, to) + 1);
}

interface ChartProps {
  readonly view: OverTime;
  readonly part: Followed;
  readonly reach: Reach;
  readonly system: UnitSystem;
}

/** px, as the picture stands on the screen. */
interface Wide {
  readonly width: number;
}

/** One part over a stretch of time: as found, hollow; as left, filled, with its limits; what happened below. */
function Chart({ view, part, reach, system, width }: ChartProps & Wide) {
  const points = inReach(view.points, reach);
  const limits = view.limits[part];
  const values = points.flatMap((p) => [leftOf(p, part).value, ...foundValues(p, part)]);
  const [low = -1, high = 1] = extent([...values, 0, ...(limits ? [limits.lower, limits.upper] : [])]);
  const x = scaleUtc(reach, [MARGIN.left, width - MARGIN.right]);
  const y = scaleLinear([low, high === low ? low + 1e-9 : high], [HEIGHT - MARGIN.bottom, MARGIN.top]).nice();
  const leftPath = line<(typeof points)[number]>(
    (p) => x(p.atMs),
    (p) => y(leftOf(p, part).value),
  )(points);
  const events = view.events.filter((e) => e.atMs >= reach[0] && e.atMs <= reach[1]);
  // Beyond so many points single marks run together: the line alone is drawn.
  const isFew = points.length <= 400;
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="w-100"
      role="img"
      aria-label={`${nameOf(part)} over time, ${points.length} calibrations, ${events.length} events`}
    >
      <clipPath id="over-time-clip">
        <rect x={MARGIN.left} y={0} width={width - MARGIN.left - MARGIN.right} height={HEIGHT} />
      </clipPath>
      {y.ticks(5).map((t) => (
        <g key={t}>
          <line x1={MARGIN.left} x2={width - MARGIN.right} y1={y(t)} y2={y(t)} stroke="var(--rule)" />
          <text x={MARGIN.left - 8} y={y(t) + 5} textAnchor="end" fontSize="14" fill="var(--ink-2)">
            {valueWords(part, t, system)}
          </text>
        </g>
      ))}
      {timeTicks(x, Math.max(2, Math.floor(width / 150))).map(({ at, words }) => (
        <text key={words} x={x(at)} y={HEIGHT - 6} textAnchor="middle" fontSize="14" fill="var(--ink-2)">
          {words}
        </text>
      ))}
      <g clipPath="url(#over-time-clip)">
        {limits &&
          [limits.lower, limits.upper].map((v) => (
            <line
              key={v}
              x1={MARGIN.left}
              x2={width - MARGIN.right}
              y1={y(v)}
              y2={y(v)}
              stroke="var(--ink)"
              strokeDasharray="6 4"
            />
          ))}
        {events.map((e, i) => (
          <path key={i} d={`M${x(e.atMs)} ${HEIGHT - MARGIN.bottom}v-14`} stroke="var(--watch)" strokeWidth={3}>
            <title>{e.words}</title>
          </path>
        ))}
        {leftPath && <path d={leftPath} fill="none" stroke="var(--ink-2)" />}
        {isFew &&
          points.map((p) => (
            <g key={p.id} stroke="var(--ink)">
              {foundValues(p, part).map((v) => (
                <circle key={v} cx={x(p.atMs)} cy={y(v)} r={4.5} fill="var(--sheet)" strokeWidth={1.5} />
              ))}
              <path
                d={`M${x(p.atMs)} ${y(leftOf(p, part).value - leftOf(p, part).standardUncertainty)}V${y(leftOf(p, part).value + leftOf(p, part).standardUncertainty)}`}
              />
              <circle cx={x(p.atMs)} cy={y(leftOf(p, part).value)} r={3.5} fill="var(--ink)" />
            </g>
          ))}
      </g>
    </svg>
  );
}

interface StripProps extends Wide {
  readonly view: OverTime;
  readonly part: Followed;
  readonly whole: Reach;
  readonly reach: Reach;
  readonly onReach: (reach: Reach) => void;
}

/** The whole record small: a stretch of it is dragged over with the pointer. */
function Strip({ view, part, whole, reach, width, onReach }: StripProps) {
  const layer = useRef<SVGGElement>(null);
  const x = useMemo(() => scaleUtc(whole, [MARGIN.left, width - MARGIN.right]), [whole, width]);
  const path = useMemo(() => {
    const [low = -1, high = 1] = extent(view.points, (p) => leftOf(p, part).value);
    const y = scaleLinear([low, high === low ? low + 1e-9 : high], [STRIP - 6, 6]);
    return line<(typeof view.points)[number]>(
      (p) => x(p.atMs),
      (p) => y(leftOf(p, part).value),
    )(view.points);
  }, [view, part, x]);
  const heard = useRef(onReach);
  useEffect(() => {
    heard.current = onReach;
  }, [onReach]);
  useEffect(() => {
    if (!layer.current) return;
    const brush = brushX<unknown>()
      .extent([
        [MARGIN.left, 0],
        [width - MARGIN.right, STRIP],
      ])
      .on('brush end', (event: D3BrushEvent<unknown>) => {
        // Only what a hand does: a brush that was moved by the fields tells nothing new.
        if (!event.sourceEvent) return;
        const [from, to] = (event.selection as [number, number] | null) ?? x.range();
        heard.current([x.invert(from ?? 0).getTime(), x.invert(to ?? 0).getTime()]);
      });
    const group = select<SVGGElement, unknown>(layer.current);
    group.call(brush);
    const isWhole = reach[0] === whole[0] && reach[1] === whole[1];
    group.call((g) => {
      brush.move(g, isWhole ? null : [x(reach[0]), x(reach[1])]);
    });
    group.selectAll('.selection').attr('fill', 'var(--ink)').attr('stroke', 'var(--ink)');
  }, [x, reach, whole, width]);
  return (
    <svg viewBox={`0 0 ${width} ${STRIP}`} className="w-100" aria-hidden="true">
      <rect x={MARGIN.left} width={width - MARGIN.left - MARGIN.right} height={STRIP} fill="var(--bed)" />
      {path && <path d={path} fill="none" stroke="var(--ink-2)" />}
      <g ref={layer} />
    </svg>
  );
}

const DAY_MS = 86_400_000;
const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

/** How a setup was found and left over the years: one part at a time, any stretch of time, the figures beside it. */
export function OverTimeChart({ view: all, system }: { readonly view: OverTime; readonly system: UnitSystem }) {
  const [box, width] = useWidth<HTMLDivElement>(USUAL_WIDTH);
  const [part, setPart] = useState<Followed>('offsetAcrossMm');
  const view = useMemo(() => ({ ...all, points: all.points.filter((p) => p.left[part] !== null) }), [all, part]);
  const whole = useMemo((): Reach => {
    const [from = 0, to = 0] = extent([...all.points, ...all.events], (p) => p.atMs);
    return [from - DAY_MS, to + DAY_MS];
  }, [all]);
  const [reach, setReach] = useState<Reach>(whole);
  const setEnd = (end: 0 | 1, day: string): void => {
    const ms = Date.parse(day);
    if (Number.isNaN(ms)) return;
    const next: Reach = end === 0 ? [ms, reach[1]] : [reach[0], ms + DAY_MS];
    if (next[0] < next[1]) setReach(next);
  };
  return (
    <section aria-label="Over time">
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="What is shown">
        {FOLLOWED.map((p) => (
          <button
            key={p}
            type="button"
            className={`btn ${p === part ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={p === part}
            onClick={() => {
              setPart(p);
            }}
          >
            {nameOf(p)}
          </button>
        ))}
      </div>
      <div ref={box}>
        {view.points.length > 0 ? (
          <>
            <Chart {...{ view, part, reach, system, width }} />
            <Strip {...{ view, part, whole, reach, width }} onReach={setReach} />
          </>
        ) : (
          <p>
            Nothing told the noise of reading the marks here yet: it is learned where one state of the machine is cut in
            two loads or more. Until then it is assumed.
          </p>
        )}
      </div>
      <div className="d-flex flex-wrap gap-3 align-items-end my-2">
        {([0, 1] as const).map((end) => (
          <div key={end}>
            <label className="form-label" htmlFor={`reach-${end}`}>
              {end === 0 ? 'From' : 'To'}
            </label>
            <input
              id={`reach-${end}`}
              type="date"
              className="form-control"
              value={dayOf(end === 0 ? reach[0] : reach[1] - 1)}
              onChange={(event) => {
                setEnd(end, event.target.value);
              }}
            />
          </div>
        ))}
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            setReach(whole);
          }}
        >
          All of it
        </button>
      </div>
      <p className="quiet">
        Filled: as it was left, with its standard uncertainty. Hollow: as it was found, before anything was set. Dashed:
        limits of what is left. Short marks: something happened.
        {part === 'markSdMm' && ' The noise is shown where loads told it; where it was only assumed nothing is drawn.'}
      </p>
      <Figures view={view} part={part} reach={reach} system={system} />
    </section>
  );
}

/** The same as figures, newest first. */
function Figures({ view, part, reach, system }: ChartProps) {
  const points = view.points.filter((p) => p.atMs >= reach[0] && p.atMs <= reach[1]);
  const shown = [...points].reverse().slice(0, 200);
  return (
    <details>
      <summary>{`The figures: ${points.length} calibrations${points.length > shown.length ? `, the newest ${shown.length}` : ''}`}</summary>
      <div className="table-responsive">
        <table className="plain">
          <thead>
            <tr>
              <th>when</th>
              <th>material</th>
              <th>as found</th>
              <th>as left</th>
              <th>uncertainty</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((p) => (
              <tr key={p.id}>
                <td>
                  <a href={`/history/${p.id}`}>{dayOf(p.atMs)}</a>
                </td>
                <td>{p.materialName}</td>
                <td className="figures text-nowrap">
                  {foundValues(p, part).map((v) => valueWords(part, v, system))[0] ?? '\u2013'}
                </td>
                <td className="figures text-nowrap">{valueWords(part, leftOf(p, part).value, system)}</td>
                <td className="figures text-nowrap">{valueWords(part, leftOf(p, part).standardUncertainty, system)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
