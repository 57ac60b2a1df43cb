'use client';

import { useState } from 'react';
import type { Point } from '@/core/geometry/affine';
import { nextTurn, sheetToView, type TurnDeg } from '@/core/geometry/load';
import { divisionOf } from '@/core/target/reading-scale';
import type { RoughFigure } from '@/core/target/sheet-definition';
import { formatReading, formatReadingNumber } from '@/core/units/length';
import { isUndo } from './answering';
import { RoughPicture } from './RoughPicture';
import { TablePicture } from './TablePicture';
import { slotKey, type Kept } from './slot';
import { useReadings } from './use-readings';
import { WhatNext } from './WhatNext';

export interface RoughView {
  readonly cutSetId: string;
  readonly roughs: readonly RoughFigure[];
  readonly turnDeg: TurnDeg;
  readonly kept: Readonly<Record<string, Kept>>;
  readonly next: { readonly href: string; readonly words: string };
  readonly pictureHref: string | null;
}

/** The nearest place that the grid can tell, within its lines. */
function settledOn({ reachMm, scale }: RoughFigure, mm: number): number {
  const { gridStepMm } = divisionOf(scale);
  const most = Math.floor(reachMm / gridStepMm);
  return Number((Math.max(-most, Math.min(most, Math.round(mm / gridStepMm))) * gridStepMm).toFixed(6)) + 0;
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Rough position: move the dashed L over the mm grid until it lies as on the sheet. Both directions at once. */
export function RoughStation({ view }: { readonly view: RoughView }) {
  const keeper = useReadings({ ...view, lookNo: 1 });
  const [index, setIndex] = useState(0);
  const [hint, setHint] = useState<string | null>(null);
  const [isMoved, setMoved] = useState(false);
  const [turnDeg, setTurnDeg] = useState<TurnDeg>(view.turnDeg);
  const [place, setPlace] = useState({ x: 0, y: 0 });
  const rough = view.roughs[index];
  if (!rough) return <p>This sheet has no rough grids.</p>;
  const { scale = 'mm' } = rough;
  const { gridLineMm, gridStepMm } = divisionOf(scale);
  const t = sheetToView(turnDeg);
  const inSheet = (p: { x: number; y: number }): { x: number; y: number } => ({
    x: t.xx * p.x + t.yx * p.y,
    y: t.xy * p.x + t.yy * p.y,
  });
  const moved = (): void => {
    setMoved(true);
    setHint(null);
  };
  const move = (dx: number, dy: number): void => {
    const d = inSheet({ x: dx, y: dy });
    moved();
    setPlace((now) => ({ x: settledOn(rough, now.x + d.x), y: settledOn(rough, now.y + d.y) }));
  };
  const keep = (): void => {
    if (!isMoved) {
      setHint('Move the L first: tap where its outer corner is.');
      return;
    }
    const slot = {
      cutSetId: view.cutSetId,
      spotNo: rough.spotNo,
      method: 'rough',
      state: 'read',
      startedAtMm: 0,
    } as const;
    keeper.keep({ ...slot, axis: 'across', readingMm: place.x }, { ...slot, axis: 'along', readingMm: place.y });
    setIndex(Math.min(index + 1, view.roughs.length - 1));
  };
  const undo = (): void => {
    const slot = keeper.undo();
    const undone = view.roughs.findIndex(
      (r) => slotKey({ method: 'rough', spotNo: r.spotNo, axis: 'across' }) === slot,
    );
    if (undone >= 0) setIndex(undone);
  };
  const touchAt = (view: Point<'view'>): void => {
    const p = inSheet(view);
    moved();
    setPlace({ x: settledOn(rough, p.x), y: settledOn(rough, p.y) });
  };
  const readCount = view.roughs.filter(
    (r) => keeper.kept[slotKey({ method: 'rough', spotNo: r.spotNo, axis: 'along' })],
  ).length;
  const isAllRead = readCount === view.roughs.length;

  return (
    <div
      className="two"
      role="application"
      aria-label="Rough position"
      onKeyDown={(event) => {
        if (isUndo(event)) {
          event.preventDefault();
          undo();
          return;
        }
        const arrow = ARROWS[event.key];
        if (!arrow) return;
        event.preventDefault();
        const step = event.shiftKey ? gridLineMm : gridStepMm;
        move(arrow[0] * step, arrow[1] * step);
      }}
    >
      <RoughPicture rough={rough} place={place} turnDeg={turnDeg} onTouch={touchAt} />
      <div>
        <h2>{`Grid ${index + 1} of ${view.roughs.length}: where is the outer corner of the cut L?`}</h2>
        <p>
          {`Each line is ${formatReadingNumber(gridLineMm, scale)} ${scale}, the thick cross is where it belongs. Tap the corner, or move the L with the arrow keys (Shift: one line).`}
        </p>
        <p className="figures" style={{ fontSize: '1.6rem' }}>
          {`${formatReading(place.x, scale, true)} across, ${formatReading(place.y, scale, true)} along`}
        </p>
        <p className="d-flex flex-wrap gap-2">
          <button type="button" className={`btn ${isAllRead ? 'btn-quiet' : 'btn-primary'}`} onClick={keep}>
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
          {keeper.canUndo && (
            <button type="button" className="btn btn-quiet" onClick={undo}>
              Undo
            </button>
          )}
          {index > 0 && (
            <button
              type="button"
              className="btn btn-quiet"
              onClick={() => {
                setIndex(index - 1);
              }}
            >
              Grid before
            </button>
          )}
        </p>
        <p role="status">{hint ?? keeper.notice ?? `${readCount} of ${view.roughs.length} read.`}</p>
        {readCount > 0 && (
          <WhatNext
            left={view.roughs.length - readCount}
            unsaved={keeper.unsaved}
            next={view.next}
            isDone={isAllRead}
          />
        )}
        {view.pictureHref && (
          <TablePicture href={view.pictureHref} figure={{ centre: rough.centre }} turnDeg={turnDeg} isWeeded={false} />
        )}
      </div>
    </div>
  );
}
