'use client';

import { SHEET_LENGTHS, type SheetLengthId } from '@/core/registration/sheet-lengths';
import { unitWord, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';

export type Lengths = Readonly<Partial<Record<SheetLengthId, number>>>;

interface Props {
  readonly ids: readonly SheetLengthId[];
  readonly system: UnitSystem;
  readonly lengths: Lengths;
  readonly onChange: (lengths: Lengths) => void;
}

/** The lengths with one more, or without one that was taken back. */
function withLength(lengths: Lengths, id: SheetLengthId, mm: number | null): Lengths {
  const others = Object.entries(lengths).filter(([name]) => name !== id);
  return Object.fromEntries(mm === null ? others : [...others, [id, mm]]);
}

/** Lengths to be typed as they were measured; any of them may be left empty. */
export function LengthTable({ ids, system, lengths, onChange }: Props) {
  return (
    <div className="d-flex flex-wrap gap-3">
      {SHEET_LENGTHS.filter((l) => ids.includes(l.id)).map(({ id, words }) => (
        <div key={id} style={{ width: '12rem' }}>
          <LengthField
            label={words}
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

interface ColumnsProps {
  readonly ids: readonly SheetLengthId[];
  readonly system: UnitSystem;
  /** The same lengths measured at different times, one column each. */
  readonly columns: readonly {
    readonly name: string;
    readonly lengths: Lengths;
    readonly onChange: (lengths: Lengths) => void;
  }[];
}

/** Lengths measured more than once, side by side. */
export function LengthColumns({ ids, system, columns }: ColumnsProps) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>length</th>
          {columns.map((c) => (
            <th key={c.name}>{`${c.name}, ${unitWord(system)}`}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {SHEET_LENGTHS.filter((l) => ids.includes(l.id)).map(({ id, words }) => (
          <tr key={id}>
            <th scope="row" className="fw-normal">
              {words}
            </th>
            {columns.map(({ name, lengths, onChange }) => (
              <td key={name}>
                <LengthField
                  label={`${name}: ${words}`}
                  system={system}
                  isLabelHidden
                  isOptional
                  onChange={(mm) => {
                    onChange(withLength(lengths, id, mm));
                  }}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
