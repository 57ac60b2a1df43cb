'use client';

import { cropHalfMm } from '@/core/scan/upright-crop';
import type { DiscState } from '@/core/scan/disc-measure';
import type { DiscResult } from '@/core/scan/measured-figure';
import type { ShownDisc } from './scan-view';
import { stateWords } from './state-words';
import type { ScanJob } from './use-scans';

interface Props {
  readonly job: ScanJob;
  readonly own: readonly ShownDisc[];
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
  partial: '6 3',
  'not-weeded': '1.5 2.5',
  'bad-cut': '1.5 2.5',
  missing: '1.5 2.5',
};

interface MarkProps {
  readonly disc: DiscResult;
  readonly own: ShownDisc;
  readonly factor: number;
  readonly isChosen: boolean;
  readonly onChoose: (key: string) => void;
}

/** The ring round a disc, as a share of what its close-up shows. */
const MARK_SHARE = 0.925;

/** One disc of the set to be read, over the scan; a lifted one has its number printed in it. */
function Mark({ disc, own, factor, isChosen, onChoose }: MarkProps) {
  if (!disc.view) return null;
  const { centre, right } = disc.view;
  const r = (MARK_SHARE * cropHalfMm(own.figure) * Math.hypot(right.x, right.y)) / factor;
  const [x, y] = [centre.x / factor, centre.y / factor];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${own.name}: ${stateWords(disc.state, own.figure.cutShape).name}`}
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
        strokeWidth={isChosen ? 4 : 2.2}
        vectorEffect="non-scaling-stroke"
        strokeDasharray={DASHES[disc.state]}
      />
      {own.figure.cutShape !== 'edge' && (
        <text
          x={x + 1.15 * r}
          y={y + 0.35 * r}
          fontSize={Math.max(26, 0.9 * r)}
          fontWeight="650"
          fill={COLOURS[disc.state]}
        >
          {own.short}
        </text>
      )}
    </g>
  );
}

/** As much of the card as pieces lie on: the rest of the glass shows nothing. Null where none was found. */
function roundPieces({ discs, preview }: ScanJob, own: readonly ShownDisc[]): string | null {
  const half = own[0] && preview ? 1.1 * cropHalfMm(own[0].figure) : 0;
  const boxes = discs.flatMap(({ view }) => {
    if (!view || !preview) return [];
    const reach = (half * Math.hypot(view.right.x, view.right.y)) / preview.factor;
    const [x, y] = [view.centre.x / preview.factor, view.centre.y / preview.factor];
    return [{ left: x - reach, right: x + reach, top: y - reach, bottom: y + reach }];
  });
  if (boxes.length === 0) return null;
  const [left, top] = [Math.min(...boxes.map((b) => b.left)), Math.min(...boxes.map((b) => b.top))];
  const [right, bottom] = [Math.max(...boxes.map((b) => b.right)), Math.max(...boxes.map((b) => b.bottom))];
  return `${left} ${top} ${right - left} ${bottom - top}`;
}

/** The scan as it came in, with what has been found in it so far. */
export function ScanPicture({ job, own, chosen, onChoose }: Props) {
  const { preview, found, discs } = job;
  if (!preview) return <p className="bed quiet">The picture comes as soon as it is read.</p>;
  const { width, height, factor } = preview;
  const shown = job.measured?.result.cutShape === 'edge' ? roundPieces(job, own) : null;
  return (
    <svg
      className="scan-picture"
      viewBox={shown ?? `0 0 ${width} ${height}`}
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
