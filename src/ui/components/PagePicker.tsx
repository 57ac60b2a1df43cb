'use client';

import type { PageChoice } from '@/core/target/block';
import type { UnitSystem } from '@/core/units/length';
import { isSheetName, SHEET_NAMES, sheetSize } from '@/core/units/sheet-size';
import { LengthField } from './LengthField';

const OTHER = 'another size';

interface Props {
  /** The page that the print mode is set to: offered first. */
  readonly own: PageChoice;
  readonly page: PageChoice;
  readonly system: UnitSystem;
  readonly onPage: (page: PageChoice) => void;
}

/** A sheet by its name, or any piece by its width and length. */
export function PagePicker({ own, page, system, onPage }: Props) {
  const names = [...new Set([own.name, ...SHEET_NAMES])];
  const isOther = !names.includes(page.name);
  const choose = (name: string): void => {
    if (name === own.name) onPage(own);
    else if (isSheetName(name)) onPage({ name, ...sheetSize(name) });
    else onPage({ ...page, name: OTHER });
  };
  const resize = (part: 'widthMm' | 'lengthMm') => (mm: number | null) => {
    if (mm !== null) onPage({ ...page, [part]: mm });
  };
  return (
    <>
      <label htmlFor="page" className="form-label">
        On which sheet?
      </label>
      <select
        id="page"
        className="form-select mb-3"
        value={isOther ? OTHER : page.name}
        onChange={(e) => {
          choose(e.target.value);
        }}
      >
        {names.map((name) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
        <option value={OTHER}>another size, or a piece of a roll</option>
      </select>
      {isOther && (
        <div className="d-flex flex-wrap gap-3">
          <LengthField label="Width" system={system} initialMm={page.widthMm} onChange={resize('widthMm')} />
          <LengthField
            label="Length, along the feed"
            system={system}
            initialMm={page.lengthMm}
            onChange={resize('lengthMm')}
          />
        </div>
      )}
    </>
  );
}
