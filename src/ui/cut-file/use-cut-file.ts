'use client';

import { useEffect, useRef, useState } from 'react';
import {
  cutFileWorker,
  type CorrectedFile,
  type CutFileWorker,
  type FileProblem,
  type Survey,
} from '@/workers/cut-file.client';
import type { PlaneMove } from '@/core/geometry/plane-move';
import type { GroupBy } from '@/workers/cut-file.client';

/** The reader takes no more; the page says so before it reads a byte. */
const MOST_BYTES = 64 * 1024 * 1024;

/** The browser lost the file or its helper: said, with the way on. */
const UNREADABLE: FileProblem = {
  kind: 'not-a-drawing',
  where: 'file',
  words: 'The browser could not read it: choose the file once more.',
};

export type CutFileState =
  | { readonly kind: 'none' }
  | { readonly kind: 'reading'; readonly name: string }
  | { readonly kind: 'refused'; readonly name: string; readonly problem: FileProblem }
  | { readonly kind: 'read'; readonly name: string; readonly survey: Survey }
  | { readonly kind: 'making'; readonly name: string; readonly survey: Survey; readonly share: number }
  | {
      readonly kind: 'made';
      readonly name: string;
      readonly survey: Survey;
      readonly file: CorrectedFile;
      readonly href: string;
    };

export interface Units {
  readonly pxPerInch: 96 | 72;
  readonly mmPerUnit: number;
}

/** Which lines move, and how. */
export interface MoveQuestion {
  readonly by: GroupBy;
  readonly names: readonly string[];
  readonly move: PlaneMove;
}

export interface CutFileJob {
  readonly state: CutFileState;
  readonly problem: FileProblem | null;
  readonly open: (file: File, units: Units) => void;
  readonly reopen: (units: Units) => void;
  readonly make: (ask: MoveQuestion, units: Units) => void;
  /** What was made no longer fits what is chosen now. */
  readonly outdated: () => void;
  readonly cancel: () => void;
}

const tooLarge: FileProblem = { kind: 'too-large', where: 'file', words: 'More than 64 MB.' };

/** The state before a file was made, was being made, or was being read. */
function withoutMade(now: CutFileState): CutFileState {
  if (now.kind === 'reading') return { kind: 'none' };
  if (now.kind === 'made') URL.revokeObjectURL(now.href);
  return now.kind === 'made' || now.kind === 'making' ? { kind: 'read', name: now.name, survey: now.survey } : now;
}

/** One cut file on its way through the worker: opened, looked at, corrected. Nothing leaves the browser. */
export function useCutFile(): CutFileJob {
  const [state, setState] = useState<CutFileState>({ kind: 'none' });
  const [problem, setProblem] = useState<FileProblem | null>(null);
  const worker = useRef<CutFileWorker | null>(null);
  const bytes = useRef<Uint8Array>(new Uint8Array());
  /** Raised by every new job: an answer to an older one is dropped. */
  const job = useRef(0);

  useEffect(
    () => () => {
      worker.current?.cancel();
    },
    [],
  );
  const handle = (): CutFileWorker => (worker.current ??= cutFileWorker());

  const look = async (name: string, units: Units, file?: File): Promise<void> => {
    const mine = ++job.current;
    setProblem(null);
    setState({ kind: 'reading', name });
    try {
      if (file) bytes.current = new Uint8Array(await file.arrayBuffer());
      const survey = await handle().survey(bytes.current, units);
      if (mine !== job.current) return;
      setState(
        survey.ok ? { kind: 'read', name, survey: survey.value } : { kind: 'refused', name, problem: survey.error },
      );
    } catch {
      if (mine === job.current) setState({ kind: 'refused', name, problem: UNREADABLE });
    }
  };

  const moveLines = async (name: string, survey: Survey, ask: MoveQuestion, units: Units): Promise<void> => {
    const mine = ++job.current;
    const tell = (share: number): void => {
      if (mine === job.current) setState({ kind: 'making', name, survey, share });
    };
    setProblem(null);
    tell(0);
    const refuse = (reason: FileProblem): void => {
      setProblem(reason);
      setState({ kind: 'read', name, survey });
    };
    try {
      const { by, names, move } = ask;
      const made = await handle().move(bytes.current, { by, names, move }, units, tell);
      if (mine !== job.current) return;
      if (!made.ok) {
        refuse(made.error);
        return;
      }
      const href = URL.createObjectURL(new Blob([made.value.bytes], { type: 'application/octet-stream' }));
      setState({ kind: 'made', name, survey, file: made.value, href });
    } catch {
      if (mine === job.current) refuse(UNREADABLE);
    }
  };

  return {
    state,
    problem,
    open: (file, units) => {
      if (file.size > MOST_BYTES) setState({ kind: 'refused', name: file.name, problem: tooLarge });
      else void look(file.name, units, file);
    },
    reopen: (units) => {
      if (state.kind !== 'none') void look(state.name, units);
    },
    make: (ask, units) => {
      if (state.kind === 'read' || state.kind === 'made') void moveLines(state.name, state.survey, ask, units);
    },
    outdated: () => {
      if (state.kind === 'made') setState(withoutMade(state));
    },
    cancel: () => {
      job.current += 1;
      worker.current?.cancel();
      setState(withoutMade);
    },
  };
}
