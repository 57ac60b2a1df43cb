'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

interface Props {
  readonly jobId: string;
  readonly setupId: string;
  readonly materialId: string;
  readonly stack: string;
}

/** What lies under the blade: a laminate or a mask wants more force, and its own test cut. */
export function StackPicker({ jobId, setupId, materialId, stack }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState(stack);
  const query = (words: string): string => (words === '' ? '' : `?stack=${encodeURIComponent(words)}`);
  return (
    <form
      className="mb-3"
      onSubmit={(event) => {
        event.preventDefault();
        router.replace(`/jobs/${jobId}${query(typed.trim())}`);
      }}
    >
      <label className="form-label" htmlFor="stack">
        What was put on or under it since it was printed
      </label>
      <div className="d-flex flex-wrap gap-2">
        <input
          id="stack"
          className="form-control"
          style={{ maxWidth: '16rem' }}
          maxLength={60}
          placeholder="nothing"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
          }}
        />
        <button type="submit" className="btn btn-quiet" disabled={typed.trim() === stack}>
          It lies like that
        </button>
        <Link
          className="btn btn-quiet"
          href={`/setups/${setupId}/blade?job=${jobId}&material=${materialId}${stack === '' ? '' : `&stack=${encodeURIComponent(stack)}`}`}
          prefetch={false}
        >
          Write a test cut down
        </Link>
      </div>
    </form>
  );
}
