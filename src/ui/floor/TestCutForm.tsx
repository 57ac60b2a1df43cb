'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import {
  FORCE_UNIT_WORDS,
  FORCE_UNITS,
  TEST_CUT_OUTCOMES,
  TEST_CUT_WORDS,
  type ForceUnit,
  type TestCutOutcome,
} from '@/core/shop/test-cut';
import { testCutKept } from '@/server/actions/floor';
import { FigureField } from '../components/FigureField';

export interface TestCutStart {
  readonly force: number | null;
  readonly forceUnit: ForceUnit;
  readonly depth: number | null;
  readonly speed: number | null;
  readonly passes: number;
}

interface Props {
  readonly setupId: string;
  readonly materialId: string;
  readonly stack: string;
  /** What the machine was set to last, or what is to be tried next. */
  readonly start: TestCutStart;
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

const initial = (value: number | null) => (value === null ? {} : { initial: value });

/** What the machine was set to, and how the small figure in the spare came out: one press of four. */
export function TestCutForm({ setupId, materialId, stack, start }: Props) {
  const router = useRouter();
  const [figures, setFigures] = useState(start);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const set = (figure: 'force' | 'depth' | 'speed') => (value: number | null) => {
    setFigures({ ...figures, [figure]: value });
  };
  const keep = (outcome: TestCutOutcome): void => {
    startTransition(async () => {
      const done = await testCutKept({ id: uuid(), setupId, materialId, stack, ...figures, outcome, note: '' });
      setTold(done.ok ? null : done.message);
      if (done.ok) router.refresh();
    });
  };
  return (
    <section aria-label="A test cut">
      <h2>What the machine is set to</h2>
      <div className="d-flex flex-wrap gap-3">
        <FigureField label="Force" unit="" {...initial(start.force)} onChange={set('force')} />
        <div className="mb-3">
          <label className="form-label" htmlFor="force-unit">
            Force in
          </label>
          <select
            id="force-unit"
            className="form-select"
            value={figures.forceUnit}
            onChange={(event) => {
              const unit = FORCE_UNITS.find((u) => u === event.target.value);
              if (unit) setFigures({ ...figures, forceUnit: unit });
            }}
          >
            {FORCE_UNITS.map((unit) => (
              <option key={unit} value={unit}>
                {FORCE_UNIT_WORDS[unit]}
              </option>
            ))}
          </select>
        </div>
        <FigureField label="Blade depth" unit="as marked" {...initial(start.depth)} onChange={set('depth')} />
        <FigureField label="Speed" unit="as shown" {...initial(start.speed)} onChange={set('speed')} />
        <FigureField
          label="Passes"
          unit=""
          initial={start.passes}
          onChange={(value) => {
            setFigures({ ...figures, passes: value ?? 0 });
          }}
        />
      </div>
      <h2>Weed the small figure in the spare: how did it come out?</h2>
      <p className="caution">
        Hands off the sheet until the head has stopped and the machine says so. Lift with a weeding tool away from the
        other hand; a used blade goes into a closed box. Your machine&rsquo;s manual and local rules come first.
      </p>
      <div className="d-flex flex-column gap-2 align-items-start">
        {TEST_CUT_OUTCOMES.map((outcome) => (
          <button
            key={outcome}
            type="button"
            className={`btn ${outcome === 'clean' ? 'btn-primary' : 'btn-quiet'}`}
            disabled={isBusy}
            onClick={() => {
              keep(outcome);
            }}
          >
            {capital(TEST_CUT_WORDS[outcome])}
          </button>
        ))}
      </div>
      <p role="status">{told}</p>
    </section>
  );
}
