'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { DemoProgress } from '@/contracts/progress';
import { follow } from '../components/follow';

type State =
  | { readonly kind: 'idle'; readonly problem: string | null }
  | { readonly kind: 'working'; readonly share: number | undefined };

/** Adds the demo shop: how far it is, and a way to stop. */
export function AddDemo({ label }: { readonly label: string }) {
  const router = useRouter();
  const work = useRef<AbortController | null>(null);
  const [state, setState] = useState<State>({ kind: 'idle', problem: null });
  const take = (line: DemoProgress): void => {
    if (line.kind === 'progress') setState({ kind: 'working', share: line.done / line.of });
    else if (line.kind === 'refused') setState({ kind: 'idle', problem: line.message });
    else {
      setState({ kind: 'idle', problem: null });
      router.push('/');
      router.refresh();
    }
  };
  const add = async (): Promise<void> => {
    const own = new AbortController();
    work.current = own;
    setState({ kind: 'working', share: undefined });
    try {
      await follow('/shop/demo', {}, own.signal, (line) => {
        take(line as DemoProgress);
      });
    } catch {
      setState({ kind: 'idle', problem: own.signal.aborted ? null : 'Connection lost. Try again.' });
    }
  };
  if (state.kind === 'working')
    return (
      <div role="status">
        <p className="mb-1">Making the demo shop, under a minute ...</p>
        <progress value={state.share} max={1} aria-label="Making the demo shop" />
        <button type="button" className="btn-plain ms-3" onClick={() => work.current?.abort()}>
          Cancel
        </button>
      </div>
    );
  return (
    <>
      <button type="button" className="btn btn-quiet" onClick={() => void add()}>
        {label}
      </button>
      <p role="alert" className="invalid-feedback d-block">
        {state.problem}
      </p>
    </>
  );
}
