'use client';

import { v4 as uuid } from 'uuid';
import { useState, useTransition } from 'react';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { limitSet } from '@/server/actions/shop';
import { LengthField } from './LengthField';

interface Props {
  readonly setupId: string;
  readonly limitMm: number;
  /** Limits that are one tap away. */
  readonly usualMm: readonly number[];
  readonly system: UnitSystem;
}

/** The limit of one printer + cutter, where it is changed: every screen judges by it. */
export function LimitControl({ setupId, limitMm, usualMm, system }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [typedMm, setTyped] = useState<number | null>(limitMm);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const set = (mm: number): void => {
    startTransition(async () => {
      const done = await limitSet({ id: uuid(), setupId, limitMm: mm });
      setProblem(done.ok ? null : done.message);
      if (done.ok) setOpen(false);
    });
  };
  return (
    <section aria-label="Limit" className="mb-3">
      <p className="mb-1 d-flex flex-wrap gap-2 align-items-center">
        <span>
          Limit <strong className="figures">{formatSize(limitMm, system)}</strong>
        </span>
        <button
          type="button"
          className="btn-plain"
          aria-expanded={isOpen}
          onClick={() => {
            setOpen(!isOpen);
          }}
        >
          {isOpen ? 'Close' : 'Change limit'}
        </button>
      </p>
      {isOpen && (
        <>
          <p className="quiet mb-1">How far the cut may be off and still be good work. All screens use this limit.</p>
          <p className="d-flex flex-wrap gap-2 mb-2">
            {usualMm.map((mm) => (
              <button
                key={mm}
                type="button"
                className="btn btn-quiet figures"
                disabled={isBusy}
                aria-pressed={Math.abs(mm - limitMm) < 1e-6}
                onClick={() => {
                  set(mm);
                }}
              >
                {formatSize(mm, system)}
              </button>
            ))}
          </p>
          <LengthField label="Another limit" system={system} initialMm={limitMm} onChange={setTyped} />
          <button
            type="button"
            className="btn btn-primary"
            disabled={isBusy || typedMm === null}
            onClick={() => {
              if (typedMm !== null) set(typedMm);
            }}
          >
            Save limit
          </button>
        </>
      )}
      <p role="alert" className="mb-0">
        {problem}
      </p>
    </section>
  );
}
