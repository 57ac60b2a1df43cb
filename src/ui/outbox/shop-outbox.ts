import { useSyncExternalStore } from 'react';
import { keepReading } from '@/server/actions/calibration';
import { keepStations } from '@/server/actions/roll';
import type { Answer } from '@/server/actions/run';
import { makeOutbox, type Outbox, type OutboxState, type Outcome, type Parcel, type ParcelKind } from './outbox';

const SENDERS: Readonly<Record<ParcelKind, (payload: unknown) => Promise<Answer<unknown>>>> = {
  reading: keepReading,
  station: (payload) => keepStations({ readings: [payload] }),
};

const NO_ANSWER =
  'Connection to the shop\u2019s server lost. Readings are kept in this browser and sent again by themselves.';

async function send({ kind, payload }: Parcel): Promise<Outcome> {
  try {
    const done = await SENDERS[kind](payload);
    if (done.ok) return { kind: 'accepted', value: done.value };
    return done.kind === 'refused'
      ? { kind: 'refused', message: done.message }
      : { kind: 'unreachable', message: done.message };
  } catch {
    return { kind: 'unreachable', message: NO_ANSWER };
  }
}

function later(work: () => void, delayMs: number): () => void {
  const timer = window.setTimeout(work, delayMs);
  return () => {
    window.clearTimeout(timer);
  };
}

function browserStore(): Storage | null {
  try {
    return window.localStorage;
  } catch {
    return null;
  }
}

let made: Outbox | null = null;
let accepted: readonly Parcel[] = [];

/**
 * What the server took of an owner since this document was loaded. A page that the browser goes back to is drawn from what it
 * was first drawn from, and would show these figures as open.
 */
export const acceptedParcels = (kind: ParcelKind, owner: string): readonly Parcel[] =>
  accepted.filter((p) => p.kind === kind && p.owner === owner);

/** This browser's one outbox. It sends what waits as soon as a page opens, comes back to the front or is online again. */
export function shopOutbox(): Outbox {
  if (made) return made;
  const outbox = makeOutbox({ send, storage: browserStore(), later });
  window.addEventListener('online', outbox.retry);
  window.addEventListener('storage', outbox.reread);
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') outbox.retry();
  });
  outbox.onAccepted((parcel) => {
    accepted = [...accepted, parcel];
  });
  outbox.retry();
  made = outbox;
  return outbox;
}

const EMPTY: OutboxState = { parcels: [], trouble: null };

/** What is not with the server yet, as it changes. */
export const useOutbox = (): OutboxState =>
  useSyncExternalStore(
    (listener) => shopOutbox().subscribe(listener),
    () => shopOutbox().state(),
    () => EMPTY,
  );
