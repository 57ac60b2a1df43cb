'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { PageChoice } from '@/core/target/block';
import { start } from '@/server/actions/calibration';

interface Props {
  readonly setupId: string;
  readonly materialId: string;
  readonly page: PageChoice;
  readonly toleranceMm: number;
  /** Names of the settings that one sheet tells. */
  readonly names: readonly string[];
}

/** One sheet, two cuts in one load, the value changed between: then the direction is known. */
export function WhichWayStart({ setupId, materialId, page, toleranceMm, names }: Props) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => crypto.randomUUID());
  return (
    <p>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy || materialId === ''}
        onClick={() => {
          startTransition(async () => {
            const done = await start({ id, setupId, materialId, page, kind: 'which_way', toleranceMm });
            if (done.ok) router.push(`/calibrations/${done.value}/print`);
            else setProblem(done.message);
          });
        }}
      >
        {`Find out which way ${names.join(' and ')} ${names.length === 1 ? 'goes' : 'go'}`}
      </button>
      <span className="quiet d-block">One sheet, two cuts in one load.</span>
      <span role="alert">{problem}</span>
    </p>
  );
}
