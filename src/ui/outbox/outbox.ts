/** Something entered that the server does not have yet. Parcels of one browser are sent one after another, in their order. */
export interface Parcel {
  readonly id: string;
  /** Which action takes it. */
  readonly kind: ParcelKind;
  /** What it belongs to: a cut set, a roll. */
  readonly owner: string;
  /** What it is, as a person calls it. */
  readonly label: string;
  readonly payload: unknown;
  /** Why the server will not take it; null while it is to be sent. */
  readonly refusedFor: string | null;
}

export const PARCEL_KINDS = ['reading', 'station'] as const;
export type ParcelKind = (typeof PARCEL_KINDS)[number];

/** What became of a parcel: the server has it, will never take it as it is, or could not be asked. */
export type Outcome =
  | { readonly kind: 'accepted'; readonly value: unknown }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'unreachable'; readonly message: string };

export interface OutboxState {
  readonly parcels: readonly Parcel[];
  /** Why nothing is being sent; null while all goes well. */
  readonly trouble: string | null;
}

export interface OutboxParts {
  readonly send: (parcel: Parcel) => Promise<Outcome>;
  /** Where parcels outlive the page; a store that fails leaves them in the page alone. */
  readonly storage: Pick<Storage, 'getItem' | 'setItem'> | null;
  /** Runs the work once a delay is over. @returns what takes that back */
  readonly later: (work: () => void, delayMs: number) => () => void;
}

export interface Outbox {
  /** Keeps a parcel and sends it as soon as those before it are sent. */
  readonly post: (parcel: Omit<Parcel, 'refusedFor'>) => void;
  /** Asks the server again now. */
  readonly retry: () => void;
  /** Gives up a parcel that was refused. */
  readonly discard: (id: string) => void;
  readonly state: () => OutboxState;
  readonly subscribe: (listener: () => void) => () => void;
  /** Tells what the server answered to each parcel that it took. */
  readonly onAccepted: (listener: (parcel: Parcel, value: unknown) => void) => () => void;
  /** Another tab changed the store. */
  readonly reread: () => void;
}

const KEY = 'red-plumb-outbox';
const FIRST_DELAY_MS = 2000;
const LONGEST_DELAY_MS = 30_000;

function isParcel(value: unknown): value is Parcel {
  const parcel = value as Partial<Parcel> | null;
  return (
    typeof parcel === 'object' &&
    typeof parcel?.id === 'string' &&
    typeof parcel.owner === 'string' &&
    typeof parcel.label === 'string' &&
    PARCEL_KINDS.some((kind) => kind === parcel.kind)
  );
}

/** Parcels in a browser's store. One that cannot be written is not read either: it would give back less than the page holds. */
function parcelStore(storage: OutboxParts['storage']) {
  let store = storage;
  return {
    /** Null where there is no store; what cannot be read as parcels is no parcel. */
    read: (): readonly Parcel[] | null => {
      try {
        const stored: unknown = JSON.parse(store?.getItem(KEY) ?? '[]');
        return store && Array.isArray(stored) ? stored.filter(isParcel) : null;
      } catch {
        return null;
      }
    },
    write: (parcels: readonly Parcel[]): void => {
      try {
        store?.setItem(KEY, JSON.stringify(parcels));
      } catch {
        store = null;
      }
    },
  };
}

/**
 * What was entered and is not with the server yet. A parcel leaves only when the server has it, or when a person discards one
 * that was refused: lost connections, a stopped database and a missing sign-in keep it, and it is sent again by itself.
 */
export function makeOutbox({ send, storage, later }: OutboxParts): Outbox {
  const store = parcelStore(storage);
  let parcels: readonly Parcel[] = store.read() ?? [];
  let trouble: string | null = null;
  let isSending = false;
  let delayMs = FIRST_DELAY_MS;
  let cancelTimer: (() => void) | null = null;
  let shown: OutboxState = { parcels, trouble };
  const listeners = new Set<() => void>();
  const takers = new Set<(parcel: Parcel, value: unknown) => void>();

  const show = (): void => {
    shown = { parcels, trouble };
    for (const listener of listeners) listener();
  };
  /** Changes the parcels as they stand in the store now, which other tabs share. */
  const change = (next: (all: readonly Parcel[]) => readonly Parcel[]): void => {
    parcels = next(store.read() ?? parcels);
    store.write(parcels);
    show();
  };
  const without = (id: string): void => {
    change((all) => all.filter((p) => p.id !== id));
  };

  const settle = (parcel: Parcel, outcome: Exclude<Outcome, { kind: 'unreachable' }>): void => {
    trouble = null;
    delayMs = FIRST_DELAY_MS;
    if (outcome.kind === 'refused') {
      change((all) => all.map((p) => (p.id === parcel.id ? { ...p, refusedFor: outcome.message } : p)));
      return;
    }
    for (const taker of takers) taker(parcel, outcome.value);
    without(parcel.id);
  };
  const wait = (message: string): void => {
    trouble = message;
    cancelTimer?.();
    cancelTimer = later(retry, delayMs);
    delayMs = Math.min(2 * delayMs, LONGEST_DELAY_MS);
    show();
  };
  const drain = async (): Promise<void> => {
    if (isSending) return;
    isSending = true;
    for (let next = parcels.find((p) => p.refusedFor === null); next;) {
      const outcome = await send(next);
      if (outcome.kind === 'unreachable') {
        wait(outcome.message);
        break;
      }
      settle(next, outcome);
      next = parcels.find((p) => p.refusedFor === null);
    }
    isSending = false;
  };
  const retry = (): void => {
    cancelTimer?.();
    cancelTimer = null;
    void drain();
  };

  return {
    post: (parcel) => {
      change((all) => [...all.filter((p) => p.id !== parcel.id), { ...parcel, refusedFor: null }]);
      if (trouble === null) void drain();
    },
    retry,
    discard: without,
    state: () => shown,
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    onAccepted: (taker) => {
      takers.add(taker);
      return () => takers.delete(taker);
    },
    reread: () => {
      parcels = store.read() ?? parcels;
      show();
    },
  };
}
