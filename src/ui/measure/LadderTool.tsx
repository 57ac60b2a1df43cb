'use client';

import { useState } from 'react';
import { readLadder, type LadderProblem, type LadderReading } from '@/core/reading/ladder';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';
import type { MeasureToolView } from './measure-view';

interface Typed {
  readonly first: number | null;
  readonly last: number | null;
  readonly middle: number | null;
  readonly line: number | null;
}

/** The answer of a machine's own row of test lines, as steps and, where the step is known, as a length. */
export function LadderTool({ view }: { readonly view: MeasureToolView }) {
  const [typed, setTyped] = useState<Typed>({ first: 1, last: 21, middle: 11, line: 11 });
  const [stepMm, setStepMm] = useState<number | null>(null);
  const { first, last, middle, line } = typed;
  const read =
    first === null || last === null || middle === null || line === null
      ? null
      : readLadder({ first, last, middle, stepMm }, line);
  const field = (label: string, name: keyof Typed, initial: number) => (
    <FigureField
      label={label}
      unit=""
      initial={initial}
      onChange={(value) => {
        setTyped({ ...typed, [name]: value });
      }}
    />
  );
  return (
    <div>
      <p>
        A row of lines or boxes that the machine cuts with stepped shifts. It tells one shift along one edge: where
        scale or turn is wrong too, that shift holds nowhere else. A quick check tells them apart.
      </p>
      <div className="d-flex flex-wrap gap-3">
        {field('First label', 'first', 1)}
        {field('Last label', 'last', 21)}
        {field('Label without shift', 'middle', 11)}
        <LengthField
          label="From line to line"
          system={view.system}
          isOptional
          hint="Leave empty when the machine does not say."
          onChange={setStepMm}
        />
      </div>
      {field('Which line looks best? Between two equally good: the half', 'line', 11)}
      {read && <LadderTold read={read} system={view.system} />}
    </div>
  );
}

const PROBLEMS: Readonly<Record<LadderProblem['kind'], string>> = {
  'no-ladder': 'The label without shift must stand between the first and the last.',
  'beyond-ladder': 'There is no such line on this ladder.',
  'no-half': 'Whole lines, or the half between two: finer than that the eye does not tell.',
};

function LadderTold({ read, system }: { readonly read: ReturnType<typeof readLadder>; readonly system: UnitSystem }) {
  if (!read.ok) {
    return (
      <p role="alert" className="notice">
        {PROBLEMS[read.error.kind]}
      </p>
    );
  }
  return (
    <section aria-label="What the ladder tells" role="status">
      <h2>{ladderWords(read.value, system)}</h2>
      {read.value.isNearEnd && (
        <p className="notice">
          This is at the end of the row: what you look for may lie beyond. Key this in, run the ladder again, and read
          it once more.
        </p>
      )}
      {!read.value.shift && (
        <p className="quiet">
          Without the step there is no length: run it twice with a known change between, or measure one line&rsquo;s
          shift, to learn the step.
        </p>
      )}
    </section>
  );
}

function ladderWords({ steps, shift }: LadderReading, system: UnitSystem): string {
  const count = `${steps > 0 ? '+' : ''}${String(steps).replace('-', '\u2212')} ${Math.abs(steps) === 1 ? 'step' : 'steps'}`;
  if (!shift) return count;
  return `${count}: ${formatLength(shift.valueMm, system, true)} (\u00b1 ${formatLength(1.96 * shift.standardUncertaintyMm, system)})`;
}
