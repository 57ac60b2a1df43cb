'use client';

import { v4 as uuid } from 'uuid';
import { useState } from 'react';
import type { ItemArt } from '@/core/layout/job-draft';

const MOST_BYTES = 64 * 1024 * 1024;

interface Placed {
  readonly id: string;
  readonly kind: 'drawing' | 'picture';
  readonly widthPx: number;
  readonly heightPx: number;
}

interface Props {
  readonly jobId: string;
  readonly words: string;
  readonly onPlaced: (art: Exclude<ItemArt, { kind: 'plain' }>) => Promise<void>;
}

async function place(jobId: string, file: File): Promise<Placed | string> {
  if (file.size > MOST_BYTES) return 'It is larger than 64 MB.';
  try {
    const response = await fetch(`/jobs/${jobId}/art/${uuid()}?name=${encodeURIComponent(file.name)}`, {
      method: 'PUT',
      body: file,
    });
    const answer = (await response.json()) as Placed | { readonly message: string };
    return 'message' in answer ? answer.message : answer;
  } catch {
    return 'The shop\u2019s server does not answer: place it again in a moment.';
  }
}

const artOf = ({ id, kind, widthPx, heightPx }: Placed, fileName: string): Exclude<ItemArt, { kind: 'plain' }> =>
  kind === 'drawing'
    ? { kind, fileId: id, fileName, cutBy: 'colour', cutNames: [], cutFrom: 'outline', keepsHoles: true }
    : { kind, fileId: id, fileName, widthPx, heightPx, shape: 'rectangle', cornerMm: 0 };

/** Art chosen or dropped: it goes to the shop's own server and is kept with the job. */
export function ArtDrop({ jobId, words, onPlaced }: Props) {
  const [told, setTold] = useState<string | null>(null);
  const [isOver, setOver] = useState(false);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setTold(`Placing ${file.name} ...`);
    const done = await place(jobId, file);
    if (typeof done === 'string') setTold(`${file.name} was not taken. ${done}`);
    else {
      setTold(`Reading ${file.name} ...`);
      await onPlaced(artOf(done, file.name.slice(0, 200)));
      setTold(null);
    }
  };
  return (
    <div
      className={`drop ${isOver ? 'over' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => {
        setOver(false);
      }}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void take(event.dataTransfer.files[0]);
      }}
    >
      <label>
        <span className="d-block">{words}</span>
        <input
          type="file"
          className="form-control"
          accept=".svg,.png,.jpg,.jpeg,image/svg+xml,image/png,image/jpeg"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </label>
      <p role="status" className="mb-0">
        {told}
      </p>
    </div>
  );
}
