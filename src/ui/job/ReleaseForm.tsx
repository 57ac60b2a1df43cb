'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, useTransition } from 'react';
import type { FileFingerprint } from '@/contracts/jobs';
import { cutReleased } from '@/server/actions/job';
import { layoutWorker, type LayoutWorker } from '@/workers/layout.client';
import { OwnFileDrop } from './OwnFileDrop';
import { ScoreTools, type Tools } from './ScoreTools';

interface Props {
  readonly jobId: string;
  readonly personName: string;
  /** What changed since it was locked, each to be acknowledged. */
  readonly changes: readonly string[];
  /** Name of the program's own file that was locked; null where it was laid out here. */
  readonly ownFileName: string | null;
  /** Whether a cut file is made here, and how the sheet lay when the machine was checked. */
  readonly turnDeg: number | null;
  /** Some of its lines are scored. */
  readonly hasScores: boolean;
  /** What lies on or under the material as it is cut; empty: as it was printed. */
  readonly stack: string;
}

const TURNS = [
  [0, 'the arrow end goes in first'],
  [90, 'turned: the arrow points to the left as it goes in'],
  [180, 'the arrow end goes in last'],
  [270, 'turned: the arrow points to the right as it goes in'],
] as const;

/** Before a cut file is given out: what changed, acknowledged one by one by the one whose name stands here. */
export function ReleaseForm({ jobId, personName, changes, ownFileName, turnDeg: usual, hasScores, stack }: Props) {
  const router = useRouter();
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const [file, setFile] = useState<FileFingerprint | null>(null);
  const [isUnmoved, setUnmoved] = useState(false);
  const [turnDeg, setTurnDeg] = useState(usual);
  const [tools, setTools] = useState<Tools>({ lines: 'all', scoreTool: 2 });
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const handle = useRef<LayoutWorker | null>(null);
  const worker = (): LayoutWorker => (handle.current ??= layoutWorker());
  useEffect(
    () => () => {
      handle.current?.cancel();
    },
    [],
  );
  const isSeen = changes.every((words) => seen.has(words));
  const isReady = isSeen && (ownFileName === null || (file !== null && isUnmoved));
  const release = (): void => {
    startTransition(async () => {
      const order = { id: uuid(), jobId, seenChanges: changes, ownFile: file, isUnmoved, turnDeg, stack, ...tools };
      const done = await cutReleased(order);
      setTold(done.ok ? null : done.message);
      if (done.ok) router.refresh();
    });
  };
  return (
    <section aria-label="Before it is cut">
      {changes.length > 0 ? (
        <fieldset>
          <legend className="h2">{`Changed since it was locked: look at each, ${personName}`}</legend>
          {changes.map((words) => (
            <label key={words} className="choice">
              <input
                type="checkbox"
                checked={seen.has(words)}
                onChange={(event) => {
                  const next = new Set(seen);
                  if (event.target.checked) next.add(words);
                  else next.delete(words);
                  setSeen(next);
                }}
              />
              <span>{words}</span>
            </label>
          ))}
        </fieldset>
      ) : (
        <p>{'\u25cf'} Nothing that is told here changed since it was locked.</p>
      )}
      {ownFileName !== null && (
        <>
          <OwnFileDrop
            words={`${ownFileName}, as it is open in your program: saved once more and dropped here`}
            worker={worker}
            onFile={setFile}
          />
          <label className="choice">
            <input
              type="checkbox"
              checked={isUnmoved}
              onChange={(event) => {
                setUnmoved(event.target.checked);
              }}
            />
            <span>The same file, and nothing on the page was moved since it was printed</span>
          </label>
        </>
      )}
      {usual !== null && (
        <div className="mb-3">
          <label className="form-label" htmlFor="turn">
            How it lies in the machine
          </label>
          <select
            id="turn"
            className="form-select"
            value={turnDeg ?? 0}
            onChange={(event) => {
              setTurnDeg(Number(event.target.value));
            }}
          >
            {TURNS.map(([deg, words]) => (
              <option key={deg} value={deg}>
                {words}
              </option>
            ))}
          </select>
        </div>
      )}
      {usual !== null && hasScores && <ScoreTools tools={tools} onTools={setTools} />}
      <button type="button" className="btn btn-primary" disabled={isBusy || !isReady} onClick={release}>
        {usual === null ? 'It may be cut' : 'Give out the cut file'}
      </button>
      <p role="status">{told}</p>
    </section>
  );
}
