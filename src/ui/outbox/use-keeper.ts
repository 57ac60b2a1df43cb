import { v4 as uuid } from 'uuid';
import { useEffect, useEffectEvent, useState } from 'react';
import type { Kept } from '../read/slot';
import type { ParcelKind } from './outbox';
import { acceptedParcels, shopOutbox, useOutbox } from './shop-outbox';

/** What every answer to a figure holds, whatever else it names. */
interface Answered {
  readonly state: Kept['state'] | 'withdrawn';
  readonly readingMm: number | null;
}

export interface KeeperPlan<P extends Answered> {
  readonly kind: ParcelKind;
  /** The cut set or roll whose figures these are. */
  readonly owner: string;
  readonly initial: Readonly<Record<string, Kept>>;
  /** Name of the figure's place among the owner's. */
  readonly slotOf: (payload: P) => string;
  readonly labelOf: (payload: P) => string;
  /** The value that a saved answer superseded, out of what the server said. */
  readonly earlierOf: (value: unknown) => number | null;
}

export interface Keeper<P extends Answered> {
  /** The latest answer to each figure; `isSaved` is false until the server has it. */
  readonly kept: Readonly<Record<string, Kept>>;
  /** How many of them the server does not have yet. */
  readonly unsaved: number;
  /** Keeps one deliberate answer, which may be of several figures at once. */
  readonly keep: (...payloads: readonly P[]) => void;
  /** Takes back the latest answer made on this page. @returns its first figure's place, or null where there is none */
  readonly undo: () => string | null;
  readonly canUndo: boolean;
  /** Another's reading that one of these superseded. */
  readonly notice: string | null;
}

function answered(all: Readonly<Record<string, Kept>>, slot: string, payload: Answered, isSaved: boolean) {
  const { state, readingMm } = payload;
  const others = Object.fromEntries(Object.entries(all).filter(([name]) => name !== slot));
  return state === 'withdrawn' ? others : { ...others, [slot]: { state, readingMm, isSaved } };
}

interface Undoable<P> {
  readonly payloads: readonly P[];
  readonly before: readonly (Kept | undefined)[];
}

/** Keeps answers to figures as they are made: shown at once, sent by the outbox, called saved once the server has them. */
export function useKeeper<P extends Answered>(plan: KeeperPlan<P>): Keeper<P> {
  const { kind, owner, slotOf, labelOf } = plan;
  const [saved, setSaved] = useState(() =>
    acceptedParcels(kind, owner).reduce(
      (all, { payload }) => answered(all, slotOf(payload as P), payload as P, true),
      plan.initial,
    ),
  );
  const [done, setDone] = useState<readonly Undoable<P>[]>([]);
  const [undone, setUndone] = useState<readonly string[]>([]);
  const [notice, setNotice] = useState<string | null>(null);
  const own = useOutbox().parcels.filter((p) => p.kind === kind && p.owner === owner && p.refusedFor === null);

  const take = useEffectEvent((payload: P, id: string, value: unknown): void => {
    setSaved((now) => answered(now, slotOf(payload), payload, true));
    const earlierMm = undone.includes(id) ? null : plan.earlierOf(value);
    setNotice(
      earlierMm === null
        ? null
        : `${labelOf(payload)} had a reading already (${earlierMm.toFixed(2)} mm). Both are kept; yours counts.`,
    );
  });
  useEffect(
    () =>
      shopOutbox().onAccepted((parcel, value) => {
        if (parcel.kind === kind && parcel.owner === owner) take(parcel.payload as P, parcel.id, value);
      }),
    [kind, owner],
  );

  const kept = own.reduce((all, { payload }) => answered(all, slotOf(payload as P), payload as P, false), saved);
  const post = (payload: P): string => {
    const id = uuid();
    shopOutbox().post({ id, kind, owner, label: labelOf(payload), payload: { ...payload, id } });
    return id;
  };
  const keep = (...payloads: readonly P[]): void => {
    setDone([...done, { payloads, before: payloads.map((p) => kept[slotOf(p)]) }]);
    payloads.forEach(post);
  };
  const undo = (): string | null => {
    const last = done.at(-1);
    const [first] = last?.payloads ?? [];
    if (!last || first === undefined) return null;
    setDone(done.slice(0, -1));
    const ids = last.payloads.map((payload, i) => {
      const { state = 'withdrawn', readingMm = null } = last.before[i] ?? {};
      return post({ ...payload, state, readingMm });
    });
    setUndone([...undone, ...ids]);
    return slotOf(first);
  };
  return { kept, unsaved: own.length, keep, undo, canUndo: done.length > 0, notice };
}
