'use client';

import { useEffect, useRef, useState } from 'react';
import { keptLength } from '@/core/artwork/picture-checks';
import type { ItemArt, JobItem } from '@/core/layout/job-draft';
import { MM_PER_INCH, type UnitSystem } from '@/core/units/length';
import type { ArtSurvey } from '@/workers/layout.client';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';
import { ArtDrop } from './ArtDrop';
import { DrawingRoles } from './DrawingRoles';
import type { ItemState } from './use-items';

interface Size {
  readonly widthMm: number;
  readonly lengthMm: number;
}

interface Props {
  readonly jobId: string;
  readonly item: JobItem;
  readonly state: ItemState | undefined;
  readonly survey: ArtSurvey | undefined;
  readonly system: UnitSystem;
  readonly naturalSize: (item: JobItem) => Promise<Size | null>;
  /** What of it changes. */
  readonly onChange: (next: Partial<JobItem>) => void;
  readonly onRemove: () => void;
  readonly onCancel: () => void;
}

/** A picture placed anew is taken at 300 dots to the inch. */
const PICTURE_DPI = 300;

/** Proportion that an item keeps: its picture's own, or that of its sides as they stand. */
const proportionOf = ({ art, widthMm, lengthMm }: JobItem) =>
  art.kind === 'picture' ? { width: art.widthPx, height: art.heightPx } : { width: widthMm, height: lengthMm };

/** Both sides of the art; with the proportion kept one follows the other. */
function SizeFields({ item, system, onChange }: Pick<Props, 'item' | 'system' | 'onChange'>) {
  const [isKept, setKept] = useState(item.art.kind !== 'plain');
  // The side that was not typed shows what it was brought to.
  const [brought, setBrought] = useState({ width: 0, length: 0 });
  const own = proportionOf(item);
  const typeWidth = (widthMm: number): void => {
    onChange({ widthMm, ...(isKept && { lengthMm: keptLength(own, widthMm) }) });
    if (isKept) setBrought((b) => ({ ...b, length: b.length + 1 }));
  };
  const typeLength = (lengthMm: number): void => {
    const turned = { width: own.height, height: own.width };
    onChange({ lengthMm, ...(isKept && { widthMm: keptLength(turned, lengthMm) }) });
    if (isKept) setBrought((b) => ({ ...b, width: b.width + 1 }));
  };
  return (
    <>
      <div className="d-flex flex-wrap gap-3">
        <LengthField
          key={`width ${brought.width}`}
          label="Width of the art"
          system={system}
          initialMm={item.widthMm}
          onChange={(mm) => {
            if (mm !== null && mm > 0) typeWidth(mm);
          }}
        />
        <LengthField
          key={`length ${brought.length}`}
          label="Length of the art"
          system={system}
          initialMm={item.lengthMm}
          onChange={(mm) => {
            if (mm !== null && mm > 0) typeLength(mm);
          }}
        />
      </div>
      <label className="choice">
        <input
          type="checkbox"
          checked={isKept}
          onChange={(event) => {
            setKept(event.target.checked);
          }}
        />
        <span>Keep its proportion</span>
      </label>
    </>
  );
}

/** Rectangle or ellipse, and how round its corners are. */
function ShapeFields({
  art,
  system,
  onArt,
}: {
  readonly art: Exclude<ItemArt, { kind: 'drawing' }>;
  readonly system: UnitSystem;
  readonly onArt: (art: ItemArt) => void;
}) {
  return (
    <div className="d-flex flex-wrap gap-3 align-items-start">
      <div className="mb-3">
        <label className="form-label" htmlFor={`shape-${art.kind}`}>
          Cut to
        </label>
        <select
          id={`shape-${art.kind}`}
          className="form-select"
          value={art.shape}
          onChange={(event) => {
            onArt({ ...art, shape: event.target.value === 'ellipse' ? 'ellipse' : 'rectangle' });
          }}
        >
          <option value="rectangle">a rectangle</option>
          <option value="ellipse">an ellipse or circle</option>
        </select>
      </div>
      {art.shape === 'rectangle' && (
        <LengthField
          label="Round corners of"
          system={system}
          initialMm={art.cornerMm}
          onChange={(mm) => {
            if (mm !== null && mm >= 0) onArt({ ...art, cornerMm: mm });
          }}
        />
      )}
    </div>
  );
}

function StateLine({ state, onCancel }: Pick<Props, 'state' | 'onCancel'>) {
  if (!state || state.kind === 'ready') return null;
  if (state.kind === 'refused')
    return (
      <p role="alert" className="notice">
        {`It was not taken. ${state.problem.words} (${state.problem.where})`}
      </p>
    );
  return (
    <p role="status">
      {`Working out its lines ... ${Math.round(state.share * 100)} % `}
      <button type="button" className="btn btn-quiet" onClick={onCancel}>
        Cancel
      </button>
    </p>
  );
}

