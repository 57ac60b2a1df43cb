'use client';

import { CALIPER_SD_MM, RULE_SD_MM } from '@/core/registration/rule-fit';
import { formatFine, type UnitSystem } from '@/core/units/length';

interface Props {
  readonly sdMm: number;
  /** Standard uncertainty of either, where it is not a length's usual one. */
  readonly ruleMm?: number;
  readonly caliperMm?: number;
  readonly system: UnitSystem;
  readonly onChange: (sdMm: number) => void;
}

/** What it was measured with decides how far it can be trusted. */
export function InstrumentChoice({ sdMm, ruleMm = RULE_SD_MM, caliperMm = CALIPER_SD_MM, system, onChange }: Props) {
  return (
    <p className="d-flex flex-wrap gap-2">
      {(
        [
          [ruleMm, 'by steel rule'],
          [caliperMm, 'by caliper'],
        ] as const
      ).map(([value, words]) => (
        <button
          key={words}
          type="button"
          className={`btn ${value === sdMm ? 'btn-primary' : 'btn-quiet'}`}
          aria-pressed={value === sdMm}
          onClick={() => {
            onChange(value);
          }}
        >
          {`${words}, to ${formatFine(value, system)}`}
        </button>
      ))}
    </p>
  );
}
