'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { noteKept } from '@/server/actions/history';

/** Words beside an entry, written later on: they are added, nothing is changed. */
export function NoteForm({ historyEntryId }: { readonly historyEntryId: string }) {
  const router = useRouter();
  const [note, setNote] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const keep = (): void => {
    startTransition(async () => {
      const done = await noteKept({ id: uuid(), historyEntryId, note });
      setTold(done.ok ? 'Kept.' : done.message);
      if (!done.ok) return;
      setNote('');
      router.refresh();
    });
  };
  return (
    <div className="mb-3">
      <label className="form-label" htmlFor="note">
        A note beside it
      </label>
      <textarea
        id="note"
        className="form-control mb-2"
        rows={2}
        maxLength={500}
        value={note}
        onChange={(event) => {
          setNote(event.target.value);
        }}
      />
      <button type="button" className="btn btn-quiet" disabled={isBusy || note.trim() === ''} onClick={keep}>
        Keep the note
      </button>
      <p role="status" className="mb-0">
        {told}
      </p>
    </div>
  );
}
