'use client';

import type { DiscState } from '@/core/scan/disc-measure';
import type { DiscResult } from '@/core/scan/measure-scan';
import type { OwnDisc } from './scan-view';
import { STATE_WORDS } from './scan-words';
import type { ScanJob } from './use-scans';

interface Props {
  readonly job: ScanJob;
  readonly own: readonly OwnDisc[];
  readonly chosen: string | null;
  readonly onChoose: (key: string) => void;
}

const COLOURS: Readonly<Record<DiscState, string>> = {
  good: 'var(--scan-good)',
  partial: 'var(--scan-watch)',
  'not-weeded': 'var(--scan-bad)',
  'bad-cut': 'var(--scan-bad)',
  missing: 'var(--scan-bad)',
};
/** Told by more than colour: a whole ring, a broken one, dots. */
const DASHES: Readonly<Record<DiscState, string | undefined>> = {
  good: undefined,
  partial: '14 6',
  'not-weeded': '3 5',
  'bad-cut': '3 5',
  missing: '3 5',
};

interface MarkProps {
  readonly disc: DiscResult;
  readonly own: OwnDisc;
  readonly factor: number;
  readonly isChosen: boolean;
  readonly onChoose: (key: string) => void;
}

/** One disc of the set to be read, over the scan. */
function Mark({ disc, own, factor, isChosen, onChoose }: MarkProps) {
  const { centre, right } = disc.view;
  const r = (own.radiusMm * 1.62 * Math.hypot(right.x, right.y)) / factor;
  const [x, y] = [centre.x / factor, centre.y / factor];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Spot ${own.spotNo}: ${STATE_WORDS[disc.state].name}`}
      aria-pressed={isChosen}
      className="scan-mark"
      onClick={() => {
        onChoose(own.key);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          onChoose(own.key);
        }
      }}
    >
      <circle
        cx={x}
        cy={y}
        r={r}
        fill="transparent"
        stroke={COLOURS[disc.state]}
        strokeWidth={isChosen ? 9 : 5}
        strokeDasharray={DASHES[disc.state]}
      />
      <text
        x={x + 1.15 * r}
        y={y + 0.35 * r}
        fontSize={Math.max(26, 0.9 * r)}
        fontWeight="650"
        fill={COLOURS[disc.state]}
      >
        {own.spotNo}
      </text>
    </g>
  );
}

/** The scan as it came in, with what has been found in it so far. */
export function ScanPicture({ job, own, chosen, onChoose }: Props) {
  const { preview, found, discs } = job;
  if (!preview) return <p className="bed quiet">The picture comes as soon as it is read.</p>;
  const { width, height, factor } = preview;
  return (
    <svg
      className="scan-picture"
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`The scan ${job.file.name}`}
    >
      <image href={preview.href} width={width} height={height} />
      {discs.length === 0 &&
        found.map(({ x, y }) => (
          <circle
            key={`${x} ${y}`}
            cx={x / factor}
            cy={y / factor}
            r={12}
            fill="none"
            stroke="var(--scan-watch)"
            strokeWidth={4}
          />
        ))}
      {own.map((o) => {
        const disc = discs.find((d) => d.key === o.key);
        return (
          disc && (
            <Mark key={o.key} disc={disc} own={o} factor={factor} isChosen={chosen === o.key} onChoose={onChoose} />
          )
        );
      })}
    </svg>
  );
}
