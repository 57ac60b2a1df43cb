'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { draftKept } from '@/server/actions/job';
import type { JobEditorView, Kept } from './job-view';

/** After the last key so long, then it is sent. */
const PAUSE_MS = 500;

interface Stored extends Kept {
  readonly version: number;
}

const storeName = (jobId: string): string => `red-plumb job ${jobId}`;

function store(jobId: string, value: Stored | null): void {
  try {
    if (value) localStorage.setItem(storeName(jobId), JSON.stringify(value));
    else localStorage.removeItem(storeName(jobId));
  } catch {
    // A browser that keeps nothing still sends everything.
  }
}

/** What was typed here and never reached the server; null where nothing waits, or another device went on meanwhile. */
function storedFor(jobId: string, version: number): Kept | null {
  try {
    const stored = JSON.parse(localStorage.getItem(storeName(jobId)) ?? 'null') as Stored | null;
    return stored?.version === version ? stored : null;
  } catch {
    return null;
  }
}

export interface DraftKeeper {
  readonly kept: Kept;
  /** What changes, from what stands now: an answer that comes late takes nothing back. */
  readonly change: (next: (now: Kept) => Partial<Kept>) => void;
  readonly version: number;
  readonly state: 'kept' | 'sending' | 'waiting';
  readonly notice: string | null;
  /** Raised when what was typed before came back: fields begin anew with it. */
  readonly restored: number;
  /** Sends what waits, at once. */
  readonly send: () => Promise<number | null>;
}

/** A job's draft: shown at once, held in the browser until the server has it, sent after each pause. */
export function useDraft({ jobId, version: first, name, materialId, draft }: JobEditorView): DraftKeeper {
  const [kept, setKept] = useState<Kept>({ name, materialId, draft });
  const [version, setVersion] = useState(first);
  const [state, setState] = useState<DraftKeeper['state']>('kept');
  const [notice, setNotice] = useState<string | null>(null);
  const [restored, setRestored] = useState(0);
  const latest = useRef<Stored>({ name, materialId, draft, version: first });
  const timer = useRef<number | undefined>(undefined);
  const running = useRef<Promise<number | null> | null>(null);

  const sendOnce = useCallback(async (): Promise<number | null> => {
    const sent = latest.current;
    setState('sending');
    try {
      const done = await draftKept({ jobId, ...sent });
      if (!done.ok) {
        setNotice(done.message);
        setState('waiting');
        return null;
      }
      latest.current = { ...latest.current, version: done.value };
      setVersion(done.value);
      setNotice(null);
      const isLatest = latest.current.draft === sent.draft && latest.current.name === sent.name;
      store(jobId, isLatest ? null : latest.current);
      setState(isLatest ? 'kept' : 'waiting');
      return done.value;
    } catch {
      setNotice('The shop\u2019s server does not answer. What you typed is kept in this browser and will be sent.');
      setState('waiting');
      return null;
    }
  }, [jobId]);

  /** One after another: each needs the version that the one before it made. */
  const send = useCallback(async (): Promise<number | null> => {
    window.clearTimeout(timer.current);
    while (running.current) await running.current;
    running.current = sendOnce();
    const done = await running.current;
    running.current = null;
    return done;
  }, [sendOnce]);

  const change = useCallback(
    (next: (now: Kept) => Partial<Kept>) => {
      latest.current = { ...latest.current, ...next(latest.current) };
      const { name: nowName, materialId: nowMaterial, draft: nowDraft } = latest.current;
      setKept({ name: nowName, materialId: nowMaterial, draft: nowDraft });
      setState('waiting');
      store(jobId, latest.current);
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void send(), PAUSE_MS);
    },
    [jobId, send],
  );

  useEffect(() => {
    const waiting = storedFor(jobId, first);
    const taken = window.setTimeout(() => {
      if (!waiting) return;
      change(() => waiting);
      setRestored((n) => n + 1);
      setNotice('What you typed here before is back.');
    }, 0);
    return () => {
      window.clearTimeout(taken);
      window.clearTimeout(timer.current);
    };
  }, [jobId, first, change]);

  return { kept, change, version, state, notice, restored, send };
}
