'use client';

import { useEffect, useState } from 'react';
import type { TurnDeg } from '@/core/geometry/load';
import type { WedgeFigure } from '@/core/target/sheet-definition';
import { figureToSheet } from '@/core/target/wedge';

/** Paths of a sheet as it came out of the stand-ins, sheet frame, y up. */
export interface PictureData {
  readonly fills: string;
  readonly lines: readonly { readonly widthMm: number; readonly d: string }[];
  readonly cuts: string;
}

interface Props {
  readonly href: string;
  readonly figure: WedgeFigure | { readonly centre: { readonly x: number; readonly y: number } };
  readonly turnDeg: TurnDeg;
  /** What was cut out is lifted off: the bed shows. */
  readonly isWeeded: boolean;
  /** Turned over, or seen through the film. */
  readonly isMirrored?: boolean;
}

function middleOf(figure: Props['figure']): { x: number; y: number } {
  return 'centre' in figure ? figure.centre : figureToSheet(figure, { u: figure.halfLengthMm, v: 0 });
}

/** The cut sheet of a simulated setup on the table: looked at through a loupe over the figure, or as a whole. */
export function TablePicture({ href, figure, turnDeg, isWeeded, isMirrored = false }: Props) {
  const [data, setData] = useState<PictureData | 'failed' | null>(null);
  const [widthMm, setWidthMm] = useState(42);
  useEffect(() => {
    const abort = new AbortController();
    fetch(href, { signal: abort.signal })
      .then(async (r) => (r.ok ? ((await r.json()) as PictureData) : 'failed'))
      .then(setData)
      .catch(() => {
        if (!abort.signal.aborted) setData('failed');
      });
    return () => {
      abort.abort();
    };
  }, [href]);
  if (data === null) return <p role="status">Laying the cut sheet on the table ...</p>;
  if (data === 'failed') return <p role="alert">The stand-ins gave no picture. Load the page again.</p>;
  const { x, y } = middleOf(figure);
  const rad = (turnDeg * Math.PI) / 180;
  const side = isMirrored ? -1 : 1;
  const cx = side * (Math.cos(rad) * x - Math.sin(rad) * y);
  const cy = -(Math.sin(rad) * x + Math.cos(rad) * y);
  return (
    <figure className="table-picture">
      <figcaption>
        The sheet on the table (stand-in)
        <span className="d-flex gap-2">
          <button
            type="button"
            className="btn btn-quiet"
            aria-label="closer"
            onClick={() => {
              setWidthMm(Math.max(6, widthMm / 1.6));
            }}
          >
            +
          </button>
          <button
            type="button"
            className="btn btn-quiet"
            aria-label="further"
            onClick={() => {
              setWidthMm(Math.min(330, widthMm * 1.6));
            }}
          >
            &minus;
          </button>
        </span>
      </figcaption>
      <svg
        className="drawing"
        viewBox={`${cx - widthMm / 2} ${cy - widthMm / 2} ${widthMm} ${widthMm}`}
        role="img"
        aria-label="The cut sheet under the loupe"
      >
        <g transform={`scale(${side} -1) rotate(${turnDeg})`}>
          <rect x="-160" y="-160" width="320" height="320" fill="var(--sheet)" />
          <path d={data.fills} fill="var(--ink)" />
          {data.lines.map((l) => (
            <path key={l.widthMm} d={l.d} fill="none" stroke="var(--ink)" strokeWidth={l.widthMm} />
          ))}
          <path
            d={data.cuts}
            fill={isWeeded ? 'var(--bed)' : 'none'}
            stroke="var(--plumb)"
            strokeWidth={widthMm / 300}
            strokeDasharray={`${widthMm / 60} ${widthMm / 100}`}
          />
        </g>
      </svg>
    </figure>
  );
}
