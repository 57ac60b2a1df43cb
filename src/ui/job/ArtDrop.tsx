'use client';

import { useState } from 'react';
import type { ItemArt } from '@/core/layout/job-draft';
import { placeArt, type PlacedArt } from './place-art';

interface Props {
  readonly jobId: string;
  readonly words: string;
  readonly onPlaced: (art: Exclude<ItemArt, { kind: 'plain' }>) => Promise<void>;
}

const artOf = ({ id, kind, widthPx, heightPx }: PlacedArt, fileName: string): Exclude<ItemArt, { kind: 'plain' }> =>
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
    const done = await placeArt(jobId, file);
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
