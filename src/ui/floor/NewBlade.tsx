'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { somethingHappened } from '@/server/actions/shop';

/** A new blade or holder in the machine: what was clean before says nothing of it. */
export function NewBlade({ setupId }: { readonly setupId: string }) {
  const router = useRouter();
  const [note, setNote] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <form
      className="mb-3"
      onSubmit={(event) => {
        event.preventDefault();
        startTransition(async () => {
          const done = await somethingHappened({ id: uuid(), setupId, kind: 'new_blade', note });
          setTold(done.ok ? 'Written down. It can be taken back on the bench.' : done.message);
          if (!done.ok) return;
          setNote('');
          router.refresh();
        });
      }}
    >
      <label className="form-label" htmlFor="blade-note">
        Another blade was put in
      </label>
      <div className="d-flex flex-wrap gap-2">
        <input
          id="blade-note"
          className="form-control"
          style={{ maxWidth: '16rem' }}
          maxLength={200}
          placeholder="45 degree, second of the box"
          value={note}
          onChange={(event) => {
            setNote(event.target.value);
          }}
        />
        <button type="submit" className="btn btn-quiet" disabled={isBusy}>
          Write it down
        </button>
      </div>
      <p role="status" className="mb-0">
        {told}
      </p>
    </form>
  );
}
