'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { Answer } from '@/server/actions/run';
import { dailyCheckTakenBack } from '@/server/actions/trust';

export interface KeptCheck {
  readonly isBusy: boolean;
  /** What became of the last one. */
  readonly told: string | null;
  /** May be taken back. */
  readonly keptId: string | null;
  readonly keep: (send: (id: string) => Promise<Answer<string>>, onKept: () => void) => void;
  readonly takeBack: (id: string) => void;
}

/** Keeping a daily check, and taking it back. */
export function useKeptCheck(): KeptCheck {
  const router = useRouter();
  const [keptId, setKept] = useState<string | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return {
    ...{ isBusy, told, keptId },
    keep: (send, onKept) => {
      const id = uuid();
      startTransition(async () => {
        const done = await send(id);
        setTold(done.ok ? 'Kept.' : done.message);
        if (!done.ok) return;
        setKept(id);
        onKept();
        router.refresh();
      });
    },
    takeBack: (id) => {
      startTransition(async () => {
        const done = await dailyCheckTakenBack({ id });
        setTold(done.ok ? 'Taken back: it counts no more.' : done.message);
        if (done.ok) setKept(null);
        router.refresh();
      });
    },
  };
}
