'use client';

import Link from 'next/link';
import { useRef, useState, type PointerEvent } from 'react';
import { nextTurn, sheetToView, type TurnDeg } from '@/core/geometry/load';
import { ROUGH_REACH_MM } from '@/core/target/block';
import { roughCut } from '@/core/target/drawing';
import { roughInk } from '@/core/target/figure-ink';
import type { RoughFigure } from '@/core/target/sheet-definition';
import { formatFixed } from '@/core/units/length';
import { InkShapes } from '../sheet/InkShapes';
import { TablePicture } from './TablePicture';
import { slotKey, type Kept } from './slot';
import { useReadings } from './use-readings';

export interface RoughView {
  readonly cutSetId: string;
  readonly roughs: readonly RoughFigure[];
  readonly turnDeg: TurnDeg;
  readonly kept: Readonly<Record<string, Kept>>;
  readonly next: { readonly href: string; readonly words: string };
  readonly pictureHref: string | null;
}

const REACH_VIEW_MM = 21;
const quarter = (mm: number): number => Math.max(-ROUGH_REACH_MM, Math.min(ROUGH_REACH_MM, Math.round(mm * 4) / 4)) + 0;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Rough position: move the dashed L over the mm grid until it lies as on the sheet. Both directions at once. */
export function RoughStation({ view }: { readonly view: RoughView }) {
  const keeper = useReadings(view.kept);
  const [index, setIndex] = useState(0);
  const [turnDeg, setTurnDeg] = useState<TurnDeg>(view.turnDeg);
  const [place, setPlace] = useState({ x: 0, y: 0 });
  const svg = useRef<SVGSVGElement>(null);
  const rough = view.roughs[index];
  if (!rough) return <p>This sheet has no rough grids.</p>;
  const t = sheetToView(turnDeg);
  const inSheet = (p: { x: number; y: number }): { x: number; y: number } => ({
    x: t.xx * p.x + t.yx * p.y,
    y: t.xy * p.x + t.yy * p.y,
  });
  const move = (dx: number, dy: number): void => {
    const d = inSheet({ x: dx, y: dy });
    setPlace((now) => ({ x: quarter(now.x + d.x), y: quarter(now.y + d.y) }));
  };
  const keep = (): void => {
    const slot = {
      cutSetId: view.cutSetId,
      spotNo: rough.spotNo,
      method: 'rough',
      state: 'read',
      startedAtMm: 0,
    } as const;
    keeper.keep({ ...slot, axis: 'across', readingMm: place.x });
    keeper.keep({ ...slot, axis: 'along', readingMm: place.y });
    setIndex(Math.min(index + 1, view.roughs.length - 1));
  };
  const touch = (event: PointerEvent<SVGSVGElement>): void => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const box = svg.current?.getBoundingClientRect();
    if (!box) return;
    const scale = (2 * REACH_VIEW_MM) / box.width;
    const p = inSheet({
      x: (event.clientX - box.left - box.width / 2) * scale,
      y: -(event.clientY - box.top - box.height / 2) * scale,
    });
    setPlace({ x: quarter(p.x), y: quarter(p.y) });
  };
  const readCount = view.roughs.filter(
    (r) => keeper.kept[slotKey({ method: 'rough', spotNo: r.spotNo, axis: 'along' })],
  ).length;
  const centred: RoughFigure = { ...rough, centre: { x: 0, y: 0 } };
  const ell = roughCut(centred)
    .map((p) => `${p.x + place.x},${p.y + place.y}`)
    .join(' ');

  return (
    <div
      className="two"
      role="application"
      aria-label="Rough position"
      onKeyDown={(event) => {
        const arrow = ARROWS[event.key];
        if (!arrow) return;
        event.preventDefault();
        const step = event.shiftKey ? 1 : 0.25;
        move(arrow[0] * step, arrow[1] * step);
      }}
    >
      <svg
        ref={svg}
        className="drawing loupe"
        tabIndex={0}
        viewBox={`${-REACH_VIEW_MM} ${-REACH_VIEW_MM} ${2 * REACH_VIEW_MM} ${2 * REACH_VIEW_MM}`}
        role="img"
        aria-label={`Rough grid ${rough.spotNo}, the L at ${place.x} across and ${place.y} along`}
        onPointerDown={touch}
        onPointerMove={touch}
      >
        <rect x="-30" y="-30" width="60" height="60" fill="var(--sheet)" />
        <g transform={`scale(1 -1) rotate(${turnDeg})`}>
          <InkShapes shapes={roughInk(centred)} />
          <polygon
            points={ell}
            fill="var(--bed)"
            fillOpacity="0.8"
            stroke="var(--plumb)"
            strokeWidth="0.25"
            strokeDasharray="1 0.6"
          />
          <circle cx={place.x} cy={place.y} r="0.5" fill="var(--plumb)" />
        </g>
      </svg>
      <div>
        <h2>{`Grid ${index + 1} of ${view.roughs.length}: where is the outer corner of the cut L?`}</h2>
        <p>
          Each line is one mm, the thick cross is where it belongs. Tap the corner, or move the L with the arrow keys
          (Shift: one mm).
        </p>
        <p className="figures" style={{ fontSize: '1.6rem' }}>
          {`${formatFixed(place.x, 2, true)} across, ${formatFixed(place.y, 2, true)} along`}
        </p>
        <p className="d-flex flex-wrap gap-2">
          <button type="button" className="btn btn-primary" onClick={keep}>
            It looks like this
          </button>
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => {
              setTurnDeg(nextTurn(turnDeg));
            }}
          >
            Turn the picture
          </button>
          {index > 0 && (
            <button
              type="button"
              className="btn btn-quiet"
              onClick={() => {
                setIndex(index - 1);
              }}
            >
              The grid before
            </button>
          )}
        </p>
        <p role="status">{keeper.notice ?? `${readCount} of ${view.roughs.length} read.`}</p>
        {readCount > 0 && keeper.sending === 0 && (
          <Link
            className={`btn ${readCount === view.roughs.length ? 'btn-primary' : 'btn-quiet'}`}
            href={view.next.href}
            prefetch={false}
          >
            {view.next.words}
          </Link>
        )}
        {view.pictureHref && (
          <TablePicture href={view.pictureHref} figure={{ centre: rough.centre }} turnDeg={turnDeg} isWeeded={false} />
        )}
      </div>
    </div>
  );
}
