'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { letPhoneGo, shutPhonesOut } from '@/server/actions/door';
import type { Answer } from '@/server/actions/run';

export interface PhoneView {
  readonly id: string;
  readonly cameIn: string;
  readonly lastSeen: string;
}

/** Which devices are in, each of which can be let go; and the door itself. */
export function PhoneList({ phones }: { readonly phones: readonly PhoneView[] }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const run = (work: () => Promise<Answer<string>>) => {
    startTransition(async () => {
      const done = await work();
      setProblem(done.ok ? null : done.message);
      router.refresh();
    });
  };
  return (
    <section aria-label="Who is in">
      <h2>Who is in</h2>
      <ul className="things">
        {phones.map((p) => (
          <li key={p.id} className="d-flex flex-wrap justify-content-between gap-2">
            <span>
              {`Came in ${p.cameIn}`}
              <span className="quiet d-block">{`last seen ${p.lastSeen}`}</span>
            </span>
            <button
              type="button"
              className="btn btn-quiet"
              disabled={isBusy}
              aria-label={`Sign out the one that came in ${p.cameIn}`}
              onClick={() => {
                run(() => letPhoneGo({ id: p.id }));
              }}
            >
              Sign it out
            </button>
          </li>
        ))}
        {phones.length === 0 && <li className="quiet">Nobody yet. Point a phone&rsquo;s camera at the code.</li>}
      </ul>
      <button
        type="button"
        className="btn btn-quiet"
        disabled={isBusy}
        onClick={() => {
          run(() => shutPhonesOut('shut'));
        }}
      >
        Shut the door
      </button>
      <p className="quiet mt-2">Shut, nothing beyond this machine is answered, and whoever is in is signed out.</p>
      <span role="alert">{problem}</span>
    </section>
  );
}
