'use client';

import { useId } from 'react';
import type { PiecesFrom } from '@/core/scan/placed-pieces';

interface Props {
  readonly fileName: string;
  readonly from: PiecesFrom;
  /** Copied pieces all look the same: their order tells which is which. */
  readonly isCopied: boolean;
  readonly onChange: (from: PiecesFrom) => void;
}

/** Where a scan's pieces come from, asked where their discs alone do not tell. */
export function PiecesFromForm({ fileName, from, isCopied, onChange }: Props) {
  const id = useId();
  const whole = (text: string): number => Math.max(1, Math.round(Number(text)) || 1);
  return (
    <fieldset className="d-flex flex-wrap gap-3 align-items-end mb-2">
      <legend className="quiet mb-1">
        {isCopied
          ? `${fileName}: the pieces lie in rows, in their order, from the upper left`
          : `${fileName}: discs look alike again further on`}
      </legend>
      <div>
        <label htmlFor={`${id}-first`} className="form-label">
          {isCopied ? 'Station of the first' : 'No station before'}
        </label>
        <input
          id={`${id}-first`}
          type="number"
          min={1}
          className="form-control"
          value={from.firstNo}
          onChange={(e) => {
            onChange({ ...from, firstNo: whole(e.target.value) });
          }}
        />
      </div>
      {isCopied && (
        <div>
          <label htmlFor={`${id}-every`} className="form-label">
            From one to the next
          </label>
          <input
            id={`${id}-every`}
            type="number"
            min={1}
            className="form-control"
            value={from.every}
            onChange={(e) => {
              onChange({ ...from, every: whole(e.target.value) });
            }}
          />
        </div>
      )}
    </fieldset>
  );
}
