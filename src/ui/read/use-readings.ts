'use client';

import { v4 as uuid } from 'uuid';
import { useCallback, useEffect, useState } from 'react';
import type { SaveReadingInput } from '@/contracts/inputs';
import { keepReading } from '@/server/actions/calibration';
import { slotKey, type Kept } from './slot';
import { keepWaiting, noLongerWaiting, waitingReadings } from './reading-queue';

export interface ReadingKeeper {
  readonly kept: Readonly<Record<string, Kept>>;
  readonly keep: (input: Omit<SaveReadingInput, 'id'>) => void;
  readonly waiting: number;
  /** Readings on their way to the server: pages that stand on them wait for these. */
  readonly sending: number;
  /** What to tell: a refusal, or another's reading that this one supersedes. */
  readonly notice: string | null;
  readonly retry: () => void;
}

/** Keeps readings as they are made: shown at once, sent at once, held in the browser until the server has them. */
export function useReadings(initial: Readonly<Record<string, Kept>>): ReadingKeeper {
  const [kept, setKept] = useState(initial);
  const [waiting, setWaiting] = useState(0);
  const [sending, setSending] = useState(0);
  const [notice, setNotice] = useState<string | null>(null);

  const send = useCallback(async (input: SaveReadingInput): Promise<void> => {
    keepWaiting(input);
    setSending((n) => n + 1);
    try {
      const done = await keepReading(input);
      if (!done.ok) {
        setNotice(done.message);
        noLongerWaiting(input.id);
      } else {
        noLongerWaiting(input.id);
        const { earlierMm } = done.value;
        setNotice(
          earlierMm === null
            ? null
            : `Spot ${input.spotNo} ${input.axis} had a reading already (${earlierMm.toFixed(2)} mm). Both are kept; yours counts.`,
        );
      }
    } catch {
      setNotice('The shop\u2019s server does not answer. Your readings are kept in this browser and will be sent.');
    }
    setSending((n) => n - 1);
    setWaiting(waitingReadings().length);
  }, []);

  const retry = useCallback(() => {
    for (const input of waitingReadings()) void send(input);
  }, [send]);

  useEffect(() => {
    const timer = window.setTimeout(retry, 0);
    window.addEventListener('online', retry);
    return () => {
      window.clearTimeout(timer);
      window.removeEventListener('online', retry);
    };
  }, [retry]);

  const keep = (input: Omit<SaveReadingInput, 'id'>): void => {
    setKept((now) => ({ ...now, [slotKey(input)]: { state: input.state, readingMm: input.readingMm } }));
    void send({ ...input, id: uuid() });
  };

  return { kept, keep, waiting, sending, notice, retry };
}
