'use client';

import { useState, useTransition } from 'react';
import type { UnitSystem } from '@/core/units/length';
import { lengthRuled, rollClosed, standInReads } from '@/server/actions/roll';
import { LengthField } from '../components/LengthField';

/** Lets the stand-in of a simulated setup read the roll, or its next piece. */
export function StandInButton({ rollId, words }: { readonly rollId: string; readonly words: string }) {
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <p>
      <button
        type="button"
        className="btn btn-quiet"
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await standInReads({ rollId });
            setTold(done.ok ? `${done.value} figures read.` : done.message);
          });
        }}
      >
        {words}
      </button>
      <span role="status" className="ms-3">
        {told}
      </span>
    </p>
  );
}

/** Closes a roll, or opens it again. */
export function CloseRoll({ rollId, isClosed }: { readonly rollId: string; readonly isClosed: boolean }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <p>
      <button
        type="button"
        className="btn btn-quiet"
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await rollClosed({ rollId, isClosed: !isClosed });
            setProblem(done.ok ? null : done.message);
          });
        }}
      >
        {isClosed ? 'Open it again' : 'Close this roll: no more readings'}
      </button>
      <span role="alert" className="ms-3">
        {problem}
      </span>
    </p>
  );
}

interface RuledProps {
  readonly rollId: string;
  readonly nominalMm: number;
  readonly measuredMm: number | null;
  readonly system: UnitSystem;
}

/** A length on the print by rule, so that printer and cutter are told apart. */
export function RuledLengthForm({ rollId, nominalMm, measuredMm, system }: RuledProps) {
  const [nominal, setNominal] = useState<number | null>(nominalMm);
  const [measured, setMeasured] = useState<number | null>(measuredMm);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <form
      aria-label="Length of the print by rule"
      onSubmit={(e) => {
        e.preventDefault();
        startTransition(async () => {
          const done = await lengthRuled({ rollId, nominalMm: nominal, measuredMm: measured });
          setTold(done.ok ? null : done.message);
        });
      }}
    >
      <div className="d-flex flex-wrap gap-3">
        <LengthField label="It should be" system={system} initialMm={nominalMm} onChange={setNominal} />
        <LengthField label="The rule says" system={system} initialMm={measuredMm ?? undefined} onChange={setMeasured} />
      </div>
      <button type="submit" className="btn btn-quiet" disabled={isBusy || nominal === null || measured === null}>
        Keep this length
      </button>
      <span role="alert" className="ms-3">
        {told}
      </span>
    </form>
  );
}
