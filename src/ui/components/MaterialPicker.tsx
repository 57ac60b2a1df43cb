'use client';

import { useId } from 'react';
import type { CutLine } from '@/core/shop/cut-lines';

export interface MaterialChoice {
  readonly id: string;
  readonly name: string;
  readonly finish: string;
  /** How a cut in it is best seen. */
  readonly cutLine?: CutLine;
}

interface Props {
  readonly label: string;
  readonly materials: readonly MaterialChoice[];
  readonly chosenId: string;
  readonly onChoose: (id: string) => void;
}

/** The material that a sheet is printed on. */
export function MaterialPicker({ label, materials, chosenId, onChoose }: Props) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="form-label">
        {label}
      </label>
      <select
        id={id}
        className="form-select mb-3"
        value={chosenId}
        onChange={(e) => {
          onChoose(e.target.value);
        }}
      >
        {materials.map((m) => (
          <option key={m.id} value={m.id}>{`${m.name}, ${m.finish}`}</option>
        ))}
      </select>
    </>
  );
}
