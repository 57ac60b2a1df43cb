'use client';

import Link from 'next/link';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { nextTurn, type TurnDeg } from '@/core/geometry/load';
import type { Point } from '@/core/geometry/affine';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { EdgesMeasured, type Measured } from './EdgesMeasured';
import { RoundLoupe } from './RoundLoupe';
import { clampRound, edgeOf, roundKey, withSeen, type DiscView, type RoundFigure } from './round-view';
import { LooksLikeThis } from './LooksLikeThis';
import { NotRead } from './NotRead';
import { slotKey, type Kept } from './slot';
import { TablePicture } from './TablePicture';
import { useReadings } from './use-readings';

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

function firstIndex(view: RoundView): number {
  const { discs, start, kept } = view;
  const asked = start ? discs.findIndex((d) => d.spotNo === start.spotNo) : -1;
  if (asked >= 0) return asked;
  return Math.max(
    0,
    discs.findIndex((d) => kept[keyOf(view, d.spotNo)] === undefined),
  );
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

/** Read discs: one at a time, both directions in one look, moved until its edges look like the disc in hand. */
export function RoundStation({ view }: { readonly view: RoundView }) {
  const keeper = useReadings(view.kept);
  const [index, setIndex] = useState(() => firstIndex(view));
  const [start, setStart] = useState(view.firstStart);
  const [place, setPlace] = useState(view.firstStart);
  const [turnDeg, setTurnDeg] = useState<TurnDeg>(view.turnDeg);
  // Directions told by a caliper, until the picture is moved by hand again.
  const [measured, setMeasured] = useState<readonly Measured['axis'][]>([]);
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.focus({ preventScroll: true });
  }, []);
  const moveBy = useCallback((by: Point) => {
    setMeasured([]);
    setPlace((now) => ({ x: now.x + by.x, y: now.y + by.y }));
  }, []);
  const disc = view.discs[index];
  if (!disc) return <p>This sheet has no discs to read.</p>;
  const eye: DiscView = { turnDeg, isSeenThrough: view.isSeenThrough };
  const edge = edgeOf(disc);
  const shown: Point = { x: clampRound(place.x, edge.reachMm), y: clampRound(place.y, edge.reachMm) };
  const open = view.discs.filter((d) => keeper.kept[keyOf(view, d.spotNo)] === undefined);

  const choose = (next: number): void => {
    const from = randomStart(edge.reachMm);
    setMeasured([]);
    setIndex(next);
    setStart(from);
    setPlace(from);
  };
  const answer = (state: Kept['state']): void => {
    const { spotNo } = disc;
    const isRead = state === 'read';
    for (const axis of ['across', 'along'] as const) {
      const component = axis === 'across' ? 'x' : 'y';
      keeper.keep({
        cutSetId: view.cutSetId,
        spotNo,
        axis,
        method: view.method,
        repeatNo: view.lookNo,
        state,
        readingMm: isRead ? shown[component] : null,
        instrument: measured.length === 2 ? 'caliper' : 'eye',
        startedAtMm: start[component],
      });
    }
    const rest = open.find((d) => d.spotNo !== spotNo);
    choose(rest ? view.discs.indexOf(rest) : index);
  };
  const handleKey = (event: KeyboardEvent): void => {
    // A field's or a list's own keys stay with it.
    if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return;
    const moved = roundKey(eye, event.key, event.shiftKey ? 0.5 : 0.05);
    if (moved) {
      event.preventDefault();
      moveBy(moved);
    } else if (event.key === 'Enter' && event.target === frame.current) answer('read');
    else if (event.key.toLowerCase() === 'r') setTurnDeg(nextTurn(turnDeg));
  };
  const left = open.length;
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
        <NotRead onAnswer={answer} />
        <p role="status">{keeper.notice}</p>
        <EdgesMeasured
          key={disc.spotNo}
          edge={edge}
          gapsMm={view.gapsMm}
          system={view.system}
          onMeasured={({ axis, seenMm, isByCaliper }) => {
            setMeasured((now) => [...now.filter((a) => a !== axis), ...(isByCaliper ? [axis] : [])]);
            setPlace((now) => withSeen(eye, now, axis, seenMm));
          }}
        />
        <RoundsSoFar view={view} kept={keeper.kept} current={disc.spotNo} onChoose={choose} />
        {keeper.sending === 0 && (
          <Link className={`btn ${left === 0 ? 'btn-primary' : 'btn-quiet'}`} href={view.next.href} prefetch={false}>
            {left === 0 ? view.next.words : `${left} still to read`}
          </Link>
        )}
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

interface SoFarProps {
  readonly view: RoundView;
  readonly kept: Readonly<Record<string, Kept>>;
  readonly current: number;
  readonly onChoose: (index: number) => void;
}

/** What was read so far; a tap reads it again. A confirming cut is read blind. */
function RoundsSoFar({ view, kept, current, onChoose }: SoFarProps) {
  const words = (spotNo: number): string => {
    const both = (['across', 'along'] as const).map((axis) => kept[slotKey({ method: view.method, spotNo, axis })]);
    const [first] = both;
    if (!first) return '\u2013';
    if (first.state !== 'read') return first.state;
    if (view.isBlind) return 'read';
    return both.map((k) => formatLength(k?.readingMm ?? 0, view.system, true)).join(', ');
  };
  return (
    <ol className="so-far">
      {view.discs.map((d, i) => (
        <li key={d.spotNo}>
          <button
            type="button"
            className={d.spotNo === current ? 'current' : ''}
            onClick={() => {
              onChoose(i);
            }}
          >
            <span className="quiet">{`disc ${d.spotNo}`}</span> <span className="figures">{words(d.spotNo)}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
