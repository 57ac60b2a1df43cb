'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { ArchiveLook, ArchiveProgress } from '@/contracts/archive';
import { archiveLeft } from '@/server/actions/archive';
import { chooseShop } from '@/server/actions/shop';
import { ArchiveLookView } from './ArchiveLookView';
import { follow } from '../components/follow';
import { sendArchive } from './send-archive';

type State =
  | { readonly kind: 'idle' }
  | Extract<ArchiveProgress, { kind: 'progress' }>
  | Extract<ArchiveProgress, { kind: 'look' }>
  | Extract<ArchiveProgress, { kind: 'refused' }>
  | { readonly kind: 'done'; readonly look: ArchiveLook };

const IDLE: State = { kind: 'idle' };

interface Props {
  /** What the newest restore put aside, in words; absent where there is nothing. */
  readonly before: { readonly shopName: string; readonly at: string } | null;
}

/** Long work of this page: one at a time, told as it goes on, given up when it is cancelled. */
function useArchive() {
  const [state, setState] = useState<State>(IDLE);
  const work = useRef<AbortController | null>(null);
  const run = async (what: (signal: AbortSignal) => Promise<void>): Promise<void> => {
    work.current?.abort();
    const own = new AbortController();
    work.current = own;
    try {
      await what(own.signal);
    } catch (error) {
      if (own.signal.aborted) setState(IDLE);
      else
        setState({ kind: 'refused', message: error instanceof Error ? error.message : 'The line broke. Try again.' });
    }
  };
  const cancel = (): void => {
    work.current?.abort();
    setState(IDLE);
  };
  return { state, setState, run, cancel };
}

function Waiting({ state, onCancel }: { state: Extract<State, { kind: 'progress' }>; onCancel: (() => void) | null }) {
  return (
    <div role="status" className="mb-3">
      <p className="mb-1">{state.words} ...</p>
      <progress value={state.of > 1 ? state.done / state.of : undefined} max={1} aria-label={state.words} />
      {onCancel && (
        <button type="button" className="btn-plain ms-3" onClick={onCancel}>
          Cancel
        </button>
      )}
    </div>
  );
}

/** Brings an archive in: looked at first, put in its place only when told. */
export function ArchiveTool({ before }: Props) {
  const router = useRouter();
  const { state, setState, run, cancel } = useArchive();
  const [isPutting, setIsPutting] = useState(false);
  const take = (line: ArchiveProgress): void => {
    if (line.kind !== 'restored') setState(line);
  };
  const look = (file: File | null): void => {
    void run(async (signal) => {
      const upload = file && (await sendArchive(file, signal, take));
      await follow('/shop/archive/look', { upload }, signal, (line) => {
        take(line as ArchiveProgress);
      });
    });
  };
  const putIn = (found: ArchiveLook): void => {
    setIsPutting(true);
    void run(async (signal) => {
      await follow('/shop/archive/restore', { sha256: found.sha256 }, signal, (told) => {
        const line = told as ArchiveProgress;
        if (line.kind !== 'restored') {
          setState(line);
          return;
        }
        setState({ kind: 'done', look: found });
        void chooseShop({ shopId: line.shopId }).then(() => {
          router.refresh();
        });
      });
    }).finally(() => {
      setIsPutting(false);
    });
  };
  return (
    <>
      {state.kind === 'idle' && <Choose before={before} onLook={look} />}
      {state.kind === 'progress' && <Waiting state={state} onCancel={isPutting ? null : cancel} />}
      {state.kind === 'refused' && (
        <div role="alert">
          <p className="caution">{state.message}</p>
          <button type="button" className="btn btn-quiet" onClick={cancel}>
            Choose another file
          </button>
        </div>
      )}
      {(state.kind === 'look' || state.kind === 'done') && (
        <ArchiveLookView
          look={state.look}
          isDone={state.kind === 'done'}
          onPutIn={() => {
            putIn(state.look);
          }}
          onLeave={() => {
            if (state.kind === 'look') void archiveLeft({ sha256: state.look.sha256 });
            setState(IDLE);
          }}
        />
      )}
    </>
  );
}

function Choose({ before, onLook }: Props & { readonly onLook: (file: File | null) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const look = useEffectEvent(onLook);
  // A file that was chosen before this page was ready to hear of it.
  useEffect(() => {
    const file = input.current?.files?.[0];
    if (file) look(file);
  }, []);
  return (
    <>
      <label className="form-label" htmlFor="archive-file">
        Archive of a shop
      </label>
      <input
        ref={input}
        id="archive-file"
        type="file"
        accept=".gz,application/gzip"
        className="form-control mb-2"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) onLook(file);
        }}
      />
      <p className="quiet">It is checked and compared first. Nothing changes before you say so.</p>
      {before && (
        <>
          <h3 className="h6">Put aside by the newest restore</h3>
          <p>
            {before.shopName}, as it was until {before.at}. It is kept until the next restore.
          </p>
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => {
              onLook(null);
            }}
          >
            Look at it, to put it back
          </button>
        </>
      )}
    </>
  );
}
