'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { correctionSet } from '@/server/actions/calibration';

interface Props {
  readonly calibrationId: string;
  readonly keepAll: boolean;
}

/** Nothing is changed: the way on from a map that is good as it is, to the load that confirms it. */
export function LeaveAsIs({ calibrationId, keepAll }: Props) {
  const router = useRouter();
  const [id] = useState(() => uuid());
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await correctionSet({ id, calibrationId, way: 'none', keepAll, typed: {} });
            if (done.ok) router.push(`/calibrations/${calibrationId}/confirm`);
            else setProblem(done.message);
          });
        }}
      >
        Change nothing, confirm
      </button>
      <span role="alert">{problem}</span>
    </>
  );
}
