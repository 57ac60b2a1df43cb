'use client';

import { v4 as uuid } from 'uuid';
import { useState, useTransition } from 'react';
import type { UnitSystem } from '@/core/units/length';
import { lengthRuled, rollClosed, standInReads } from '@/server/actions/roll';
import { valueShown } from '@/server/actions/shop';
import { LengthField } from '../components/LengthField';
import { OnePress } from '../components/OnePress';

/** Lets the stand-in of a simulated setup read the roll, or its next piece. */
export function StandInButton({ rollId, words }: { readonly rollId: string; readonly words: string }) {
  return (
    <OnePress
      words={words}
      act={async () => {
        const done = await standInReads({ rollId });
        return { ok: done.ok, told: done.ok ? `${done.value} figures read.` : done.message };
      }}
    />
  );
}

/** Closes a roll, or opens it again. */
export function CloseRoll({ rollId, isClosed }: { readonly rollId: string; readonly isClosed: boolean }) {
  return (
    <OnePress
      words={isClosed ? 'Open it again' : 'Close this roll: no more readings'}
      act={async () => {
        const done = await rollClosed({ rollId, isClosed: !isClosed });
        return { ok: done.ok, told: done.ok ? null : done.message };
      }}
    />
  );
}

interface SetItProps {
  readonly settingId: string;
  readonly name: string;
  readonly value: number;
  readonly words: string;
}

/** Tells that a setting was keyed in, so that the next strip is judged by it. */
export function SetIt({ settingId, name, value, words }: SetItProps) {
  const [id] = useState(() => uuid());
  return (
    <OnePress
      words={`I have set ${name} to ${words}`}
      isMain
      act={async () => {
        const done = await valueShown({ id, settingId, value });
        return { ok: done.ok, told: done.ok ? null : done.message };
      }}
    />
  );
}

interface RuledProps {
  readonly rollId: string;
  readonly nominalMm: number;
  readonly measuredMm: number | null;
  readonly laminatedMm: number | null;
  readonly system: UnitSystem;
}

/** A length on the print by rule, so that printer and cutter are told apart. */
export function RuledLengthForm({ rollId, nominalMm, measuredMm, laminatedMm, system }: RuledProps) {
  const [nominal, setNominal] = useState<number | null>(nominalMm);
  const [measured, setMeasured] = useState<number | null>(measuredMm);
  const [laminated, setLaminated] = useState<number | null>(laminatedMm);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <form
      aria-label="Length of the print by rule"
      onSubmit={(e) => {
        e.preventDefault();
        startTransition(async () => {
          const done = await lengthRuled({ rollId, nominalMm: nominal, measuredMm: measured, laminatedMm: laminated });
          setTold(done.ok ? null : done.message);
        });
      }}
    >
      <div className="d-flex flex-wrap gap-3">
        <LengthField label="It should be" system={system} initialMm={nominalMm} onChange={setNominal} />
        <LengthField label="The rule says" system={system} initialMm={measuredMm ?? undefined} onChange={setMeasured} />
        <LengthField
          label="Laminated before the cut: it says then"
          system={system}
          isOptional
          initialMm={laminatedMm ?? undefined}
          onChange={setLaminated}
        />
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
