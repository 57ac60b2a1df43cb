'use client';

import { SHEET_LENGTHS, type SheetLengthId } from '@/core/registration/sheet-lengths';
import type { UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';

export type Lengths = Readonly<Partial<Record<SheetLengthId, number>>>;

interface Props {
  readonly ids: readonly SheetLengthId[];
  readonly system: UnitSystem;
  readonly lengths: Lengths;
  /** What stands before each label: "before", "after". */
  readonly prefix?: string;
  readonly onChange: (lengths: Lengths) => void;
}

/** The lengths with one more, or without one that was taken back. */
function withLength(lengths: Lengths, id: SheetLengthId, mm: number | null): Lengths {
  const others = Object.entries(lengths).filter(([name]) => name !== id);
  return Object.fromEntries(mm === null ? others : [...others, [id, mm]]);
}

/** Lengths to be typed as they were measured; any of them may be left empty. */
export function LengthTable({ ids, system, lengths, prefix = '', onChange }: Props) {
  return (
    <div className="d-flex flex-wrap gap-3">
      {SHEET_LENGTHS.filter((l) => ids.includes(l.id)).map(({ id, words }) => (
        <div key={id} style={{ width: '12rem' }}>
          <LengthField
            label={`${prefix}${words}`}
            system={system}
            isOptional
            onChange={(mm) => {
              onChange(withLength(lengths, id, mm));
            }}
          />
        </div>
      ))}
    </div>
  );
}