/** Sides within this are the drawing's own size, not one that was typed. */
const SAME_SIZE_MM = 0.01;

const isSameSize = (a: Size, b: Size): boolean =>
  Math.abs(a.widthMm - b.widthMm) < SAME_SIZE_MM && Math.abs(a.lengthMm - b.lengthMm) < SAME_SIZE_MM;

/** Art as it is placed and told: a drawing keeps its own size for as long as none was typed. */
function useArt({ item, survey, naturalSize, onChange }: Pick<Props, 'item' | 'survey' | 'naturalSize' | 'onChange'>) {
  const [resized, setResized] = useState(0);
  // A drawing keeps its own size, whichever of its lines are cut, until a size is typed.
  const [follows, setFollows] = useState(false);
  const { art } = item;
  const resize = (size: Size | null): void => {
    if (!size || isSameSize(size, item)) return;
    onChange(size);
    setResized((n) => n + 1);
  };
  const asked = useRef('');
  useEffect(() => {
    // Asked again for other lines or another drawing, not for every key typed elsewhere.
    const question = follows && survey && art.kind === 'drawing' ? JSON.stringify(art) : '';
    if (asked.current === question) return;
    asked.current = question;
    if (question === '') return;
    void naturalSize(item).then((size) => {
      if (asked.current === question) resize(size);
    });
  });
  return {
    resized,
    follow: () => {
      setFollows(true);
    },
    typed: (size: Partial<Size>): void => {
      asked.current = '';
      setFollows(false);
      onChange(size);
    },
    /** A drawing comes with its own size at once: at another it would be worked out for nothing. */
    place: async (placed: Exclude<ItemArt, { kind: 'plain' }>): Promise<void> => {
      const mm = (px: number): number => (px / PICTURE_DPI) * MM_PER_INCH;
      const size =
        placed.kind === 'picture'
          ? { widthMm: mm(placed.widthPx), lengthMm: mm(placed.heightPx) }
          : await naturalSize({ ...item, art: placed });
      onChange({ art: placed, ...size });
      setFollows(placed.kind === 'drawing');
      setResized((n) => n + 1);
    },
    /** Other lines are cut now: what is left as art may be of another size. */
    changeRoles: (next: ItemArt): void => {
      onChange({ art: next });
      void naturalSize(item).then((before) => {
        if (before && isSameSize(before, item)) setFollows(true);
      });
    },
  };
}

/** One item: what it is, how large, how many, and where it is cut. */
export function ItemForm(props: Props) {
  const { jobId, item, state, survey, system, onChange, onRemove, onCancel } = props;
  const { resized, follow, typed, place, changeRoles } = useArt(props);
  const { art } = item;
  return (
    <fieldset className="item">
      <legend className="h2">{item.name}</legend>
      <div className="d-flex flex-wrap gap-3">
        <div className="mb-3">
          <label className="form-label" htmlFor={`name-${item.id}`}>
            Name
          </label>
          <input
            id={`name-${item.id}`}
            className="form-control"
            defaultValue={item.name}
            maxLength={80}
            onChange={(event) => {
              if (event.target.value.trim()) onChange({ name: event.target.value.trim() });
            }}
          />
        </div>
        <FigureField
          label="How many"
          unit="pieces"
          initial={item.quantity}
          onChange={(value) => {
            if (value !== null && Number.isInteger(value) && value >= 1) onChange({ quantity: value });
          }}
        />
      </div>
      <ArtDrop
        jobId={jobId}
        words={art.kind === 'plain' ? 'Its art: SVG, PNG or JPEG' : `${art.fileName}; another in its place`}
        onPlaced={(placed) => place(placed)}
      />
      <StateLine state={state} onCancel={onCancel} />
      {art.kind === 'drawing' ? (
        <DrawingRoles art={art} survey={survey} onArt={changeRoles} onNatural={follow} />
      ) : (
        <ShapeFields
          art={art}
          system={system}
          onArt={(next) => {
            onChange({ art: next });
          }}
        />
      )}
      <SizeFields key={resized} item={item} system={system} onChange={typed} />
      <label className="choice">
        <input
          type="checkbox"
          checked={item.mayTurn}
          onChange={(event) => {
            onChange({ mayTurn: event.target.checked });
          }}
        />
        <span>May lie turned by a quarter where more fit</span>
      </label>
      <button type="button" className="btn btn-quiet" onClick={onRemove}>
        {`Take ${item.name} off the page`}
      </button>
    </fieldset>
  );
}
