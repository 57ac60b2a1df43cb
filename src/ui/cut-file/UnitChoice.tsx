'use client';

import type { Survey } from '@/workers/cut-file.client';
import type { Units } from './use-cut-file';

interface Props {
  readonly survey: Survey;
  readonly units: Units;
  readonly onUnits: (units: Units) => void;
}

/** A drawing without a stated size or unit: how the program that made it counts. */
export function UnitChoice({ survey, units, onUnits }: Props) {
  const kinds = survey.remarks.map((r) => r.kind);
  if (kinds.includes('size-not-stated')) {
    return (
      <p className="d-flex gap-2">
        {([96, 72] as const).map((pxPerInch) => (
          <button
            key={pxPerInch}
            type="button"
            className={`btn ${units.pxPerInch === pxPerInch ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={units.pxPerInch === pxPerInch}
            onClick={() => {
              onUnits({ ...units, pxPerInch });
            }}
          >
            {`${pxPerInch} to the inch`}
          </button>
        ))}
      </p>
    );
  }
  if (!kinds.includes('unit-not-stated')) return null;
  return (
    <p className="d-flex gap-2">
      {(
        [
          [1, 'mm'],
          [25.4, 'inches'],
        ] as const
      ).map(([mmPerUnit, words]) => (
        <button
          key={words}
          type="button"
          className={`btn ${units.mmPerUnit === mmPerUnit ? 'btn-primary' : 'btn-quiet'}`}
          aria-pressed={units.mmPerUnit === mmPerUnit}
          onClick={() => {
            onUnits({ ...units, mmPerUnit });
          }}
        >
          {`drawn in ${words}`}
        </button>
      ))}
    </p>
  );
}
