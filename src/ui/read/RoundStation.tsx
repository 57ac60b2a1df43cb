'use client';

import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { nextTurn, type TurnDeg } from '@/core/geometry/load';
import type { Point } from '@/core/geometry/affine';
import { AXES } from '@/core/target/wedge';
import type { UnitSystem } from '@/core/units/length';
import { EdgesMeasured, type Measured } from './EdgesMeasured';
import { RoundLoupe } from './RoundLoupe';
import { clampRound, edgeOf, roundKey, withSeen, type DiscView, type RoundFigure } from './round-view';
import { LooksLikeThis } from './LooksLikeThis';
import { NotRead } from './NotRead';
import { RoundsSoFar } from './RoundsSoFar';
import { slotKey, type Kept } from './slot';
import { AllRead } from './AllRead';
import { isUndo, MOVE_FIRST, nextOpen } from './answering';
import { TablePicture } from './TablePicture';
import { useReadings, type ReadingAnswer, type ReadingKeeper } from './use-readings';
import { WhatNext } from './WhatNext';

export interface RoundView {
  /** Walls of discs on the sheet, or rims of lifted ones; the back of a disc that was turned over has readings of its own. */
  readonly method: 'wall' | 'rim' | 'rim_back';
  readonly cutSetId: string;
  readonly discs: readonly RoundFigure[];
  /** Gaps printed on the sheet that rims can be compared with; none beside discs with a hole. */
  readonly gapsMm: readonly number[];
  readonly turnDeg: TurnDeg;
  readonly isSeenThrough: boolean;
  readonly kept: Readonly<Record<string, Kept>>;
  readonly isBlind: boolean;
  /** Which look at the discs: each is blind to the others. */
  readonly lookNo: number;
  readonly system: UnitSystem;
  /** Random place of the first picture, drawn by the server so that both sides agree. */
  readonly firstStart: Point;
  readonly start: { readonly spotNo: number } | null;
  readonly next: { readonly href: string; readonly words: string };
  readonly pictureHref: string | null;
}

const keyOf = ({ method }: Pick<RoundView, 'method'>, spotNo: number): string =>
  slotKey({ method, spotNo, axis: 'along' });

/** Anywhere within half a mm both ways, never the prediction. */
function randomStart(reachMm: number): Point {
  const [a = 0, b = 0] = crypto.getRandomValues(new Uint32Array(2));
  return { x: clampRound(a / 2 ** 32 - 0.5, reachMm), y: clampRound(b / 2 ** 32 - 0.5, reachMm) };
}

/** The disc asked for, else the first that is open; null where all are answered. */
function firstIndex(view: RoundView, kept: RoundView['kept']): number | null {
  const { discs, start } = view;
  const asked = start ? discs.findIndex((d) => d.spotNo === start.spotNo) : -1;
  if (asked >= 0) return asked;
  const open = discs.findIndex((d) => kept[keyOf(view, d.spotNo)] === undefined);
  return open >= 0 ? open : null;
}

const EDGE_WORDS = {
  Rim: 'The rim is the clear edge outside the printed ring.',
  Wall: 'The wall is the dark ink left round the hole.',
} as const;

/** A lifted disc is told by the number in it, one on the sheet by the number beside it. */
function titleOf(disc: RoundFigure): string {
  const { spotNo } = disc;
  if (disc.kind === 'disc') return `Spot ${spotNo}: make its walls look like the disc`;
  return `Spot ${spotNo}: make its rims look like the disc`;
}

interface Station {
  readonly keeper: ReadingKeeper;
  /** The disc under the loupe; null once all are answered. */
  readonly disc: RoundFigure | null;
  readonly edge: ReturnType<typeof edgeOf>;
  /** How far the cut is off in the picture, as far as the disc can show it. */
  readonly shown: Point;
  /** Discs without an answer. */
  readonly left: number;
  readonly said: string | null;
  readonly moveBy: (by: Point) => void;
  readonly measured: (eye: DiscView, seen: Measured) => void;
  readonly choose: (index: number | null) => void;
  readonly answer: (state: Kept['state']) => void;
  readonly undo: () => void;
}

