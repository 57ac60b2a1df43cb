'use client';

import { useId, useState } from 'react';
import { isLadder, namedLine, readLadder, type Ladder, type LadderReading } from '@/core/reading/ladder';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { LadderForm } from './LadderForm';
import { LinePicker } from './LinePicker';

interface Props {
  readonly title: string;
  /** Null: the machine has no row for this axis. */
  readonly ladder: Ladder | null;
  /** A row as it may look, until this one's is described. */
  readonly usual: Ladder;
  readonly system: UnitSystem;
  readonly isDescribed: boolean;
  readonly onChange: (ladder: Ladder | null) => void;
}

/** One row of the machine's test: which line looks best, what that tells, and how the row is labelled. */
export function OwnTestRow({ title, ladder, usual, system, isDescribed, onChange }: Props) {
  const id = useId();
  const [line, setLine] = useState<number | null>(null);
  const read = ladder && line !== null ? readLadder(ladder, line) : null;
  return (
    <section aria-label={title} className="mb-4">
      <h2>{title}</h2>
      {ladder && isLadder(ladder) && (
        <LinePicker ladder={ladder} title={`Lines, ${title.toLowerCase()}`} line={line} onPick={setLine} />
      )}
      {ladder && line !== null && read?.ok && (
        <LineTold name={namedLine(ladder, line)} read={read.value} system={system} />
      )}
      <details open={!isDescribed}>
        <summary>How this row is labelled</summary>
        <div className="d-flex align-items-center gap-2 mb-3">
          <input
            id={`${id}-none`}
            type="checkbox"
            className="form-check-input flex-shrink-0 m-0"
            checked={ladder === null}
            onChange={(event) => {
              setLine(null);
              onChange(event.target.checked ? null : usual);
            }}
          />
          <label htmlFor={`${id}-none`} className="m-0">
            The machine has no such row
          </label>
        </div>
        {ladder && (
          <LadderForm
            id={id}
            ladder={ladder}
            system={system}
            onChange={(next) => {
              if (line !== null && !(line <= next.lines)) setLine(null);
              onChange(next);
            }}
          />
        )}
      </details>
    </section>
  );
}

interface ToldProps {
  readonly name: string;
  readonly read: LadderReading;
  readonly system: UnitSystem;
}

function LineTold({ name, read, system }: ToldProps) {
  return (
    <div role="status">
      <p className="h3">{`Line ${name}: ${stepWords(read, system)}`}</p>
      {read.isNearEnd && (
        <p className="notice">
          This is at the end of the row: what you look for may lie beyond. Set this on the machine, run the test again,
          and look once more.
        </p>
      )}
      {!read.shift && (
        <p className="quiet">
          Without the step there is no length: learn it below, from two runs with a known change between.
        </p>
      )}
    </div>
  );
}

function stepWords({ steps, shift }: LadderReading, system: UnitSystem): string {
  const count = `${steps > 0 ? '+' : ''}${String(steps).replace('-', '\u2212')} ${Math.abs(steps) === 1 ? 'step' : 'steps'}`;
  if (!shift) return count;
  return `${count}, ${formatLength(shift.valueMm, system, true)} (\u00b1 ${formatLength(1.96 * shift.standardUncertaintyMm, system)})`;
}
