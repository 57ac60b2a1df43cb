'use client';

import { useState } from 'react';
import type { FileFingerprint } from '@/contracts/jobs';
import type { LayoutWorker } from '@/workers/layout.client';

interface Props {
  readonly words: string;
  readonly worker: () => LayoutWorker;
  readonly onFile: (file: FileFingerprint | null) => void;
}

/** A file that a program saved: its fingerprint is reckoned in this browser, the file itself goes nowhere. */
export function OwnFileDrop({ words, worker, onFile }: Props) {
  const [told, setTold] = useState<string | null>(null);
  const [isRunning, setRunning] = useState(false);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    onFile(null);
    setRunning(true);
    setTold(`Reading ${file.name} ...`);
    try {
      const sha256 = await worker().fingerprint(file, (share) => {
        setTold(`Reading ${file.name} ... ${Math.round(share * 100)} %`);
      });
      setTold(`${file.name}, ${file.size} bytes, fingerprint ${sha256.slice(0, 8)} ${sha256.slice(8, 16)} ...`);
      onFile({ name: file.name.slice(0, 200), bytes: file.size, sha256 });
    } catch {
      setTold(`${file.name} could not be read: choose it once more.`);
    }
    setRunning(false);
  };
  return (
    <div
      className="drop"
      onDragOver={(event) => {
        event.preventDefault();
      }}
      onDrop={(event) => {
        event.preventDefault();
        void take(event.dataTransfer.files[0]);
      }}
    >
      <label>
        <span className="d-block">{words}</span>
        <input
          type="file"
          className="form-control"
          onChange={(event) => {
            void take(event.target.files?.[0]);
          }}
        />
      </label>
      <p role="status" className="mb-0">
        {told}
      </p>
      {isRunning && (
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            worker().cancel();
            setRunning(false);
            setTold('Stopped.');
          }}
        >
          Cancel
        </button>
      )}
    </div>
  );
}
