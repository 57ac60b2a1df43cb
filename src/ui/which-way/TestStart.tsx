'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { PageChoice } from '@/core/target/block';
import { start } from '@/server/actions/calibration';

interface Props {
  readonly setupId: string;
  readonly materialId: string;
  readonly page: PageChoice;
  readonly toleranceMm: number;
  readonly kind: 'which_way' | 'two_faces';
  readonly words: string;
  /** What it takes. */
  readonly takes: string;
}

/** Starts a test that one sheet answers: which way a setting goes, how the back lies against the front. */
export function TestStart({ setupId, materialId, page, toleranceMm, kind, words, takes }: Props) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => uuid());
  return (
    <p>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy || materialId === ''}
        onClick={() => {
          startTransition(async () => {
            const done = await start({ id, setupId, materialId, page, kind, toleranceMm });
            if (done.ok) router.push(`/calibrations/${done.value}/print`);
            else setProblem(done.message);
          });
        }}
      >
        {words}
      </button>
      <span className="quiet d-block">{takes}</span>
      <span role="alert">{problem}</span>
    </p>
  );
}
