'use client';

import type { Point } from '@/core/geometry/affine';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { KeptCheck } from './use-kept-check';

interface Props {
  readonly check: KeptCheck;
  /** Cut less print; null while it is not known. */
  readonly shift: Point | null;
  readonly system: UnitSystem;
  /** Where it lies so. */
  readonly where: string;
  readonly onKeep: () => void;
}

/** What the check says, the button that keeps it, and what became of it. */
export function KeepBar({ check, shift, system, where, onKeep }: Props) {
  const { isBusy, told, keptId, takeBack } = check;
  const length = (mm: number): string => formatLength(Math.abs(mm), system);
  return (
    <div className="mb-3">
      {shift && (
        <p>{`The cut lies ${length(shift.x)} to the ${shift.x >= 0 ? 'right' : 'left'} and ${length(shift.y)} ${shift.y >= 0 ? 'high' : 'low'} ${where}.`}</p>
      )}
      <button type="button" className="btn btn-primary" disabled={isBusy || !shift} onClick={onKeep}>
        Keep it
      </button>
      <p role="status" className="mb-0">
        {told}{' '}
        {keptId && (
          <button
            type="button"
            className="btn-plain"
            disabled={isBusy}
            onClick={() => {
              takeBack(keptId);
            }}
          >
            Take it back
          </button>
        )}
      </p>
    </div>
  );
}
