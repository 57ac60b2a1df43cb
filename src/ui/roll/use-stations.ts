'use client';

import { v4 as uuid } from 'uuid';
import { useCallback, useEffect, useState } from 'react';
import type { SaveStationInput } from '@/contracts/rolls';
import { slotName } from '@/core/target/roll-strip';
import { keepStations } from '@/server/actions/roll';

const STORE = 'red-plumb stations that wait';

export interface StationKept {
  readonly state: SaveStationInput['state'];
  readonly readingMm: number | null;
}

type Reading = Omit<SaveStationInput, 'id' | 'rollId'>;

export interface StationKeeper {
  readonly kept: Readonly<Record<string, StationKept>>;
  readonly keep: (reading: Reading) => void;
  readonly waiting: number;
  readonly sending: number;
  readonly notice: string | null;
  readonly retry: () => void;
}

/** Readings that the server has not acknowledged yet, out of the browser's own store. */
function waitingIn(rollId: string): readonly SaveStationInput[] {
  try {
    const all = JSON.parse(localStorage.getItem(STORE) ?? '[]') as readonly SaveStationInput[];
    return all.filter((r) => r.rollId === rollId);
  } catch {
    return [];
  }
}

function change(of: (all: readonly SaveStationInput[]) => readonly SaveStationInput[]): void {
  try {
    const all = JSON.parse(localStorage.getItem(STORE) ?? '[]') as readonly SaveStationInput[];
    localStorage.setItem(STORE, JSON.stringify(of(all)));
  } catch {
    // A browser that keeps nothing still sends everything.
  }
}

/** Keeps a roll's readings as they are made: shown and sent at once, held in the browser until the server has them. */
export function useStations(rollId: string, initial: Readonly<Record<string, StationKept>>): StationKeeper {
  const [kept, setKept] = useState(initial);
  const [waiting, setWaiting] = useState(0);
  const [sending, setSending] = useState(0);
  const [notice, setNotice] = useState<string | null>(null);

  const send = useCallback(
    async (readings: readonly SaveStationInput[]): Promise<void> => {
      const ids = readings.map((r) => r.id);
      setSending((n) => n + 1);
      try {
        const done = await keepStations({ readings });
        change((all) => all.filter((r) => !ids.includes(r.id)));
        const earlier = done.ok ? done.value.find((s) => s.earlierMm !== null)?.earlierMm : undefined;
        if (!done.ok) setNotice(done.message);
        else if (typeof earlier === 'number')
          setNotice(`There was a reading already (${earlier.toFixed(2)} mm). Both are kept; yours counts.`);
        else setNotice(null);
      } catch {
        setNotice('The shop\u2019s server does not answer. Your readings are kept in this browser and will be sent.');
      }
      setSending((n) => n - 1);
      setWaiting(waitingIn(rollId).length);
    },
    [rollId],
  );

  const retry = useCallback(() => {
    const waits = waitingIn(rollId);
    if (waits.length > 0) void send(waits);
  }, [rollId, send]);

  useEffect(() => {
    const timer = window.setTimeout(retry, 0);
    window.addEventListener('online', retry);
    return () => {
      window.clearTimeout(timer);
      window.removeEventListener('online', retry);
    };
  }, [retry]);

  const keep = (reading: Reading): void => {
    const input = { ...reading, id: uuid(), rollId };
    change((all) => [...all, input]);
    setKept((now) => ({ ...now, [slotName(reading)]: { state: reading.state, readingMm: reading.readingMm } }));
    void send([input]);
  };
  return { kept, keep, waiting, sending, notice, retry };
}
