'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { makePassphrase, PASSPHRASE_BYTES } from '@/core/shop/passphrase-words';
import { letPhonesIn } from '@/server/actions/door';

const suggest = (): string => makePassphrase(crypto.getRandomValues(new Uint8Array(PASSPHRASE_BYTES)));

/** A passphrase, made up here or one's own, and the press that opens the door with it. */
export function LetPhonesIn({ isOpen, suggested }: { readonly isOpen: boolean; readonly suggested: string }) {
  const router = useRouter();
  const [passphrase, setPassphrase] = useState(suggested);
  const [kept, setKept] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (kept !== null && isOpen) return <KeptPassphrase passphrase={kept} />;
  return (
    <form
      className="mb-4"
      onSubmit={(event) => {
        event.preventDefault();
        startTransition(async () => {
          const done = await letPhonesIn({ passphrase });
          setProblem(done.ok ? null : done.message);
          if (done.ok) setKept(passphrase);
          router.refresh();
        });
      }}
    >
      <label htmlFor="passphrase">{isOpen ? 'Another passphrase' : 'Passphrase for this shop'}</label>
      <span className="d-flex flex-wrap gap-2">
        <input
          id="passphrase"
          className="form-control"
          style={{ maxWidth: '26rem' }}
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          maxLength={128}
          aria-describedby="passphrase-help"
          value={passphrase}
          onChange={(e) => {
            setPassphrase(e.target.value);
          }}
        />
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            setPassphrase(suggest());
          }}
        >
          Other words
        </button>
      </span>
      <span id="passphrase-help" className="quiet d-block mb-2">
        Made up just now, or type your own: at least 12 characters, and used nowhere else.
        {isOpen && ' Whoever is in has to come in again with it.'}
      </span>
      <button type="submit" className="btn btn-primary" disabled={isBusy}>
        {isOpen ? 'Change the passphrase' : 'Let phones in'}
      </button>
      {isBusy && <span className="quiet ms-2">Opening the door ...</span>}
      <span role="alert" className="d-block mt-2">
        {problem}
      </span>
    </form>
  );
}

function KeptPassphrase({ passphrase }: { readonly passphrase: string }) {
  return (
    <p className="notice" role="status">
      The passphrase is <strong className="figures">{passphrase}</strong>. Write it down now: it is not kept in a form
      that can be shown again.
    </p>
  );
}
