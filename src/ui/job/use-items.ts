'use client';

import { useEffect, useRef, useState } from 'react';
import type { JobDraft, JobItem } from '@/core/layout/job-draft';
import {
  layoutWorker,
  type ArtSurvey,
  type FileProblem,
  type ItemView,
  type LayoutWorker,
} from '@/workers/layout.client';

export type ItemState =
  | { readonly kind: 'working'; readonly share: number; readonly view: ItemView | null }
  | { readonly kind: 'ready'; readonly view: ItemView }
  | { readonly kind: 'refused'; readonly problem: FileProblem };

const LOST: FileProblem = {
  kind: 'not-a-drawing',
  where: 'file',
  words: 'The browser could not read it: place it once more.',
};

/** What of an item changes its cell, its art or its cut lines. */
const keyOf = ({ art, widthMm, lengthMm }: JobItem, { edge, isMirrored }: JobDraft): string =>
  JSON.stringify([art, widthMm, lengthMm, edge, isMirrored]);

export interface Items {
  readonly states: Readonly<Record<string, ItemState>>;
  readonly surveys: Readonly<Record<string, ArtSurvey>>;
  readonly worker: () => LayoutWorker;
  /** Size of a drawing's art without the lines that are cut; null where it has none or was not understood. */
  readonly naturalSize: LayoutWorker['naturalSize'];
  /** Ends what runs, and begins again. */
  readonly cancel: () => void;
}

/** What was being worked out when it was stopped. */
const stopped = (states: Items['states']): Items['states'] =>
  Object.fromEntries(
    Object.entries(states).map(([id, s]) => [
      id,
      s.kind === 'working' ? { kind: 'refused', problem: { ...LOST, words: 'Stopped.' } } : s,
    ]),
  );

/** Items as pictures draw them, as far as they are ready. */
export function viewsOf(states: Items['states'], draft: JobDraft): Readonly<Record<string, ItemView>> {
  return Object.fromEntries(
    draft.items.flatMap((item) => {
      const state = states[item.id];
      const view = state && state.kind !== 'refused' ? state.view : null;
      return view ? [[item.id, view]] : [];
    }),
  );
}

/** Where the browser finds the pictures among a job's art, by the item's id. */
export const picturesOf = (jobId: string, draft: JobDraft): Readonly<Record<string, string>> =>
  Object.fromEntries(
    draft.items.flatMap(({ id, art }) => (art.kind === 'picture' ? [[id, `/jobs/${jobId}/art/${art.fileId}`]] : [])),
  );

/** Items made ready by the worker, each again when something of it changes. Drawings are fetched and read once. */
export function useItems(jobId: string, draft: JobDraft): Items {
  const [states, setStates] = useState<Readonly<Record<string, ItemState>>>({});
  const [surveys, setSurveys] = useState<Readonly<Record<string, ArtSurvey>>>({});
  const handle = useRef<LayoutWorker | null>(null);
  const keys = useRef(new Map<string, string>());
  const reads = useRef(new Map<string, Promise<FileProblem | null>>());
  const worker = (): LayoutWorker => (handle.current ??= layoutWorker());

  const readOnce = (fileId: string): Promise<FileProblem | null> => {
    const known = reads.current.get(fileId);
    if (known) return known;
    const reading = (async () => {
      const response = await fetch(`/jobs/${jobId}/art/${fileId}`);
      if (!response.ok) return LOST;
      const survey = await worker().read(fileId, await response.text());
      if (!survey.ok) return survey.error;
      setSurveys((all) => ({ ...all, [fileId]: survey.value }));
      return null;
    })();
    reads.current.set(fileId, reading);
    return reading;
  };

  const prepare = async (item: JobItem, key: string): Promise<void> => {
    const tell = (state: ItemState): void => {
      if (keys.current.get(item.id) === key) setStates((all) => ({ ...all, [item.id]: state }));
    };
    try {
      const wrong = item.art.kind === 'drawing' ? await readOnce(item.art.fileId) : null;
      if (wrong) {
        tell({ kind: 'refused', problem: wrong });
        return;
      }
      const { edge, isMirrored } = draft;
      const made = await worker().prepare(item, { edge, isMirrored }, (share) => {
        setStates((all) => {
          const before = all[item.id];
          const view = before && 'view' in before ? before.view : null;
          return keys.current.get(item.id) === key ? { ...all, [item.id]: { kind: 'working', share, view } } : all;
        });
      });
      tell(made.ok ? { kind: 'ready', view: made.value } : { kind: 'refused', problem: made.error });
    } catch {
      tell({ kind: 'refused', problem: LOST });
    }
  };

  useEffect(() => {
    for (const item of draft.items) {
      const key = keyOf(item, draft);
      if (keys.current.get(item.id) === key) continue;
      keys.current.set(item.id, key);
      void prepare(item, key);
    }
  });
  useEffect(
    () => () => {
      handle.current?.cancel();
      handle.current = null;
      reads.current.clear();
      keys.current.clear();
    },
    [],
  );

  return {
    states,
    surveys,
    worker,
    naturalSize: async (item) => {
      if (item.art.kind !== 'drawing') return null;
      return (await readOnce(item.art.fileId)) ? null : worker().naturalSize(item);
    },
    cancel: () => {
      handle.current?.cancel();
      reads.current.clear();
      setStates(stopped);
    },
  };
}
