'use client';

import { useState } from 'react';
import { readLadder, type Ladder, type LadderProblem, type LadderReading } from '@/core/reading/ladder';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { ladderKept } from '@/server/actions/shop';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';
import { LearnStep } from './LearnStep';
import type { MeasureToolView } from './measure-view';

/** What is typed: a number, or null while it is none. The step may be unknown. */
interface Typed {
  readonly first: number | null;
  readonly last: number | null;
  readonly middle: number | null;
  readonly stepMm: number | null;
}

/** A row as many machines cut it, until this one's is described. Common practice, no published source. */
const USUAL: Ladder = { first: 1, last: 21, middle: 11, stepMm: null };

function ladderOf({ first, last, middle, stepMm }: Typed): Ladder | null {
  return first === null || last === null || middle === null ? null : { first, last, middle, stepMm };
}

/** The answer of a machine's own row of test lines, as steps and, where the step is known, as a length. */
export function LadderTool({ view }: { readonly view: MeasureToolView }) {
  const start = view.ladder ?? USUAL;
  const [typed, setTyped] = useState<Typed>(start);
  const [stepNo, setStepNo] = useState(0);
  const [line, setLine] = useState<number | null>(start.middle);
  const ladder = ladderOf(typed);
  const read = ladder && line !== null ? readLadder(ladder, line) : null;
  const field = (label: string, name: 'first' | 'last' | 'middle') => (
    <FigureField
      label={label}
      unit=""
      initial={start[name]}
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
      <FigureField
        label="Which line looks best? Between two equally good: the half"
        unit=""
        initial={start.middle}
        onChange={setLine}
      />
      {read && <LadderTold read={read} system={view.system} />}
      <h2 className="mt-4">{`How ${view.cutterName} labels its lines`}</h2>
      <div className="d-flex flex-wrap gap-3">
        {field('First label', 'first')}
        {field('Last label', 'last')}
        {field('Label without shift', 'middle')}
        <LengthField
          key={stepNo}
          label="From line to line"
          system={view.system}
          isOptional
          {...(typed.stepMm !== null && { initialMm: typed.stepMm })}
          hint="Leave empty when the machine does not say."
          onChange={(stepMm) => {
            setTyped({ ...typed, stepMm });
          }}
        />
      </div>
      <KeepLadderButton view={view} ladder={ladder} />
      <LearnStep
        system={view.system}
        onLearned={(stepMm) => {
          setTyped({ ...typed, stepMm });
          setStepNo(stepNo + 1);
        }}
      />
    </div>
  );
}

interface KeepProps {
  readonly view: MeasureToolView;
  readonly ladder: Ladder | null;
}

/** Keeps the labels with the cutter, for everyone. */
function KeepLadderButton({ view, ladder }: KeepProps) {
  const [told, setTold] = useState<string | null>(null);
  const keep = async (): Promise<void> => {
    try {
      const done = await ladderKept({ setupId: view.setupId, ladder });
      setTold(done.ok ? `Kept with ${done.value}.` : done.message);
    } catch {
      setTold('The shop\u2019s server does not answer. Keep it again in a moment.');
    }
  };
  const isRight = ladder !== null && readLadder(ladder, ladder.middle).ok;
  return (
    <p className="d-flex gap-3 align-items-center">
      <button type="button" className="btn btn-quiet" disabled={!isRight} onClick={() => void keep()}>
        {`Keep this for ${view.cutterName}`}
      </button>
      <span role="status">{told}</span>
    </p>
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
          Without the step there is no length: learn it below, from two runs with a known change between.
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
