import { useRouter } from 'next/navigation';
import { startTransition, useEffect, useEffectEvent, useState } from 'react';

const LOOK_EVERY_MS = 1000;

type State = 'looking' | 'database-stopped' | 'disk-full' | 'no-answer' | 'fault';

interface Readiness {
  readonly database: 'ready' | 'stopped';
  readonly disk: 'enough' | 'full';
}

async function lookNow(): Promise<Exclude<State, 'looking'>> {
  try {
    const answer = await fetch('/readyz', { cache: 'no-store' });
    const { database, disk } = (await answer.json()) as Readiness;
    if (disk === 'full') return 'disk-full';
    return database === 'ready' ? 'fault' : 'database-stopped';
  } catch {
    return 'no-answer';
  }
}

/**
 * Why a page could not be drawn, asked of the server every second. Once the reason was the database, the disk or the line and is gone,
 * the page is drawn again by itself; a fault of the page itself waits for a press. @returns the reason, and what such a press does
 */
export function useComeBack(reset: () => void): { readonly state: State; readonly again: () => void } {
  const router = useRouter();
  const [state, setState] = useState<State>('looking');
  // Rendering again is not enough: the server must be asked again as well.
  const again = (): void => {
    startTransition(() => {
      router.refresh();
      reset();
    });
  };
  const comeBack = useEffectEvent(again);
  useEffect(() => {
    let isGone = false;
    let wasAway = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = async (): Promise<void> => {
      const found = await lookNow();
      if (isGone) return;
      setState(found);
      if (found === 'fault') {
        if (wasAway) comeBack();
        return;
      }
      wasAway = true;
      timer = setTimeout(() => void look(), LOOK_EVERY_MS);
    };
    void look();
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  }, []);
  return { state, again };
}
