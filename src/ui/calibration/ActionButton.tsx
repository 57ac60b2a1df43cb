'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import {
  anotherSheet,
  judge,
  keepFrontAndBack,
  keepMarks,
  keepWhichWay,
  leaveCalibration,
  takeUpAgain,
} from '@/server/actions/calibration';

const ACTIONS = {
  judge,
  'another-sheet': anotherSheet,
  leave: leaveCalibration,
  'keep-which-way': keepWhichWay,
  'keep-marks': keepMarks,
  'keep-faces': keepFrontAndBack,
  'take-up': takeUpAgain,
} as const;

interface Props {
  readonly action: keyof typeof ACTIONS;
  readonly calibrationId: string;
  readonly words: string;
  readonly isMain?: boolean;
  /** Where to go when it is done; stays when absent. */
  readonly href?: string;
}

/** One press, one use case; what went wrong stands beside it. */
export function ActionButton({ action, calibrationId, words, isMain = false, href }: Props) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <>
      <button
        type="button"
        className={`btn ${isMain ? 'btn-primary' : 'btn-quiet'}`}
        disabled={isBusy}
        onClick={() => {
          startTransition(async () => {
            const done = await ACTIONS[action]({ id: uuid(), calibrationId });
            setProblem(done.ok ? null : done.message);
            if (done.ok && href) router.push(href);
            else router.refresh();
          });
        }}
      >
        {words}
      </button>
      <span role="alert">{problem}</span>
    </>
  );
}
