'use client';

import { shopOutbox, useOutbox } from './shop-outbox';

const count = (n: number): string => (n === 1 ? '1 reading' : `${n} readings`);

/** Readings that the server does not have, on every page: why, and the way out. Nothing is shown while all is saved. */
export function OutboxBar() {
  const { parcels, trouble } = useOutbox();
  const waiting = parcels.filter((p) => p.refusedFor === null);
  const refused = parcels.filter((p) => p.refusedFor !== null);
  if ((trouble === null || waiting.length === 0) && refused.length === 0) return null;
  return (
    <aside className="outbox" aria-label="Not saved yet">
      {trouble !== null && waiting.length > 0 && (
        <p role="status">
          <strong>{`${count(waiting.length)} not saved yet. `}</strong>
          {`${trouble} `}
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => {
              shopOutbox().retry();
            }}
          >
            Retry
          </button>
        </p>
      )}
      {refused.map((p) => (
        <p key={p.id} role="alert">
          <strong>{`${p.label}: not saved. `}</strong>
          {`${p.refusedFor ?? ''} `}
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => {
              shopOutbox().discard(p.id);
            }}
          >
            Discard
          </button>
        </p>
      ))}
    </aside>
  );
}
