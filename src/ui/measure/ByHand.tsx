'use client';

import { useState } from 'react';
import {
  HAND_MODELS,
  registerByHand,
  TOUCH_SD_MM,
  type HandModel,
  type TouchedMark,
} from '@/core/registration/hand-registration';
import type { Point } from '@/core/geometry/affine';
import { formatFixed, formatLength, formatSize } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import type { MeasureToolView } from './measure-view';
import { RescueOrReprintChoice } from './RescueOrReprintChoice';

const USES: Readonly<Record<HandModel, string>> = {
  shift: 'it moves the job to the first mark',
  rigid: 'it moves and turns the job',
  similarity: 'it moves, turns and scales the job',
  affine: 'it fits the job to all marks',
};
const CORNERS = ['lower left', 'lower right', 'upper right', 'upper left'] as const;

interface Places {
  readonly nominal: Point;
  readonly found: { readonly x: number | null; readonly y: number | null };
}

const fromCorner = (p: Point, page: MeasureToolView['page']): Point => ({
  x: p.x + page.widthMm / 2,
  y: p.y + page.lengthMm / 2,
});

/** Registration by hand: the tool driven over the marks, and what comes of it before the sheet is risked. */
export function ByHand({ view }: { readonly view: MeasureToolView }) {
  const { system, page, frame, toleranceMm } = view;
  const [count, setCount] = useState(2);
  const [uses, setUses] = useState<HandModel>('rigid');
  const [places, setPlaces] = useState<readonly Places[]>(() =>
    view.marks.map((m) => ({ nominal: fromCorner(m, page), found: { x: null, y: null } })),
  );
  // Two marks stand best on a diagonal.
  const order = count === 2 ? [0, 2] : [0, 1, 2, 3].slice(0, count);
  const middle = { x: page.widthMm / 2, y: page.lengthMm / 2 };
  const marks = order.flatMap((i): readonly TouchedMark[] => {
    const place = places[i];
    if (!place || place.found.x === null || place.found.y === null) return [];
    return [
      {
        nominal: { x: place.nominal.x - middle.x, y: place.nominal.y - middle.y },
        found: { x: place.found.x - middle.x, y: place.found.y - middle.y },
      },
    ];
  });
  const set = (i: number, change: (p: Places) => Places): void => {
    setPlaces(places.map((p, k) => (k === i ? change(p) : p)));
  };
  const done = registerByHand({
    marks,
    uses,
    touchSdMm: TOUCH_SD_MM,
    workWidthMm: frame.widthMm,
    workLengthMm: frame.lengthMm,
    toleranceMm,
  });
  return (
    <div>
      <p>
        Drive the tool over each mark by the arrow keys and write down where the display says it is; where the mark
        stands in the drawing is filled in from the page.
      </p>
      <p className="caution">
        Tool up, machine stopped and waiting for nothing before you lean over it; your machine&rsquo;s manual and local
        rules come first.
      </p>
      <p className="d-flex flex-wrap gap-2">
        {[1, 2, 3, 4].map((n) => (
          <button
            key={n}
            type="button"
            className={`btn ${n === count ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={n === count}
            onClick={() => {
              setCount(n);
            }}
          >
            {`${n} ${n === 1 ? 'mark' : 'marks'}`}
          </button>
        ))}
      </p>
      <label className="form-label d-block" style={{ maxWidth: '24rem' }}>
        What the cutter does with them
        <select
          className="form-select"
          value={uses}
          onChange={(e) => {
            setUses(e.target.value as HandModel);
          }}
        >
          {HAND_MODELS.map((m) => (
            <option key={m} value={m}>
              {USES[m]}
            </option>
          ))}
        </select>
      </label>
      {order.map((i) => (
        <fieldset key={`${i} of ${count}`}>
          <legend className="h2">{`Mark ${CORNERS[i] ?? i + 1}`}</legend>
          <div className="d-flex flex-wrap gap-3">
            <LengthField
              label="in the drawing, from the left"
              system={system}
              initialMm={places[i]?.nominal.x ?? 0}
              onChange={(x) => {
                if (x !== null) set(i, (p) => ({ ...p, nominal: { ...p.nominal, x } }));
              }}
            />
            <LengthField
              label="in the drawing, from below"
              system={system}
              initialMm={places[i]?.nominal.y ?? 0}
              onChange={(y) => {
                if (y !== null) set(i, (p) => ({ ...p, nominal: { ...p.nominal, y } }));
              }}
            />
            <LengthField
              label="found, from the left"
              system={system}
              isOptional
              onChange={(x) => {
                set(i, (p) => ({ ...p, found: { ...p.found, x } }));
              }}
            />
            <LengthField
              label="found, from below"
              system={system}
              isOptional
              onChange={(y) => {
                set(i, (p) => ({ ...p, found: { ...p.found, y } }));
              }}
            />
          </div>
        </fieldset>
      ))}
      {!done.ok && (
        <p role="status" className="quiet">
          {done.error.kind === 'too-few-marks'
            ? `Type ${done.error.needed - done.error.got} more ${done.error.needed - done.error.got === 1 ? 'mark' : 'marks'} to see what comes of it.`
            : 'These marks stand in one place: choose marks far apart.'}
        </p>
      )}
      {done.ok && (
        <section aria-label="What comes of it" role="status">
          <h2>{`Out by ${formatLength(done.value.bounds.worstMm, system)} at the worst corner, up to ${formatLength(done.value.bounds.upperMm, system)}; ${formatSize(toleranceMm, system)} allowed`}</h2>
          <p>
            {`The print lies ${formatLength(done.value.print.beta[0] ?? 0, system, true)} across and ${formatLength(done.value.print.beta[1] ?? 0, system, true)} along`}
            {done.value.printModel !== 'shift' &&
              `, turned ${formatFixed(((done.value.print.beta[4] ?? 0) * 180) / Math.PI, 2, true)}\u00b0, ${formatFixed(50 * ((done.value.print.beta[2] ?? 0) + (done.value.print.beta[5] ?? 0)), 2, true)} % in size`}
            {`. The marks fit what the cutter makes of them within ${formatLength(done.value.worstMarkMm, system)}.`}
          </p>
          <RescueOrReprintChoice outShare={done.value.outShare} />
        </section>
      )}
    </div>
  );
}
