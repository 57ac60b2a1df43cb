import { gaugeLayout } from './gauge-layout';

/** How far out a setup is: a string leaning in a wedge. The wedge is the tolerance; outside it is out. */
export function PlumbGauge({
  worstMm,
  toleranceMm,
  size = 72,
}: {
  readonly worstMm: number | null;
  readonly toleranceMm: number;
  readonly size?: number;
}) {
  const gauge = gaugeLayout(worstMm, toleranceMm);
  return (
    <svg viewBox="-30 -4 60 68" width={size} height={(size * 68) / 60} role="img" aria-label={gauge.words}>
      <path d={gauge.wedgePath} fill="var(--bed)" stroke="var(--ink-2)" strokeWidth="0.8" />
      <line x1="-9" x2="9" y1="0" y2="0" stroke="var(--ink)" strokeWidth="3" />
      {gauge.bob && (
        <>
          <line x1="0" y1="0" x2={gauge.bob.x} y2={gauge.bob.y} stroke="var(--plumb)" strokeWidth="1.6" />
          <path
            d={gauge.bobPath}
            fill="var(--plumb)"
            transform={`translate(${gauge.bob.x} ${gauge.bob.y}) rotate(${-gauge.leanDeg})`}
          />
        </>
      )}
    </svg>
  );
}