/** State of the station: which disc, where its cut stands in the picture, and the answers so far. */
function useStation(view: RoundView, firstDisc: RoundFigure): Station {
  const keeper = useReadings(view);
  const [index, setIndex] = useState<number | null>(() => firstIndex(view, keeper.kept));
  const [start, setStart] = useState(view.firstStart);
  const [place, setPlace] = useState(view.firstStart);
  // Directions told by a caliper, until the picture is moved by hand again.
  const [byCaliper, setByCaliper] = useState<readonly Measured['axis'][]>([]);
  // Only what somebody moved, measured or typed is an answer.
  const [isMoved, setMoved] = useState(false);
  const [hint, setHint] = useState<string | null>(null);
  const touched = useCallback(() => {
    setMoved(true);
    setHint(null);
  }, []);
  const moveBy = useCallback(
    (by: Point) => {
      setByCaliper([]);
      touched();
      setPlace((now) => ({ x: now.x + by.x, y: now.y + by.y }));
    },
    [touched],
  );
  const disc = index === null ? null : (view.discs[index] ?? null);
  const edge = edgeOf(disc ?? firstDisc);
  const shown: Point = { x: clampRound(place.x, edge.reachMm), y: clampRound(place.y, edge.reachMm) };
  const isOpen = (name: string): boolean => keeper.kept[name] === undefined;

  const choose = (next: number | null): void => {
    const from = randomStart(edge.reachMm);
    setByCaliper([]);
    setMoved(false);
    setHint(null);
    setIndex(next);
    setStart(from);
    setPlace(from);
  };
  const answer = (state: Kept['state']): void => {
    if (index === null || !disc) return;
    const isRead = state === 'read';
    if (isRead && !isMoved) {
      setHint(MOVE_FIRST);
      return;
    }
    keeper.keep(
      ...AXES.map((axis): ReadingAnswer => {
        const component = axis === 'across' ? 'x' : 'y';
        return {
          ...{ cutSetId: view.cutSetId, spotNo: disc.spotNo, axis, method: view.method, repeatNo: view.lookNo, state },
          readingMm: isRead ? shown[component] : null,
          instrument: byCaliper.length === 2 ? 'caliper' : 'eye',
          startedAtMm: start[component],
        };
      }),
    );
    choose(
      nextOpen(
        view.discs.map((d) => keyOf(view, d.spotNo)),
        index,
        isOpen,
      ),
    );
  };
  const undo = (): void => {
    const slot = keeper.undo();
    if (slot !== null)
      choose(view.discs.findIndex((d) => AXES.some((axis) => slotKey({ ...view, ...d, axis }) === slot)));
  };
  const measured = (eye: DiscView, { axis, seenMm, isByCaliper }: Measured): void => {
    setByCaliper((now) => [...now.filter((a) => a !== axis), ...(isByCaliper ? [axis] : [])]);
    touched();
    setPlace((now) => withSeen(eye, now, axis, seenMm));
  };
  const left = view.discs.filter((d) => isOpen(keyOf(view, d.spotNo))).length;
  return { keeper, disc, edge, shown, left, said: hint ?? keeper.notice, moveBy, measured, choose, answer, undo };
}

/** Read discs: one at a time, both directions in one look, moved until its edges look like the disc in hand. */
export function RoundStation({ view }: { readonly view: RoundView }) {
  const [firstDisc] = view.discs;
  return firstDisc ? <Discs view={view} firstDisc={firstDisc} /> : <p>This sheet has no discs to read.</p>;
}

function Discs({ view, firstDisc }: { readonly view: RoundView; readonly firstDisc: RoundFigure }) {
  const station = useStation(view, firstDisc);
  const { keeper, disc, edge, shown, moveBy, choose, answer, undo } = station;
  const [turnDeg, setTurnDeg] = useState<TurnDeg>(view.turnDeg);
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.focus({ preventScroll: true });
  }, []);
  const eye: DiscView = { turnDeg, isSeenThrough: view.isSeenThrough };
  const handleKey = (event: KeyboardEvent): void => {
    // A field's or a list's own keys stay with it.
    if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return;
    if (isUndo(event)) {
      event.preventDefault();
      undo();
      return;
    }
    const moved = disc && roundKey(eye, event.key, event.shiftKey ? 0.5 : 0.05);
    if (moved) {
      event.preventDefault();
      moveBy(moved);
    } else if (event.key === 'Enter' && event.target === frame.current) answer('read');
    else if (event.key.toLowerCase() === 'r') setTurnDeg(nextTurn(turnDeg));
  };
  const soFar = (
    <>
      <RoundsSoFar view={view} kept={keeper.kept} current={disc?.spotNo ?? null} onChoose={choose} />
      <WhatNext left={station.left} unsaved={keeper.unsaved} next={view.next} isDone={disc === null} />
    </>
  );
  if (!disc)
    return (
      <div ref={frame} tabIndex={-1} role="application" aria-label="Match the disc" onKeyDown={handleKey}>
        <AllRead count={view.discs.length} canUndo={keeper.canUndo} onUndo={undo} />
        {soFar}
      </div>
    );
  return (
    <div className="two" ref={frame} tabIndex={-1} role="application" aria-label="Match the disc" onKeyDown={handleKey}>
      <div>
        <RoundLoupe
          figure={disc}
          view={eye}
          displacement={shown}
          label={`Disc ${disc.spotNo} with its ${edge.name.toLowerCase()}s as entered`}
          isBack={view.method === 'rim_back'}
          onDrag={moveBy}
        />
        <button
          type="button"
          className="btn-plain"
          onClick={() => {
            setTurnDeg(nextTurn(turnDeg));
          }}
        >
          {disc.kind === 'disc'
            ? 'Hold the sheet so that the pointer lies as drawn, or turn the picture'
            : 'Hold the disc like this, its number as drawn, or turn the picture'}{' '}
          <span className="key">R</span>
        </button>
      </div>
      <div>
        <h2>{titleOf(disc)}</h2>
        <p className="quiet">
          Arrow keys move the cut the way they point (Shift: half a mm); drag it with a finger. {EDGE_WORDS[edge.name]}
        </p>
        <p className="d-flex flex-wrap gap-2">
          <LooksLikeThis
            onClick={() => {
              answer('read');
            }}
          />
        </p>
        <NotRead onAnswer={answer} canUndo={keeper.canUndo} onUndo={undo} />
        <p role="status">{station.said}</p>
        <EdgesMeasured
          key={disc.spotNo}
          edge={edge}
          gapsMm={view.gapsMm}
          system={view.system}
          onMeasured={(seen) => {
            station.measured(eye, seen);
          }}
        />
        {soFar}
        {view.pictureHref && (
          <TablePicture
            href={view.pictureHref}
            figure={{ centre: disc.centre }}
            isWeeded={disc.kind === 'disc'}
            turnDeg={turnDeg}
            isMirrored={view.isSeenThrough}
          />
        )}
      </div>
    </div>
  );
}
